// What is drawn by hand over the slides: the spot, and strokes in inks. Their looks and the eraser follow
// core/document/ink.py.
import { svg } from "../ui/element.js";

const SPOT_PX = 120;
const RUB_PX = 16;
const NEAR_PX = 1.5;
const MOST_POINTS = 5000;

/** @param {number} x @param {number} y @param {[number, number]} from @param {[number, number]} to */
const fromLine = (x, y, [x1, y1], [x2, y2]) => {
	const [dx, dy] = [x2 - x1, y2 - y1];
	const long = dx * dx + dy * dy;
	const share = long ? Math.min(Math.max(((x - x1) * dx + (y - y1) * dy) / long, 0), 1) : 0;
	return Math.sqrt((x - x1 - share * dx) ** 2 + (y - y1 - share * dy) ** 2);
};

/** @param {{points: [number, number][]}} stroke @param {number} x @param {number} y */
const distancePx = ({ points }, x, y) =>
	points.length === 1
		? fromLine(x, y, points[0], points[0])
		: Math.min(...points.slice(1).map((point, at) => fromLine(x, y, points[at], point)));

/**
 * The strokes without those that come nearer than `reachPx` to a point.
 * @param {Core.InkStroke[]} strokes
 * @param {number} x
 * @param {number} y
 * @param {number} reachPx
 */
export const rubbedOut = (strokes, x, y, reachPx) => strokes.filter((stroke) => distancePx(stroke, x, y) > reachPx);

/**
 * Events: "spot" (detail: place or null), "drawing" (detail: a stroke that grows), "drawings" (detail: all strokes by
 * slide), "mode".
 */
export class Board extends EventTarget {
	/**
	 * @param {HTMLElement} over what it lies over
	 * @param {{width_px: number, height_px: number}} frame
	 * @param {{inks: {[name: string]: Ink}, edge_px: number}} looks
	 */
	constructor(over, frame, { inks, edge_px: edgePx }) {
		super();
		this.frame = frame;
		this.inks = inks;
		this.edgePx = edgePx;
		/** @type {string | null} */
		this.mode = null;
		this.ink = /** @type {Core.InkStroke["ink"]} */ (Object.keys(inks)[0]);
		/** @type {string | null} */
		this.slideId = null;
		/** @type {{[slideId: string]: Core.InkStroke[]}} */
		this.drawings = {};
		/** @type {Core.InkStroke | null} */
		this.stroke = null;
		this.spot = null;
		this.keep = true;
		this.veil = svg("path", { "fill-rule": "evenodd", fill: "#000", opacity: 0.62, hidden: true });
		this.ring = svg("circle", { r: SPOT_PX, fill: "none", stroke: "#f5f6f1", "stroke-width": 3, hidden: true });
		this.strokes = svg("g");
		this.node = svg(
			"svg",
			{ class: "board", viewBox: `0 0 ${frame.width_px} ${frame.height_px}`, "aria-hidden": "true" },
			this.strokes,
			this.veil,
			this.ring,
		);
		over.append(this.node);
		this.node.addEventListener("pointerdown", (/** @type {any} */ event) => this.down(event));
		this.node.addEventListener("pointermove", (/** @type {any} */ event) => this.move(event));
		for (const kind of ["pointerup", "pointercancel"]) this.node.addEventListener(kind, () => this.up());
		this.node.addEventListener("pointerleave", () => {
			if (this.mode === "spot") this.setSpot(null, true);
		});
		for (const kind of ["click", "pointerup"])
			this.node.addEventListener(kind, (/** @type {any} */ event) => {
				if (this.mode) event.stopPropagation();
			});
	}

	/** @param {string | null} mode */
	setMode(mode) {
		this.mode = mode === this.mode ? null : mode;
		if (this.mode) this.node.dataset.mode = this.mode;
		else delete this.node.dataset.mode;
		if (this.mode !== "spot") this.setSpot(null, true);
		this.dispatchEvent(new Event("mode"));
	}

	nextInk() {
		const names = Object.keys(this.inks);
		const next = names[(names.indexOf(this.ink) + 1) % names.length];
		this.ink = /** @type {Core.InkStroke["ink"]} */ (next);
		this.dispatchEvent(new Event("mode"));
	}

	/**
	 * The visible slide. Ink that is not kept is removed with its slide.
	 * @param {string} slideId
	 */
	show(slideId) {
		if (slideId === this.slideId) return;
		if (!this.keep && this.drawings[this.slideId ?? ""]) {
			delete this.drawings[this.slideId ?? ""];
			this.tell();
		}
		this.slideId = slideId;
		this.draw();
	}

	/** @param {any} event @returns {[number, number]} */
	place(event) {
		const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(this.node.getScreenCTM().inverse());
		return [Math.round(at.x * 10) / 10, Math.round(at.y * 10) / 10];
	}

