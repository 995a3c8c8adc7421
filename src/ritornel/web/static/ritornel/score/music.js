// Drawing music: its waveform along the passes, fades as hairpins.
import { svg } from "../ui/element.js";
import { secondsText } from "../ui/times.js";
import { shorten, widthOf } from "./labels.js";

/**
 * The part of the row where a span stands: spans that sound at one time lie one under the other.
 * @param {Core.MusicTime[]} spans all of them, by their start
 */
export function laneOf(spans, /** @type {Core.MusicTime} */ span, /** @type {Row} */ row) {
	const ends = [];
	let own = 0;
	let most = 1;
	for (const one of [...spans].sort((a, b) => a.start_ms - b.start_ms || (a.span_id < b.span_id ? -1 : 1))) {
		/** @type {number} */
		let lane = ends.findIndex((end) => end <= one.start_ms);
		if (lane < 0) lane = ends.length;
		ends[lane] = one.end_ms;
		most = Math.max(most, ends.length);
		if (one.span_id === span.span_id) own = lane;
	}
	return { top: row.top + (row.height / most) * own, height: row.height / most };
}

/** All spans of the show's music, each in its part of the row. @param {ShowState} state */
export function drawAll(
	state,
	/** @type {Row} */ row,
	/** @type {Scale} */ scale,
	/** @type {View & {left: number}} */ view,
) {
	const { music } = state.data;
	return music.map((span) =>
		drawMusic(
			span,
			laneOf(music, span, row),
			scale,
			view,
			state.pickedSpan === span.span_id,
			state.asset(span.asset_id)?.name ?? "Music",
		),
	);
}

/** The handles and words of a span of music; its waveform lies beneath. */
function drawMusic(
	/** @type {Core.MusicTime} */ span,
	/** @type {Row} */ row,
	/** @type {Scale} */ scale,
	/** @type {View & {left: number}} */ view,
	/** @type {boolean} */ picked,
	/** @type {string} */ name,
) {
	const group = svg("g", {
		"data-pick": "span",
		"data-span": span.span_id,
		tabindex: -1,
		role: "button",
		"aria-label": `Music, ${name}`,
	});
	const x1 = scale.x(span.start_ms);
	const x2 = scale.x(span.end_ms);
	const from = Math.max(x1, view.from);
	const to = Math.min(x2, view.to);
	if (to <= from) return group;
	const middle = row.top + row.height / 2;
	const half = Math.max(row.height / 2 - 5, 2);
	group.append(
		svg("rect", {
			x: from,
			y: row.top + 3,
			width: to - from,
			height: row.height - 6,
			fill: picked ? "#8a24561a" : "#a86a1214",
			rx: 3,
		}),
	);
	const hairpin = (/** @type {number} */ a, /** @type {number} */ b) =>
		svg("path", {
			d: `M ${scale.x(b)} ${middle - half} L ${scale.x(a)} ${middle} L ${scale.x(b)} ${middle + half}`,
			fill: "none",
			stroke: "var(--color-ink)",
			"stroke-width": 1.3,
			"pointer-events": "none",
		});
	if (span.fade_in_ms) group.append(hairpin(span.start_ms, span.start_ms + span.fade_in_ms));
	if (span.fade_out_ms) group.append(hairpin(span.end_ms, span.end_ms - span.fade_out_ms));
	if (span.ducking.length) {
		// How far it sinks under voices, drawn like the hairpins: 24 dB would close it.
		const y = (/** @type {number} */ db, /** @type {number} */ way) => middle + way * half * Math.max(0, 1 + db / 24);
		for (const way of [-1, 1])
			group.append(
				svg("path", {
					d: span.ducking
						.map(([ms, db], at) => `${at ? "L" : "M"} ${scale.x(ms).toFixed(1)} ${y(db, way).toFixed(1)}`)
						.join(" "),
					fill: "none",
					stroke: "var(--color-ink)",
					"stroke-width": 1.1,
					"pointer-events": "none",
				}),
			);
	}
	// The lower half of an end pulls it along the bar lines, the upper half of a hairpin its fade.
	const handle = (
		/** @type {string} */ drag,
		/** @type {number} */ x,
		/** @type {boolean} */ upper,
		/** @type {string} */ words,
	) =>
		svg(
			"rect",
			{
				x: x - 6,
				y: upper ? row.top : middle,
				width: 12,
				height: row.height / 2,
				fill: "transparent",
				"data-drag": drag,
				"data-span": span.span_id,
			},
			svg("title", {}, words),
		);
	const handles = [
		handle("spanStart", x1, false, "Pull the music's start from bar line to bar line; Alt pulls freely"),
		handle("spanEnd", x2, false, "Pull the music's end from bar line to bar line"),
		handle(
			"fadeIn",
			scale.x(span.start_ms + span.fade_in_ms) + (span.fade_in_ms ? 0 : 6),
			true,
			`Fades in over ${secondsText(span.fade_in_ms)} s. Pull to change.`,
		),
		handle(
			"fadeOut",
			scale.x(span.end_ms - span.fade_out_ms) - (span.fade_out_ms ? 0 : 6),
			true,
			`Fades out over ${secondsText(span.fade_out_ms)} s. Pull to change.`,
		),
	];
	const words = shorten(
		`${name}${span.passes.length > 1 ? `, repeats ${span.passes.length} times` : ""}${span.fade_out_ms ? `, fades ${secondsText(span.fade_out_ms)} s` : ""}`,
		to - from - 30,
	);
	if (words && to - from > 60) {
		const seen = Math.max(from, view.left);
		const x = seen + 12 + (seen === x1 ? scale.x(span.fade_in_ms) : 0);
		if (x + widthOf(words) < to)
			group.append(
				svg("rect", {
					x: x - 4,
					y: middle - 9,
					width: widthOf(words) + 8,
					height: 18,
					fill: "#f7f8f4e6",
					rx: 4,
					"pointer-events": "none",
				}),
				svg("text", { x, y: middle + 4, class: "brass strong", "pointer-events": "none" }, words),
			);
	}
	group.append(...handles);
	return group;
}

