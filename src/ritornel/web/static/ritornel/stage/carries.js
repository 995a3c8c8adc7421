// The objects of a carry, shown on the stage.
import { svg } from "../ui/element.js";

/** Faint lines from the start of each carried object to its place. */
export class Carries {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
	}

	draw(/** @type {any} */ scale) {
		const { carry } = this.stage.state.data.viewing ?? {};
		if (!carry?.pairs.length || this.stage.state.picked.size) return;
		const px = 1 / scale;
		this.stage.overlay.append(
			svg(
				"g",
				{ class: "carries" },
				carry.pairs
					.filter(({ from, to }) => Math.hypot(to[0] - from[0], to[1] - from[1]) > 2)
					.map(({ from, to, name }) =>
						svg(
							"g",
							{},
							svg("title", {}, `${name} is carried from here`),
							svg("line", {
								x1: from[0],
								y1: from[1],
								x2: to[0],
								y2: to[1],
								stroke: "#8a2456",
								"stroke-opacity": 0.55,
								"stroke-width": 1.5 * px,
								"stroke-dasharray": `${2 * px} ${4 * px}`,
							}),
							svg("circle", {
								cx: from[0],
								cy: from[1],
								r: 4 * px,
								fill: "none",
								stroke: "#8a2456",
								"stroke-width": 1.5 * px,
							}),
							svg("circle", { cx: to[0], cy: to[1], r: 3 * px, fill: "#8a2456" }),
						),
					),
			),
		);
	}
}
