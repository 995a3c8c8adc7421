// The lines of the score: staves, bar lines, the end, the ruler, and the playhead.
import { svg } from "../ui/element.js";
import { clockText, minutesText } from "../ui/times.js";
import { leavesWords } from "./holds.js";
import { tickStepMs } from "./scale.js";

export const RULER = 26;
/** How high the row of voices is, where there are any. */
export const VOICES_PX = 30;

export const patterns = () =>
	svg(
		"defs",
		{},
		svg(
			"pattern",
			{ id: "hatch", width: 7, height: 7, patternUnits: "userSpaceOnUse", patternTransform: "rotate(45)" },
			svg("line", { x1: 0, y1: 0, x2: 0, y2: 7, stroke: "#d8b98a", "stroke-width": 2 }),
		),
	);

/** The staves, and the ground of the ruler, where the playhead is dragged. */
export const staffLines = (/** @type {Rows} */ rows, /** @type {number} */ from, /** @type {number} */ to) => [
	svg("rect", { x: from, y: 0, width: to - from, height: RULER, fill: "#f7f8f4", "data-drag": "playhead" }),
	...[rows.builds.top, rows.voices.top, rows.music.top, rows.bottom - 0.5].map((y) =>
		svg("line", { x1: from, x2: to, y1: y, y2: y, stroke: "var(--color-staff)" }),
	),
];

/**
 * The lines at both ends of a slide's bar. `end` is the show's end, where the bar is the last; `waits` whether it
 * waits for a cue there.
 */
export function barLines(
	/** @type {SlideLine} */ line,
	/** @type {number} */ x1,
	/** @type {number} */ x2,
	/** @type {Rows} */ rows,
	/** @type {boolean} */ first,
	/** @type {Core.Show["end"] | null} */ end,
	/** @type {any} */ waits,
) {
	const drawn = (/** @type {number} */ x) => `M${x} ${rows.slides.top - 4}V${rows.bottom}`;
	const result = [
		svg("path", {
			d: `${first ? "" : drawn(x1)}${end ? drawn(x2) : ""}`,
			stroke: "var(--color-ink)",
			"stroke-width": 1.6,
			"pointer-events": "none",
		}),
		...(line.opens_section && !first
			? [
					svg("rect", {
						x: x1 - 6,
						y: rows.slides.top - 4,
						width: 3,
						height: rows.bottom - rows.slides.top + 4,
						fill: "var(--color-ink)",
						"pointer-events": "none",
					}),
				]
			: []),
		svg(
			"rect",
			{
				x: x2 - 5,
				y: rows.slides.top,
				width: 10,
				height: rows.slides.height,
				fill: "transparent",
				"data-drag": "bar",
				"data-slide": line.id,
			},
			svg("title", {}, `“${line.name}”: ${leavesWords(line, waits)}. Pull to change.`),
		),
	];
	if (end) result.push(...endSign(x2, rows, end));
	return result;
}

function endSign(/** @type {number} */ x, /** @type {Rows} */ rows, /** @type {Core.Show["end"] | null} */ end) {
	const { top } = rows.slides;
	const thick = svg("rect", { x: x + 4, y: top, width: 4, height: rows.bottom - top, fill: "var(--color-ink)" });
	const words = { hold: "Holds", loop: "From the start again", black: "To black" }[
		/** @type {Core.Show["end"]} */ (end)
	];
	const dots =
		end === "loop"
			? [24, 38].map((y) => svg("circle", { cx: x - 6, cy: top + y, r: 2.6, fill: "var(--color-ink)" }))
			: [];
	const press = svg(
		"g",
		{ "data-pick": "end", role: "button", tabindex: -1, "aria-label": `How the show ends: ${words.toLowerCase()}` },
		svg("title", {}, "How the show ends. Press to change it."),
		svg("rect", { x: x + 9, y: top, width: 110, height: 28, fill: "transparent" }),
		svg("text", { class: "soft", x: x + 14, y: top + 18 }, words),
	);
	return [thick, ...dots, press];
}

/** A column of the ruler, `px` wide. */
export function rulerColumn(/** @type {Scale} */ scale, /** @type {number} */ from, /** @type {number} */ px) {
	const step = tickStepMs(scale) / 5;
	const names = [];
	let ticks = "";
	for (let n = Math.ceil(scale.ms(from) / step); scale.x(n * step) < from + px; n += 1) {
		const x = scale.x(n * step);
		ticks += `M${x} ${RULER - (n % 5 ? 5 : 10)}V${RULER}`;
		if (n % 5 === 0)
			names.push(
				svg(
					"text",
					{ class: "soft", x: x + 4, y: 14, "pointer-events": "none" },
					step < 200 ? clockText(n * step) : minutesText(n * step),
				),
			);
	}
	return [...names, svg("path", { d: ticks, stroke: "#9fb0a9", "pointer-events": "none" })];
}

/** The line of the event that a drag has snapped to. */
export const snapLine = (/** @type {number} */ x, /** @type {number} */ ms, /** @type {any} */ bottom) =>
	svg("line", {
		x1: x,
		x2: x,
		y1: RULER - 8,
		y2: bottom,
		stroke: "#e0559b",
		"stroke-width": 1.5,
		"pointer-events": "none",
		"data-snapped": Math.round(ms),
	});

export function playhead(/** @type {number} */ x, /** @type {number} */ ms, /** @type {any} */ bottom) {
	const words = clockText(ms);
	// Wide enough for 1:14.4; figures are as wide as each other.
	const half = Math.max(24, words.length * 3.5 + 3);
	return [
		svg("line", {
			x1: x,
			x2: x,
			y1: RULER - 8,
			y2: bottom,
			stroke: "var(--color-plum)",
			"stroke-width": 2,
			"pointer-events": "none",
		}),
		svg(
			"g",
			{ "data-drag": "playhead" },
			svg("rect", { x: x - half, y: 2, width: half * 2, height: 18, rx: 9, fill: "var(--color-plum)" }),
			svg("text", { x, y: 15, "text-anchor": "middle", class: "strong light", "pointer-events": "none" }, words),
		),
	];
}
