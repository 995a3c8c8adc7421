// The lines that a moved object snaps to, and the gaps and lengths it matches.
import { svg } from "../ui/element.js";

const PINK = "#e0559b";

export class GuideLines {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
	}

	get scale() {
		return this.stage.scale;
	}
	get overlay() {
		return this.stage.overlay;
	}

	/** Draws the lines, gaps and lengths that a drag matches, each with its exact number. Null removes them. */
	show(/** @type {any} */ found, box = /** @type {any} */ (null)) {
		const { frame } = this.stage;
		this.overlay.querySelector(".guides")?.remove();
		if (!found) return;
		const group = svg("g", { class: "guides" });
		const { x_guide: x, y_guide: y, x_gap: acrossGap, y_gap: downGap, x_size: width, y_size: height } = found;
		const note = (/** @type {any} */ guide, /** @type {number} */ number) =>
			`${Math.round(number)}${guide.beside ? ` · ${guide.beside}` : ""}`;
		const dash = (/** @type {any} */ guide) => (guide.beside ? `${5 / this.scale} ${4 / this.scale}` : null);
		if (x)
			group.append(
				this.line(x.at, 0, x.at, frame.height_px, dash(x)),
				this.words(note(x, x.at), x.at + 4 / this.scale, 14 / this.scale),
			);
		if (y)
			group.append(
				this.line(0, y.at, frame.width_px, y.at, dash(y)),
				this.words(note(y, y.at), 4 / this.scale, y.at - 4 / this.scale),
			);
		if (acrossGap) group.append(...this.gapMarks("x", acrossGap, box));
		if (downGap) group.append(...this.gapMarks("y", downGap, box));
		if (width) group.append(...this.lengthMarks("x", width, box));
		if (height) group.append(...this.lengthMarks("y", height, box));
		if (group.childElementCount) this.overlay.append(group);
	}

	line(
		/** @type {number} */ x1,
		/** @type {number} */ y1,
		/** @type {number} */ x2,
		/** @type {number} */ y2,
		dash = /** @type {string | null} */ (null),
	) {
		return svg("line", { x1, y1, x2, y2, stroke: PINK, "stroke-width": 1 / this.scale, "stroke-dasharray": dash });
	}

	words(/** @type {string} */ text, /** @type {number} */ x, /** @type {number} */ y) {
		const px = 1 / this.scale;
		return svg(
			"text",
			{
				x,
				y,
				"font-size": 12 * px,
				fill: "#f2a9cb",
				"font-weight": 600,
				"font-family": "Hanken Grotesk",
				"paint-order": "stroke",
				stroke: "#101a1f",
				"stroke-width": 3 * px,
			},
			text,
		);
	}

	/** A stretch along an axis with ends and its length. */
	stretch(
		/** @type {string} */ axis,
		/** @type {number} */ from,
		/** @type {number} */ to,
		/** @type {number} */ across,
		/** @type {string} */ words,
	) {
		const tick = 4 / this.scale;
		const [a, b] = [Math.min(from, to), Math.max(from, to)];
		if (axis === "x") {
			return [
				this.line(a, across, b, across),
				this.line(a, across - tick, a, across + tick),
				this.line(b, across - tick, b, across + tick),
				this.words(words, (a + b) / 2 - 8 / this.scale, across - 5 / this.scale),
			];
		}
		return [
			this.line(across, a, across, b),
			this.line(across - tick, a, across + tick, a),
			this.line(across - tick, b, across + tick, b),
			this.words(words, across + 5 / this.scale, (a + b) / 2 + 4 / this.scale),
		];
	}

	gapMarks(/** @type {string} */ axis, /** @type {any} */ { gap, way }, /** @type {StageBox} */ box) {
		const across = (gap.low + gap.high) / 2;
		const [start, end] = axis === "x" ? [box.x, box.x + box.width] : [box.y, box.y + box.height];
		if (way === "between") {
			const words = String(Math.round(start - gap.start));
			return [
				...this.stretch(axis, gap.start, start, across, words),
				...this.stretch(axis, end, gap.end, across, words),
			];
		}
		const words = String(Math.round(gap.end - gap.start));
		const [from, to] = way === "after" ? [gap.last, start] : [end, gap.first];
		return [...this.stretch(axis, gap.start, gap.end, across, words), ...this.stretch(axis, from, to, across, words)];
	}

	lengthMarks(/** @type {string} */ axis, /** @type {any} */ size, /** @type {StageBox} */ box) {
		const other = this.stage.state.object(size.object_id)?.box;
		const words = `${Math.round(size.length)}`;
		const mark = (/** @type {any} */ { x, y, width, height }) =>
			axis === "x"
				? this.stretch("x", x, x + width, y + height + 10 / this.scale, words)
				: this.stretch("y", y, y + height, x + width + 10 / this.scale, words);
		return [...mark(box), ...(other ? mark(other) : [])];
	}

	tail(/** @type {any} */ { tail_x: tx, tail_y: ty }, /** @type {any} */ { box }) {
		this.overlay.querySelector(".guides")?.remove();
		const [x, y] = [box.x + box.width * tx, box.y + box.height * ty];
		this.overlay.append(
			svg(
				"g",
				{ class: "guides" },
				svg("line", {
					stroke: PINK,
					"stroke-width": 1.5 / this.scale,
					x1: box.x + box.width / 2,
					y1: box.y + box.height / 2,
					x2: x,
					y2: y,
				}),
				svg("circle", {
					cx: x,
					cy: y,
					r: 5 / this.scale,
					fill: "white",
					stroke: PINK,
					"stroke-width": 1.5 / this.scale,
				}),
			),
		);
	}
}