	/** @param {any} event */
	down(event) {
		if (!this.mode || event.button !== 0) return;
		event.preventDefault();
		event.stopPropagation();
		const at = this.place(event);
		if (this.mode === "pen") {
			this.node.setPointerCapture(event.pointerId);
			this.stroke = { ink: this.ink, points: [at] };
			this.draw();
		} else if (this.mode === "rub") {
			this.node.setPointerCapture(event.pointerId);
			this.rubbing = true;
			this.rub(at);
		} else this.setSpot(at, true);
	}

	/** @param {any} event */
	move(event) {
		if (!this.mode) return;
		const at = this.place(event);
		if (this.mode === "spot") this.setSpot(at, true);
		else if (this.rubbing) this.rub(at);
		else if (this.stroke && this.stroke.points.length < MOST_POINTS) {
			const last = this.stroke.points[this.stroke.points.length - 1];
			if (Math.hypot(at[0] - last[0], at[1] - last[1]) < NEAR_PX) return;
			this.stroke.points.push(at);
			this.draw();
			this.dispatchEvent(new CustomEvent("drawing", { detail: { slide_id: this.slideId, stroke: this.stroke } }));
		}
	}

	up() {
		this.rubbing = false;
		if (!this.stroke) return;
		this.drawings[this.slideId ?? ""] = [...(this.drawings[this.slideId ?? ""] ?? []), this.stroke];
		this.stroke = null;
		this.tell();
		this.draw();
	}

	/** @param {number[]} place */
	rub([x, y]) {
		const now = this.drawings[this.slideId ?? ""] ?? [];
		const left = rubbedOut(now, x, y, RUB_PX);
		if (left.length === now.length) return;
		this.drawings[this.slideId ?? ""] = left;
		this.tell();
		this.draw();
	}

	/** Removes all ink from the visible slide. */
	clear() {
		if (!this.drawings[this.slideId ?? ""]?.length) return;
		delete this.drawings[this.slideId ?? ""];
		this.tell();
		this.draw();
	}

	tell() {
		this.dispatchEvent(new CustomEvent("drawings", { detail: this.drawings }));
	}

	/** @param {[number, number] | null} at @param {boolean} [mine] */
	setSpot(at, mine = false) {
		this.spot = at;
		for (const node of [this.veil, this.ring]) node.toggleAttribute("hidden", !at);
		if (at) {
			const [x, y] = at;
			const { width_px: width, height_px: height } = this.frame;
			this.veil.setAttribute(
				"d",
				`M ${-width} ${-height} H ${2 * width} V ${2 * height} H ${-width} Z M ${x - SPOT_PX} ${y} a ${SPOT_PX} ${SPOT_PX} 0 1 0 ${2 * SPOT_PX} 0 a ${SPOT_PX} ${SPOT_PX} 0 1 0 ${-2 * SPOT_PX} 0 Z`,
			);
			for (const [name, value] of /** @type {[string, number][]} */ ([
				["cx", x],
				["cy", y],
			]))
				this.ring.setAttribute(name, String(value));
		}
		if (mine) this.dispatchEvent(new CustomEvent("spot", { detail: at }));
	}

	/**
	 * What another screen of the run shows or draws.
	 * @param {any} message
	 */
	hear(message) {
		if (message.kind === "spot") this.setSpot(message.at);
		else if (message.kind === "drawings") {
			this.drawings = message.drawings;
			this.coming = null;
			this.draw();
		} else if (message.kind === "drawing") {
			this.coming = message;
			this.draw();
		}
	}

	draw() {
		const coming = this.coming?.slide_id === this.slideId ? [this.coming.stroke] : [];
		const all = [...(this.drawings[this.slideId ?? ""] ?? []), ...coming, ...(this.stroke ? [this.stroke] : [])];
		this.strokes.replaceChildren(...all.flatMap((stroke) => this.lines(stroke)));
	}

	/** @param {Core.InkStroke} stroke */
	lines({ ink: name, points }) {
		const ink = this.inks[name];
		const d =
			points.length === 1
				? `M ${points[0].join(" ")} l 0 0`
				: `M ${points.map((point) => point.join(" ")).join(" L ")}`;
		const dash = ink.dash_px.length && points.length > 1 ? ink.dash_px.join(" ") : null;
		return [
			[ink.edge, ink.width_px + 2 * this.edgePx],
			[ink.colour, ink.width_px],
		].map(([stroke, width]) =>
			svg("path", {
				d,
				stroke,
				"stroke-width": width,
				"stroke-dasharray": dash,
				fill: "none",
				"stroke-linecap": "round",
				"stroke-linejoin": "round",
			}),
		);
	}
}
