// Wings: where an object waits before a carry brings it on, as a ghost that is dragged on the stage.
import { svg } from "../ui/element.js";
import { track } from "./tracking.js";

const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;

export class Wings {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.state = stage.state;
		stage.overlay.addEventListener("pointerdown", (event) => this.press(event));
	}

	/** The selected object, if it alone is selected and has wings. */
	current() {
		const items = this.stage.picked();
		return items.length === 1 && items[0].wings ? items[0] : null;
	}

	draw(/** @type {any} */ scale, shown = /** @type {any} */ (null)) {
		this.stage.overlay.querySelector(".wings")?.remove();
		const item = this.current();
		if (!item) return;
		const { dx, dy, scale: size } = shown ?? item.wings;
		const { x, y, width, height, turn_deg: turn = 0 } = this.stage.boxOf(item);
		const [cx, cy] = [x + width / 2, y + height / 2];
		const px = 1 / scale;
		const ghost = svg(
			"g",
			{ class: "wings" },
			svg("line", {
				x1: cx + dx,
				y1: cy + dy,
				x2: cx,
				y2: cy,
				stroke: "#e0559b",
				"stroke-width": 1.5 * px,
				"stroke-dasharray": `${2 * px} ${4 * px}`,
			}),
			svg(
				"g",
				{
					transform: `translate(${cx + dx} ${cy + dy})rotate(${turn})scale(${Math.max(size, 0.02)})`,
					"data-wings": item.id,
				},
				svg("title", {}, `${item.name} waits here; pull it to another place`),
				svg("rect", {
					x: -width / 2,
					y: -height / 2,
					width,
					height,
					fill: "#e0559b22",
					stroke: "#e0559b",
					"stroke-width": (1.5 * px) / Math.max(size, 0.02),
					"stroke-dasharray": `${(5 * px) / Math.max(size, 0.02)} ${(4 * px) / Math.max(size, 0.02)}`,
				}),
			),
		);
		if (shown)
			ghost.append(
				svg(
					"text",
					{
						x: cx + dx,
						y: cy + dy,
						"font-size": 13 * px,
						fill: "#f2a9cb",
						"font-weight": 600,
						"font-family": "Hanken Grotesk",
						"text-anchor": "middle",
						"paint-order": "stroke",
						stroke: "#101a1f",
						"stroke-width": 3 * px,
					},
					`${Math.round(dx)}, ${Math.round(dy)}`,
				),
			);
		this.stage.overlay.append(ghost);
	}

	press(/** @type {StageEvent} */ event) {
		if (!event.target.closest("[data-wings]") || event.button !== 0) return;
		event.stopPropagation();
		const item = this.current();
		if (!item?.wings) return;
		const { wings } = item;
		const moved = (/** @type {any} */ way) => ({
			...wings,
			dx: tenths(wings.dx + way.x),
			dy: tenths(wings.dy + way.y),
		});
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => this.draw(this.stage.scale, moved(way)),
			(/** @type {any} */ way) => {
				if (!way) {
					this.draw(this.stage.scale);
					return;
				}
				this.state.edit({
					do: "change objects",
					slide_id: this.state.slide.id,
					object_ids: [item.id],
					changes: { wings: moved(way) },
				});
			},
		);
	}
}