/** The waveform of a span between two places, and where its passes begin. */
export function drawPasses(
	/** @type {Core.MusicTime} */ span,
	/** @type {Row} */ row,
	/** @type {Scale} */ scale,
	/** @type {number} */ x1,
	/** @type {number} */ x2,
	/** @type {Peaks} */ wave,
	/** @type {boolean} */ picked,
) {
	const middle = row.top + row.height / 2;
	const half = Math.max(row.height / 2 - 5, 2);
	const [from, to] = [Math.max(scale.x(span.start_ms), x1), Math.min(scale.x(span.end_ms), x2)];
	const begins = span.passes
		.slice(1)
		.map(([start]) => scale.x(start))
		.filter((x) => x >= from && x < to);
	return [
		wave
			? svg("path", {
					d: wavePath(span, wave, scale, from, to, middle, half),
					fill: picked ? "#8a2456" : "#c69a4c",
					"pointer-events": "none",
				})
			: null,
		...begins.map((x) =>
			svg("path", {
				d: `M ${x} ${middle - half} V ${middle + half}`,
				stroke: "#8a5409",
				"stroke-dasharray": "1 3",
				"pointer-events": "none",
			}),
		),
	];
}

/** The outline through heights, [x, height], mirrored about the middle. */
export function mirror(/** @type {any} */ heights, /** @type {number} */ middle) {
	if (!heights.length) return "";
	const line = (/** @type {number} */ way) =>
		heights.map((/** @type {any} */ [x, height]) => `${x.toFixed(1)} ${(middle + way * height).toFixed(1)}`);
	return `M ${line(-1).join(" L ")} L ${line(1).reverse().join(" L ")} Z`;
}

/** The outline of the loudest sample in each 2 px, mirrored about the middle; where passes cross, the louder one. */
function wavePath(
	/** @type {Core.MusicTime} */ span,
	/** @type {Peaks} */ wave,
	/** @type {Scale} */ scale,
	/** @type {number} */ from,
	/** @type {number} */ to,
	/** @type {number} */ middle,
	/** @type {number} */ half,
) {
	const level = 10 ** (span.gain_db / 20);
	const upper = [];
	for (let x = from; x <= to; x += 2) {
		const ms = scale.ms(x);
		let peak = 0;
		for (const [start, end] of span.passes) {
			if (ms < start || ms >= end) continue;
			peak = Math.max(peak, wave.peak(ms - start, ms + scale.ms(2) - start));
		}
		const fade = Math.sin(
			(Math.PI / 2) *
				Math.min(
					1,
					span.fade_in_ms ? (ms - span.start_ms) / span.fade_in_ms : 1,
					span.fade_out_ms ? Math.max(0, span.end_ms - ms) / span.fade_out_ms : 1,
				),
		);
		upper.push([x, Math.max((peak / 255) * Math.min(level * 1.6, 1) * fade * half, 0.6)]);
	}
	return mirror(upper, middle);
}
