// What a person sees while recording: the notes beat by beat, the stops of the slide, the next cue.
import { el, svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";

const at = (/** @type {string} */ id) => document.getElementById(id);
export const fermata = () =>
	svg(
		"svg",
		{ class: "fermata", viewBox: "0 0 18 11", "aria-hidden": "true" },
		svg("path", { d: "M 1 10 A 8 8 0 0 1 17 10", fill: "none" }),
		svg("circle", { cx: 9, cy: 8.6, r: 1.7 }),
	);

/**
 * The slide's notes, those of the present beat lit.
 * @param {RecordedSlideLine} slide
 * @param {number} beat
 * @param {Map<number, number>} waited ms before each cue that was pressed
 */
export function drawNotes(slide, beat, waited) {
	at("notes-of").textContent = `Notes, slide ${slide.number}`;
	at("spoken").textContent = slide.spoken_ms ? `about ${Math.round(slide.spoken_ms / 1000)} s spoken` : "";
	const rows = slide.beats
		.flatMap((line, number) => [
			number
				? el(
						"li",
						{ class: "cue", "data-now": number === beat + 1 ? "" : null },
						fermata(),
						el("span", {}, `${number} · ${line.title}`),
						waited.has(number) ? el("i", {}, `waited ${((waited.get(number) ?? 0) / 1000).toFixed(1)} s`) : null,
					)
				: null,
			line.notes
				? el(
						"li",
						{ class: "words", "aria-current": number === beat ? "true" : null, "data-said": number < beat ? "" : null },
						line.notes,
					)
				: null,
		])
		.filter(Boolean);
	const node = at("record-notes");
	node.replaceChildren(
		...(slide.notes.trim() ? rows : [...rows, el("li", { class: "words" }, "No notes for this slide.")]),
	);
	const lit = node.querySelector("[aria-current]") ?? node.querySelector("[data-now]");
	if (lit) node.scrollTop = lit.offsetTop - node.offsetTop - node.clientHeight * 0.35;
}

/** What the next press brings. @param {RecordedSlideLine | null | undefined} next the slide after this one */
export function drawComing(/** @type {RecordedSlideLine} */ slide, /** @type {number} */ beat, next) {
	const coming = slide.beats[beat + 1];
	const rows = coming
		? coming.arrivals.map(({ what, lasts_ms: ms, rule }, number) =>
				number ? `then ${what}, ${rule || "together"}, ${secondsText(ms)} s` : `${what}, ${secondsText(ms)} s`,
			)
		: [];
	const [first, ...rest] = coming ? rows : [next ? `${next.number}  ${next.name}` : "The end of the section"];
	at("coming-cue").replaceChildren(
		fermata(),
		el(
			"div",
			{},
			el(
				"span",
				{},
				coming
					? `Next cue, ${beat + 1} of ${slide.beats.length}`
					: next
						? "Next cue: the next slide"
						: "Next cue: the take is done",
			),
			el("b", {}, first ?? coming?.title ?? ""),
			rest.length
				? el("span", {}, rest.slice(0, 2).join("; ") + (rest.length > 2 ? `; ${rest.length - 2} more` : ""))
				: null,
		),
	);
}

/** The slide's beats on a line. */
export function drawStops(
	/** @type {RecordedSlideLine} */ slide,
	/** @type {number} */ beat,
	/** @type {RecordedSlideLine | null | undefined} */ next,
) {
	at("beat-stops").replaceChildren(
		...slide.beats.map((line, number) =>
			el(
				"li",
				{
					title: line.title,
					"aria-current": number === beat ? "step" : null,
					"data-next": number === beat + 1 ? "" : null,
					"data-past": number < beat ? "" : null,
				},
				el("b", { class: "beat-dot" }, number),
				number ? null : el("span", { class: "sr-only" }, "On arrival"),
			),
		),
		el("li", { class: "following" }, next ? `Slide ${next.number}` : "End"),
	);
}
