// Framings as frames on a large slide: selected by edge or name, moved, scaled about their middle, turned.
import { svg } from "../ui/element.js";
import { turnBox } from "./sizing.js";
import { track } from "./tracking.js";

const LEAST_PX = 16;
const TURN_STEP_DEG = 15;
const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;

export class Framings {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.state = stage.state;
		stage.overlay.addEventListener("pointerdown", (event) => this.press(event));
	}

	get proportion() {
		const { width_px: width, height_px: height } = this.state.data.settings.frame;
		return height / width;
	}

	draw(/** @type {any} */ scale, shown = /** @type {any} */ (null)) {
		const { overlay } = this.stage;
		overlay.querySelector(".framings")?.remove();
		const { slide } = this.state;
		if (!slide?.framings.length) return;
		const px = 1 / scale;
		overlay.prepend(
			svg(
				"g",
				{ class: "framings" },
				slide.framings.map((framing) => this.frameOf(shown?.id === framing.id ? shown : framing, px)),
			),
		);
	}

	frameOf(/** @type {any} */ framing, /** @type {number} */ px) {
		const { x, y, width_px: width, turn_deg: turn = 0 } = framing;
		const height = width * this.proportion;
		const picked = this.state.pickedFraming === framing.id;
		const group = svg("g", { transform: `translate(${x} ${y})rotate(${turn})`, "data-framing": framing.id });
		const [left, top] = [-width / 2, -height / 2];
		const colour = picked ? "#f2a9cb" : "#f0c674";
		group.append(
			svg("rect", {
				x: left,
				y: top,
				width,
				height,
				fill: "none",
				stroke: "#101a1f",
				"stroke-width": 4 * px,
				"stroke-opacity": 0.6,
			}),
			svg("rect", {
				x: left,
				y: top,
				width,
				height,
				fill: "none",
				stroke: colour,
				"stroke-width": 2 * px,
				"stroke-dasharray": picked ? null : `${9 * px} ${5 * px}`,
			}),
			// A broad, unseen edge can be hit; what is inside stays free for the objects.
			svg("rect", {
				class: "framing-edge",
				x: left,
				y: top,
				width,
				height,
				fill: "none",
				stroke: "transparent",
				"stroke-width": 16 * px,
				"data-grip": "edge",
			}),
		);
		const size = 13 * px;
		const words = framing.name || "Framing";
		const tag = svg(
			"g",
			{ class: "framing-tag", "data-grip": "edge" },
			svg("rect", {
				x: left,
				y: top - 22 * px,
				width: (words.length * 7.4 + 14) * px,
				height: 20 * px,
				rx: 3 * px,
				fill: "#101a1f",
			}),
			svg(
				"text",
				{
					x: left + 7 * px,
					y: top - 7.5 * px,
					"font-size": size,
					fill: colour,
					"font-weight": 600,
					"font-family": "Hanken Grotesk",
				},
				words,
			),
		);
		group.append(tag);
		if (picked) {
			const dot = (
				/** @type {any} */ grip,
				/** @type {number} */ dx,
				/** @type {number} */ dy,
				/** @type {any} */ cursor,
			) => {
				const node = svg(
					"g",
					{ "data-grip": grip },
					svg("rect", { class: "reach", x: dx - 11 * px, y: dy - 11 * px, width: 22 * px, height: 22 * px }),
					svg("rect", {
						class: "handle",
						x: dx - 5 * px,
						y: dy - 5 * px,
						width: 10 * px,
						height: 10 * px,
						rx: (grip === "turn" ? 5 : 2) * px,
						"stroke-width": 1.5 * px,
					}),
				);
				node.style.cursor = cursor;
				return node;
			};
			group.append(
				dot("size", left, top, "nwse-resize"),
				dot("size", -left, top, "nesw-resize"),
				dot("size", left, -top, "nesw-resize"),
				dot("size", -left, -top, "nwse-resize"),
				svg("line", { x1: 0, x2: 0, y1: top, y2: top - 26 * px, stroke: colour, "stroke-width": px }),
				dot("turn", 0, top - 26 * px, "grab"),
			);
		}
		return group;
	}

	press(/** @type {StageEvent} */ event) {
		const node = event.target.closest("[data-framing]");
		const grip = event.target.closest("[data-grip]")?.dataset.grip;
		if (!node || !grip || event.button !== 0) return;
		event.stopPropagation();
		const framing = this.state.slide.framings.find((entry) => entry.id === node.dataset.framing);
		if (!framing) return;
		if (this.state.pickedFraming !== framing.id) this.state.pick([], { framing: framing.id });
		const size = this.state.slide.size ?? this.stage.frame;
		const start = this.stage.point(event);
		const reach = Math.max(Math.hypot(start.x - framing.x, start.y - framing.y), 1);
		const changed = (/** @type {any} */ way) => {
			if (grip === "size")
				return {
					width_px: Math.max(
						tenths((framing.width_px * Math.hypot(way.at.x - framing.x, way.at.y - framing.y)) / reach),
						LEAST_PX,
					),
				};
			if (grip === "turn") {
				const box = { x: framing.x, y: framing.y, width: 0, height: 0 };
				return { turn_deg: turnBox(box, [way.at.x, way.at.y], way.alt ? 0 : TURN_STEP_DEG).turn_deg };
			}
			// Its middle stays on the slide, however far it is pulled.
			const on = (/** @type {any} */ value, /** @type {number} */ most) => tenths(Math.max(0, Math.min(value, most)));
			return { x: on(framing.x + way.x, size.width_px), y: on(framing.y + way.y, size.height_px) };
		};
		const words = (/** @type {any} */ value) =>
			/** @type {{[grip: string]: string}} */ ({
				size: `${Math.round(value.width_px)} wide`,
				turn: `${value.turn_deg ?? 0}°`,
				edge: `${Math.round(value.x)}, ${Math.round(value.y)}`,
			})[grip];
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => {
				const shown = { ...framing, ...changed(way) };
				this.draw(this.stage.scale, { ...shown, name: `${framing.name}  ${words(shown)}` });
			},
			(/** @type {any} */ way) => {
				if (!way) {
					this.draw(this.stage.scale);
					return;
				}
				this.state.edit({
					do: "change framing",
					slide_id: this.state.slide.id,
					framing_id: framing.id,
					changes: changed(way),
				});
			},
		);
	}
}
