// The frames around the selection, their handles, and the guide lines.
import { svg } from "../ui/element.js";
import { around } from "./bounds.js";

const HANDLES = { nw: [0, 0], n: [0.5, 0], ne: [1, 0], e: [1, 0.5], se: [1, 1], s: [0.5, 1], sw: [0, 1], w: [0, 0.5] };
/** @type {{[handle: string]: string}} */
const CURSORS = {
	nw: "nwse-resize",
	se: "nwse-resize",
	ne: "nesw-resize",
	sw: "nesw-resize",
	n: "ns-resize",
	s: "ns-resize",
	e: "ew-resize",
	w: "ew-resize",
};

export class Frames {
	/** @param {ShowState} state */
	constructor(/** @type {any} */ overlay, state) {
		this.overlay = overlay;
		this.state = state;
		this.scale = 1;
	}

	/** @param {number} scale @param {(id: string) => boolean} isAway */
	draw(scale, isAway) {
		this.scale = scale;
		const items = this.state.slide?.objects.filter((item) => this.state.picked.has(item.id)) ?? [];
		this.overlay.replaceChildren();
		this.group = this.framesOf(
			items.map((item) => [item, this.boxOf(item)]),
			isAway,
		);
		this.overlay.append(this.group);
	}

	boxOf(/** @type {Core.SlideObject} */ item) {
		if (item.overflow !== "grow") return item.box;
		const drawn = this.state.staged.drawing.objects.find((entry) => entry.object_id === item.id);
		return drawn ? { ...item.box, height: drawn.height } : item.box;
	}

	/** @param {[any, StageBox][]} pairs objects and their boxes @param {(id: string) => boolean} isAway */
	framesOf(pairs, isAway = () => false) {
		const group = svg("g");
		const alone = pairs.length === 1;
		for (const [item, box] of pairs)
			group.append(this.frameOf(item, box, alone && !item.locked, isAway(item.id), !alone));
		if (pairs.length > 1)
			group.append(
				this.frameAround(
					around(pairs.map(([, box]) => box)),
					pairs.every(([item]) => !item.locked),
				),
			);
		return group;
	}

	frameOf(
		/** @type {Core.SlideObject} */ item,
		/** @type {StageBox} */ box,
		/** @type {any} */ withHandles,
		/** @type {boolean} */ away,
		thin = false,
	) {
		const { x, y, width, height, turn_deg: turn = 0 } = box;
		const group = svg("g", { transform: `rotate(${turn} ${x + width / 2} ${y + height / 2})` });
		group.append(
			svg("rect", {
				class: `frame${away ? " away" : ""}${item.locked ? " locked" : ""}`,
				x,
				y,
				width,
				height,
				"stroke-width": (thin ? 1 : 1.5) / this.scale,
			}),
		);
		if (!item.locked) group.append(this.edge(box));
		if (!withHandles) return group;
		this.addHandles(group, box);
		const stalk = 26 / this.scale;
		group.append(
			svg("line", {
				class: "frame",
				x1: x + width / 2,
				x2: x + width / 2,
				y1: y,
				y2: y - stalk,
				"stroke-width": 1 / this.scale,
			}),
			this.handle("turn", x + width / 2, y - stalk, "grab"),
		);
		if (item.form === "bubble")
			group.append(this.handle("tail", x + width * item.tail_x, y + height * item.tail_y, "move"));
		return group;
	}

	/** The frame itself can be dragged to move its object, for thin or covered objects. */
	edge(/** @type {any} */ { x, y, width, height }) {
		return svg("rect", { class: "edge", "data-handle": "frame", x, y, width, height, "stroke-width": 8 / this.scale });
	}

	frameAround(/** @type {StageBox} */ box, /** @type {any} */ withHandles) {
		const group = svg("g");
		group.append(
			svg("rect", {
				class: "frame",
				x: box.x,
				y: box.y,
				width: box.width,
				height: box.height,
				"stroke-width": 1.5 / this.scale,
				"stroke-dasharray": `${6 / this.scale} ${3 / this.scale}`,
			}),
		);
		if (withHandles) this.addHandles(group, box);
		return group;
	}

	addHandles(/** @type {any} */ group, /** @type {StageBox} */ box) {
		for (const [name, [across, down]] of Object.entries(HANDLES)) {
			// On what is small on the screen only the corners have room.
			if ((across === 0.5 && box.width * this.scale < 40) || (down === 0.5 && box.height * this.scale < 40)) continue;
			const node = this.handle(name, box.x + box.width * across, box.y + box.height * down, CURSORS[name]);
			Object.assign(node.dataset, { across, down });
			group.append(node);
		}
	}

	handle(/** @type {string} */ name, /** @type {number} */ x, /** @type {number} */ y, /** @type {any} */ cursor) {
		const size = 10 / this.scale;
		const reach = 22 / this.scale;
		const dot = svg("rect", {
			class: "handle",
			x: x - size / 2,
			y: y - size / 2,
			width: size,
			height: size,
			rx: name === "turn" || name === "tail" ? size / 2 : size / 4,
			"stroke-width": 1.5 / this.scale,
		});
		// A larger square around the dot can be hit by a finger.
		const group = svg(
			"g",
			{ "data-handle": name },
			svg("rect", { class: "reach", x: x - reach / 2, y: y - reach / 2, width: reach, height: reach }),
			dot,
		);
		group.style.cursor = cursor;
		return group;
	}

	/** Moves the frames during a drag, with the place as numbers beside it. */
	offset(/** @type {number} */ dx, /** @type {number} */ dy, /** @type {StageBox} */ whole) {
		this.group?.setAttribute("transform", `translate(${dx} ${dy})`);
		this.number(`${Math.round(whole.x + dx)}, ${Math.round(whole.y + dy)}`, whole);
	}

	preview(/** @type {any} */ pairs, /** @type {string} */ words) {
		this.overlay.replaceChildren();
		this.group = this.framesOf(pairs);
		this.overlay.append(this.group);
		this.number(words, pairs.length === 1 ? pairs[0][1] : around(pairs.map((/** @type {any} */ [, box]) => box)));
	}

	number(/** @type {string} */ words, /** @type {StageBox} */ box) {
		if (!this.group) return;
		this.group.querySelector(".place")?.remove();
		const size = 13 / this.scale;
		this.group.append(
			svg(
				"text",
				{
					class: "place",
					x: box.x,
					y: box.y - 10 / this.scale,
					"font-size": size,
					fill: "#f2a9cb",
					"font-weight": 600,
					"font-family": "Hanken Grotesk",
					"paint-order": "stroke",
					stroke: "#101a1f",
					"stroke-width": 3 / this.scale,
				},
				words,
			),
		);
	}
}
