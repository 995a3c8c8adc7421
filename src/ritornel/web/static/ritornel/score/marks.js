// Named marks on the score: flags under the ruler, each with its line through all staves.
import { svg } from "../ui/element.js";
import { shorten, widthOf } from "./labels.js";

export const MARKS_PX = 18;

/** The flags in view; a name is shortened before the next flag. @param {ShowState} state */
export function drawMarks(
	state,
	/** @type {ShowData} */ data,
	/** @type {Scale} */ scale,
	/** @type {View} */ view,
	/** @type {any} */ { top, bottom },
) {
	const placed = data.marks
		.map((mark) => ({ mark, x: scale.x(markMs(data, mark)) }))
		.filter(({ x }) => Number.isFinite(x))
		.sort((a, b) => a.x - b.x);
	return placed.flatMap(({ mark, x }, at) => {
		if (x < view.from - 200 || x > view.to + 20) return [];
		const room = (placed[at + 1]?.x ?? Infinity) - x - 16;
		const words = shorten(mark.name, room);
		const picked = state.pickedMark === mark.id;
		const colour = picked ? "var(--color-plum)" : "#8a5409";
		const width = words ? widthOf(words) + 14 : 8;
		return [
			svg("line", {
				x1: x,
				x2: x,
				y1: top,
				y2: bottom,
				stroke: colour,
				"stroke-dasharray": "1 3",
				"pointer-events": "none",
			}),
			svg(
				"g",
				{
					"data-drag": "mark",
					"data-pick": "mark",
					"data-mark": mark.id,
					tabindex: -1,
					role: "button",
					"aria-label": `Mark ${mark.name}`,
				},
				svg("title", {}, `${mark.name}. Pull to move it.`),
				svg("path", {
					d: `M ${x} ${top} H ${x + width} L ${x + width - 4} ${top + 8} L ${x + width} ${top + 16} H ${x} Z`,
					fill: colour,
				}),
				words ? svg("text", { x: x + 5, y: top + 12, class: "light strong", "pointer-events": "none" }, words) : null,
			),
		];
	});
}

/** The place of a mark on the show's clock. A mark of a skipped slide has none. */
export function markMs(/** @type {ShowData} */ data, /** @type {Core.NamedMark} */ mark) {
	const line = data.slides[mark.slide_id];
	return line.skipped ? NaN : data.starts_ms[mark.slide_id] + Math.min(mark.offset_ms, line.schedule.length_ms);
}

/** The slide that has the show at an instant. @param {ShowState} state */
export function slideAt(state, /** @type {number} */ ms) {
	let found = null;
	for (const id of state.shown) if (state.data.starts_ms[id] <= ms) found = id;
	return found;
}
