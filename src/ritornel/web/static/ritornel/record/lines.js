// The takes of a section, lined up by slide. Each bar has its own clock; the dotted line is the plan; waveforms show
// the waits before their cues; selected pieces are marked.
import { el, svg } from "../ui/element.js";
import { clockText, secondsText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { fermata } from "./status-text.js";

const GUTTER_PX = 148;
const WAVE_PX = 32;
const LEAST_PX = 150;
const LONGEST_PX = 4000;
// A long piece grows by little: its wave is drawn again every second, not ten times.
const LONG_MS = 30_000;
const GROWS_MS = 1000;
const tenths = (/** @type {number} */ ms) => `${(ms / 1000).toFixed(1)} s`;
/** A length compared with its plan; a difference that rounds to nothing is on plan. */
const overPlan = (/** @type {number} */ ms) =>
	Math.abs(ms) < 50 ? "on plan" : `${tenths(Math.abs(ms))} ${ms > 0 ? "over plan" : "under plan"}`;

/** The length of each slide's bar: its plan or its longest piece, and a little room. */
export const barMs = (
	/** @type {RecordedSlideLine} */ slide,
	/** @type {RecordedTake[]} */ takes,
	/** @type {Piece | null} */ growing,
) =>
	Math.max(
		slide.plan_ms,
		growing?.slide_id === slide.id ? growing.lasts_ms : 0,
		...takes.flatMap((take) =>
			take.pieces.filter((piece) => piece.slide_id === slide.id).map((piece) => piece.lasts_ms),
		),
	) + 600;

/** The scale at which all bars fill the width, or, where they would be too short, one at which they can be read. */
export function scaleFor(/** @type {number[]} */ bars, /** @type {number} */ widthPx) {
	const perS = widthPx / (bars.reduce((all, ms) => all + ms, 0) / 1000);
	if (bars.every((ms) => (ms / 1000) * perS >= LEAST_PX)) return Math.min(perS, 60);
	return Math.min(12, (LONGEST_PX * 1000) / Math.max(...bars));
}

export class Lines {
	/** @type {number} */
	perS;
	/** @type {number[]} */
	widths;

	/**
	 * @param {HTMLElement} node
	 * @param {{pick: function, hear: function, choose: function, remove: function, peaksOf: function}} acts
	 */
	constructor(node, acts) {
		/** @type {SectionDetail} */
		this.section = /** @type {any} */ (null);
		this.node = node;
		this.acts = acts;
		this.needle = el("div", { class: "needle" }, el("b"));
		this.open = new Set();
	}

	/**
	 * @param {SectionDetail} section
	 * @param {{slide_id: string, at_ms: number}|null} head where it is recorded or heard now
	 * @param {string} slideId the present slide
	 */
	draw(section, head, slideId) {
		this.section = section;
		const { slides, takes, picks } = section;
		const bars = slides.map((slide) => barMs(slide, takes, null));
		const perS = scaleFor(bars, this.node.clientWidth - GUTTER_PX - 2);
		this.perS = perS;
		this.widths = bars.map((ms) => Math.round(Math.max((ms / 1000) * perS, LEAST_PX)));
		const columns = `${GUTTER_PX}px ${this.widths.map((px) => `${px}px`).join(" ")}`;
		const none = takes.length
			? []
			: [
					[
						el(
							"p",
							{ class: "hint" },
							"No take yet. Each one comes here as a line of its own, its cues and waits against the plan, so that the better one can be selected slide by slide.",
						),
					],
				];
		const rows = [
			this.ruler(slides, perS),
			this.heads(section, slideId),
			this.pickedRow(section),
			...[...takes].reverse().map((take) => this.take(take, slides, picks)),
			...none,
		];
		const { scrollLeft, scrollTop } = this.node;
		const sheet = el("div", { class: "sheet" }, rows.flat());
		sheet.style.gridTemplateColumns = columns;
		this.node.replaceChildren(sheet);
		Object.assign(this.node, { scrollLeft, scrollTop });
		this.head(head);
	}

	ruler(/** @type {RecordedSlideLine[]} */ slides, /** @type {number} */ perS) {
		const step = [1, 2, 5, 10, 20, 30, 60].find((s) => s * perS >= 44) ?? 120;
		return [
			el("div", { class: "gutter ruler" }, el("span", {}, "⋮ plan"), fermata(), el("span", {}, "wait")),
			...slides.map((_, number) => {
				const marks = [];
				for (let s = 0; s * perS < this.widths[number] - 24; s += step) {
					const mark = el("span", {}, s ? s : "0 s");
					mark.style.left = `${s * perS + 4}px`;
					marks.push(mark);
				}
				return el("div", { class: "ruler bar-cell" }, marks);
			}),
		];
	}

	heads(/** @type {any} */ { slides }, /** @type {string} */ slideId) {
		const plan = slides.reduce(
			(/** @type {number} */ all, /** @type {RecordedSlideLine} */ slide) => all + slide.plan_ms,
			0,
		);
		return [
			el(
				"div",
				{ class: "gutter heads" },
				el("b", {}, "Slides"),
				el("span", {}, `${slides.length} slide${slides.length > 1 ? "s" : ""} · ${clockText(plan)}`),
			),
			...slides.map((/** @type {RecordedSlideLine} */ slide) =>
				el(
					"button",
					{
						class: "bar-cell slide-head",
						"data-slide": slide.id,
						"aria-current": slideId === slide.id ? "true" : null,
						title: "Record from this slide on",
						onclick: () => this.acts.choose(slide.id),
					},
					el("img", { src: slide.thumb, alt: "", width: 66, height: 37 }),
					el("b", {}, `${slide.number}  ${slide.name}`),
					el("span", {}, `plan ${tenths(slide.plan_ms)} · ${countWords(slide.cues.length, "cue")}`),
				),
			),
		];
	}

	pickedRow(/** @type {any} */ { slides, takes, picks }) {
		const sum = slides.reduce(
			(/** @type {number} */ all, /** @type {RecordedSlideLine} */ slide) =>
				all + (this.pieceOf(takes, picks[slide.id])?.lasts_ms ?? 0),
			0,
		);
		return [
			el("div", { class: "gutter" }, el("span", {}, el("b", {}, "Selected"), ` ${clockText(sum)}`)),
			...slides.map((/** @type {RecordedSlideLine} */ slide) => {
				const take = takes.find((/** @type {any} */ entry) => entry.id === picks[slide.id]?.[0]);
				const piece = this.pieceOf(takes, picks[slide.id]);
				const words = piece
					? `take ${take.number}${piece.whole ? "" : take.progress === "ended" ? ", not to its end" : ", still open"}`
					: "nothing recorded yet";
				return el(
					"div",
					{ class: "bar-cell ending", "data-open": piece && !piece.whole ? "" : null, "data-none": piece ? null : "" },
					piece ? el("b", {}, `${take.number}.`) : null,
					el("span", {}, words),
				);
			}),
		];
	}

	pieceOf(/** @type {RecordedTake[]} */ takes, /** @type {any} */ pick) {
		return pick ? (takes.find((take) => take.id === pick[0])?.pieces[pick[1]] ?? null) : null;
	}

	take(
		/** @type {RecordedTake} */ take,
		/** @type {RecordedSlideLine[]} */ slides,
		/** @type {{[slideId: string]: any}} */ picks,
	) {
		const over =
			take.length_ms -
			slides
				.filter((slide) => take.pieces.some((piece) => piece.slide_id === slide.id))
				.reduce((all, slide) => all + slide.plan_ms, 0);
		const told = { recording: "being recorded", paused: "paused", interrupted: "interrupted" }[take.progress];
		return [
			el(
				"div",
				{ class: "gutter take" },
				el("b", {}, `Take ${take.number}`),
				el("span", {}, `${clockText(take.length_ms)} · ${countWords(take.cues, "cue")}`),
				told ? el("b", { class: "how" }, told) : el("span", {}, overPlan(over)),
				...take.not_fitting.map((words) => el("span", { class: "misfit" }, words)),
				take.progress === "recording"
					? null
					: el("button", { class: "link", onclick: () => this.acts.remove(take) }, "Remove"),
			),
			...slides.map((slide, number) => {
				const pieces = take.pieces.filter((piece) => piece.slide_id === slide.id).reverse();
				return el(
					"div",
					{ class: "bar-cell pieces", "data-slide": slide.id, "data-take": take.id },
					this.planLine(slide),
					pieces.length
						? pieces.map((piece, at) => this.piece(take, piece, slide, picks, number, at))
						: el(
								"p",
								{ class: "none" },
								take.progress === "ended" ? "not in this take" : `not yet recorded, plan ${tenths(slide.plan_ms)}`,
							),
				);
			}),
		];
	}

	planLine(/** @type {RecordedSlideLine} */ slide) {
		const line = el("i", { class: "plan-line", "aria-hidden": "true" });
		line.style.left = `${(slide.plan_ms / 1000) * this.perS}px`;
		return line;
	}

	piece(
		/** @type {RecordedTake} */ take,
		/** @type {Piece} */ piece,
		/** @type {RecordedSlideLine} */ slide,
		/** @type {{[slideId: string]: any}} */ picks,
		/** @type {number} */ number,
		/** @type {number} */ again,
	) {
		const picked = picks[slide.id]?.[0] === take.id && picks[slide.id]?.[1] === piece.number;
		const diff = piece.lasts_ms - slide.plan_ms;
		const words = piece.whole ? overPlan(diff) : "so far";
		const wave = this.wave(take, piece, picked);
		return el(
			"div",
			{ class: "piece", "data-picked": picked ? "" : null, "data-piece": piece.number },
			el(
				"button",
				{
					class: "hear",
					"aria-label": `Hear slide ${slide.number} of take ${take.number}${again ? ", an earlier try" : ""}`,
					title: "Hear this piece",
					onclick: () => this.acts.hear(take, piece),
				},
				wave,
			),
			el(
				"label",
				{},
				el("input", {
					type: "radio",
					name: `pick-${slide.id}`,
					checked: picked,
					onchange: () => this.acts.pick(take, piece),
				}),
				el("b", {}, picked ? "Selected" : "Select"),
				el("span", {}, `${tenths(piece.lasts_ms)} · ${words}`),
			),
			piece.still_ms
				? el("span", { class: "misfit" }, `The camera stops ${secondsText(piece.still_ms)} s before the voice`)
				: null,
		);
	}

	wave(/** @type {RecordedTake} */ take, /** @type {Piece} */ piece, /** @type {any} */ picked) {
		const width = Math.max((piece.lasts_ms / 1000) * this.perS, 2);
		const bars = [];
		const peaks = this.acts.peaksOf(take.id);
		const per = 25;
		for (let x = 1; x < width; x += 3) {
			const from = Math.floor(((piece.from_ms + (x / this.perS) * 1000) / 1000) * per);
			const until = Math.max(from + 1, Math.floor(((piece.from_ms + ((x + 3) / this.perS) * 1000) / 1000) * per));
			let peak = 0;
			for (let at = from; at < until; at += 1) peak = Math.max(peak, peaks?.[at] ?? 0);
			const high = Math.max((Math.sqrt(peak / 255) * WAVE_PX) / 2, 1);
			bars.push(`M${x} ${16 - high}V${16 + high}`);
		}
		const drawing = svg(
			"svg",
			{ class: "wave", width, height: 62, "data-picked": picked ? "" : null },
			svg("rect", { x: 0, y: 24, width, height: WAVE_PX }),
			svg("path", { d: bars.join(""), transform: "translate(0 24)" }),
		);
		const cues = Object.entries(piece.cues).sort((a, b) => a[1] - b[1]);
		const leaving = Object.entries(piece.waits).find(([id]) => !(id in piece.cues));
		let before = -Infinity;
		for (const [id, ms] of [...cues, ...(piece.whole && leaving ? [[leaving[0], piece.lasts_ms]] : [])]) {
			const x = (ms / 1000) * this.perS;
			const waited = piece.waits[id] ?? 0;
			drawing.append(
				svg("line", { x1: x, x2: x, y1: 4, y2: 56, class: "cue" }),
				svg("title", {}, `Cue at ${secondsText(ms)} s, waited ${secondsText(waited)} s`),
			);
			if (x - before < 56 || x < 54) continue;
			before = x;
			drawing.append(
				svg("path", { class: "arc", d: `M ${x - 50} 18 a 8 8 0 0 1 16 0` }),
				svg("circle", { cx: x - 42, cy: 16.4, r: 1.7 }),
				svg("text", { x: x - 31, y: 18 }, `${(waited / 1000).toFixed(1)}`),
			);
		}
		return drawing;
	}

	/** Moves the position of recording or playing, without drawing anything again. */
	head(/** @type {any} */ head) {
		const sheet = this.node.firstElementChild;
		if (!head || !sheet) {
			this.needle.remove();
			return;
		}
		const number = this.section.slides.findIndex((slide) => slide.id === head.slide_id);
		if (number < 0) {
			this.needle.remove();
			return;
		}
		const x =
			GUTTER_PX +
			this.widths.slice(0, number).reduce((all, px) => all + px, 0) +
			Math.min((head.at_ms / 1000) * this.perS, this.widths[number]);
		this.needle.style.left = `${x}px`;
		/** @type {Node} */ (this.needle.firstChild).textContent = (head.at_ms / 1000).toFixed(1);
		if (this.needle.parentNode !== sheet) sheet.append(this.needle);
		if (x > this.node.scrollLeft + this.node.clientWidth - 60 || x < this.node.scrollLeft + GUTTER_PX)
			this.node.scrollLeft = x - GUTTER_PX - 120;
	}

	/** Marks the present slide, without drawing anything again. */
	chosen(/** @type {string} */ slideId) {
		for (const head of this.node.querySelectorAll(".slide-head")) {
			if (head.dataset.slide === slideId) head.setAttribute("aria-current", "true");
			else head.removeAttribute("aria-current");
		}
	}

	/** The waveform and length of the growing piece, without drawing the others again. */
	grow(/** @type {RecordedTake} */ take, /** @type {Piece} */ piece) {
		const cell = this.node.querySelector(`.pieces[data-take="${take.id}"] .piece[data-piece="${piece.number}"]`);
		if (
			!cell ||
			(piece.lasts_ms / 1000) * this.perS >
				this.widths[this.section.slides.findIndex((slide) => slide.id === piece.slide_id)]
		)
			return false;
		if (piece.lasts_ms > LONG_MS && Date.now() - (this.grewAt ?? 0) < GROWS_MS) return true;
		this.grewAt = Date.now();
		cell.querySelector(".wave").replaceWith(this.wave(take, piece, cell.hasAttribute("data-picked")));
		cell.querySelector("label span").textContent = `${tenths(piece.lasts_ms)} · so far`;
		return true;
	}
}
