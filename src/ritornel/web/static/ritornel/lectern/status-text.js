// The Lectern's text about the present beat and the next one: stops, what arrives, notes.
import { goesOnAlone, nextStep } from "../player/live.js";
import { el, svg } from "../ui/element.js";
import { minutesText, secondsText } from "../ui/times.js";

/** @param {string} id */
const at = (id) => document.getElementById(id);
/** @type {{[kind: string]: string}} */
const SHAPES = {
	enters: "M 0 6 L 14 0 V 12 Z",
	leaves: "M 0 0 L 14 6 L 0 12 Z",
	accents: "M 1 1 L 13 6 L 1 11",
	travels: "M 0 6 q 3.5 -9 7 0 t 7 0",
	views: "M 1 1 H 13 V 11 H 1 Z",
	plays: "M 2 0 L 13 6 L 2 12 Z",
};

/**
 * The sign of a kind of build, as on the score.
 * @param {string} kind
 */
const sign = (kind) =>
	svg(
		"svg",
		{ class: `sign ${kind}`, viewBox: "-1 -1 16 14", "aria-hidden": "true" },
		svg("path", { d: SHAPES[kind] }),
	);

/**
 * The beats of a slide as stops; pressing one goes to its end. @param {(ms: number) => void} go
 * @param {{beats: Core.BeatLine[]}} bar
 * @param {number} beat
 * @param {string} following
 */
export function drawStops(bar, beat, following, go) {
	at("beat-stops").replaceChildren(
		...bar.beats.map((line, number) =>
			el(
				"li",
				{},
				el(
					"button",
					{
						"aria-current": number === beat ? "step" : null,
						"data-next": number === beat + 1 ? "" : null,
						title: number ? `To the end of beat ${number}` : "To the arrival",
						onclick: (/** @type {any} */ event) => {
							event.currentTarget.blur();
							go(number);
						},
					},
					el("b", { class: "beat-dot" }, number),
					el("span", {}, line.title),
				),
			),
		),
		el("li", { class: "following" }, following),
	);
}

/**
 * The next event, in words: what the press does, or that the slide goes on by itself, and when.
 * @param {PlayedShow} show
 * @param {LiveState} state
 * @param {any} ready
 * @param {number} plannedMs
 */
export function waitingWords(show, state, ready, plannedMs) {
	if (ready) return "Nothing runs yet. Begin starts the clock.";
	if (state.over) return "The show is over. Back one returns to it.";
	const slide = show.slides[state.index];
	const planned = minutesText(plannedMs);
	if (goesOnAlone(show, state)) return `Goes on by itself, planned at ${planned}. A cue goes on at once`;
	const step = nextStep(show, state);
	if (step === "nothing") return "The show ends here and holds. No cue is left";
	if (step === "black") return "A cue goes to black";
	if (step === "again") return "A cue begins again from the first slide";
	return step === "beat" || slide.schedule.last_wait
		? `Cue planned at ${planned}`
		: `Waits for your cue, planned at ${planned}`;
}

/**
 * What the next press brings, in words.
 * @param {Core.BeatLine | null} line the coming beat, null where the press leaves the slide
 * @param {string} following
 * @param {string} waiting
 */
export function drawArrivals(line, following, waiting) {
	const builds = line?.arrivals ?? [];
	at("arrives-title").textContent = line
		? builds
				.slice(0, 2)
				.map(({ what, does }) => `${what} ${does}`)
				.join(", ") || line.title
		: following;
	at("arrives-title").textContent = at("arrives-title").textContent.replace(/^./, (/** @type {string} */ letter) =>
		letter.toUpperCase(),
	);
	const rows = builds
		.slice(0, 4)
		.map(({ kind, what, does, rule, lasts_ms: ms }) =>
			el(
				"li",
				{},
				sign(kind),
				el("span", {}, `${what} ${does}${rule ? `, ${rule}` : ""}`),
				el("i", {}, `${secondsText(ms)} s`),
			),
		);
	if (builds.length > 4) rows.push(el("li", {}, el("span"), el("span", {}, `and ${builds.length - 4} more`)));
	at("arrivals").replaceChildren(...rows, el("li", { class: "waiting-for" }, el("span"), el("span", {}, waiting)));
}

/** The notes by beat. Those of the coming beat are lit and kept at one height, unless somebody has scrolled. */
export class Notes {
	constructor() {
		this.node = at("notes");
		this.held = false;
		for (const kind of ["wheel", "touchmove"])
			this.node.addEventListener(
				kind,
				() => {
					this.held = true;
				},
				{ passive: true },
			);
		this.node.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => {
			if (["ArrowUp", "ArrowDown", "PageUp", "PageDown"].includes(event.key)) {
				this.held = true;
				event.stopPropagation();
			}
		});
		this.size = Number(localStorage.getItem("ritornel-notes-px") ?? 25);
		this.resize(0);
	}

	/** @param {number} by */
	resize(by) {
		this.size = Math.min(Math.max(this.size + by, 15), 52);
		localStorage.setItem("ritornel-notes-px", String(this.size));
		this.node.style.fontSize = `${this.size}px`;
		this.hold();
	}

	/** @param {{beats: Core.BeatLine[]}} bar @param {number} beat */
	show(bar, beat) {
		const told = bar.beats
			.map((line, number) => /** @type {[number, string]} */ ([number, line.notes]))
			.filter(([, words]) => words);
		// Lit are the words of the coming beat; where it has none, those that were said last go on.
		const lit =
			told.find(([number]) => number === beat + 1)?.[0] ??
			told.filter(([number]) => number <= beat).at(-1)?.[0] ??
			null;
		this.node.replaceChildren(
			...(told.length
				? told.map(([number, words]) =>
						el(
							"li",
							{
								"aria-current": number === lit ? "true" : null,
								class: number <= beat && number !== lit ? "said-already" : null,
							},
							el("b", { class: "beat-dot" }, number),
							el("p", {}, words),
						),
					)
				: [el("li", {}, el("span"), el("p", { class: "said-already" }, "No notes for this slide."))]),
		);
		this.held = false;
		this.hold();
	}

	hold() {
		const lit = this.node.querySelector("[aria-current]");
		if (lit && !this.held) this.node.scrollTop = lit.offsetTop - this.node.offsetTop - this.node.clientHeight * 0.3;
	}
}
