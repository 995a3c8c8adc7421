// Moving, sizing and turning the selection. The browser shows it at once by the core's rules; on release the core makes
// the edit.
import { drawGhost } from "./cropped-out.js";
import { GuideLines } from "./guide-lines.js";
import { pullHandle, scaleWithin, turnBox } from "./sizing.js";
import { snapHandle, snapBox } from "./snapping.js";
import { around } from "./bounds.js";
import { track } from "./tracking.js";
import { toast } from "../ui/toast.js";

const SNAP_PX = 6;
const TURN_STEP_DEG = 15;
const tenths = (/** @type {any} */ value) => Math.floor(value * 10 + 0.5) / 10;

export class Moving {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.state = stage.state;
		this.lines = new GuideLines(stage);
	}

	get reach() {
		return SNAP_PX / this.stage.scale;
	}
	get guides() {
		return this.state.data.viewing.guides;
	}

	/** @param {function|null} press where it was let go without having been pulled */
	drag(/** @type {StageEvent} */ event, press = null) {
		const { stage } = this;
		const items = stage.picked().filter((item) => !item.locked);
		if (!items.length) return;
		const whole = around(items.map((item) => stage.boxOf(item)));
		const ids = new Set(items.map((item) => item.id));
		// Alt moves freely; Shift keeps to one axis; otherwise what is moved comes to lie on guides within a few px of the
		// screen.
		const straight = (/** @type {any} */ way) =>
			way.shift ? (Math.abs(way.x) > Math.abs(way.y) ? { ...way, y: 0 } : { ...way, x: 0 }) : way;
		const snap = (/** @type {any} */ way) =>
			way.alt
				? { dx: 0, dy: 0 }
				: snapBox({ ...whole, x: whole.x + way.x, y: whole.y + way.y }, this.guides, ids, this.reach);
		track(
			this.stage,
			event,
			(/** @type {boolean} */ free) => {
				const way = straight(free);
				const found = snap(way);
				const [dx, dy] = [way.x + found.dx, way.y + found.dy];
				for (const { id, box } of items)
					stage.placeOf(id).setAttribute("transform", `translate(${box.x + dx} ${box.y + dy})`);
				stage.frames.offset(dx, dy, whole);
				this.lines.show(found, { ...whole, x: whole.x + dx, y: whole.y + dy });
			},
			(/** @type {boolean} */ free) => {
				this.lines.show(null);
				if (!free) {
					stage.rebuild();
					return;
				}
				const way = straight(free);
				const { dx, dy } = snap(way);
				this.moveBy(items, way.x + dx, way.y + dy);
			},
			press,
		);
	}

	/** Moves objects as one step: those that still exist when its turn comes, such as after an undo. */
	moveBy(/** @type {any} */ items, /** @type {number} */ dx, /** @type {number} */ dy) {
		const slideId = this.state.slide.id;
		return this.state.edit(() => {
			const ids = items
				.map((/** @type {Core.SlideObject} */ item) => item.id)
				.filter((/** @type {string} */ id) => this.state.slide?.id !== slideId || this.state.object(id));
			if (ids.length < items.length)
				toast(
					ids.length
						? "Some of what you moved is gone by now; the rest was moved."
						: `${items[0].name} is gone by now, so nothing was moved.`,
				);
			return ids.length ? { do: "move objects", slide_id: slideId, object_ids: ids, dx, dy } : null;
		});
	}

	pressHandle(/** @type {StageEvent} */ event) {
		const handle = event.target.closest("[data-handle]");
		if (!handle || event.button !== 0) return;
		const items = this.stage.picked();
		const kind = handle.dataset.handle;
		if (kind === "frame") this.drag(event);
		else if (kind === "turn") this.turn(event, items[0]);
		else if (kind === "tail") this.pullTail(event, items[0]);
		else if (this.state.cutting === items[0].id) this.cut(event, items[0], handle);
		else if (items.length > 1) this.sizeSeveral(event, items, handle);
		else this.sizeOne(event, items[0], handle);
	}

	change(/** @type {Core.SlideObject} */ item, /** @type {{[name: string]: any}} */ changes) {
		const slideId = this.state.slide.id;
		return this.state.edit(() => {
			if (this.state.slide?.id === slideId && !this.state.object(item.id)) {
				toast(`${item.name} is gone by now, so nothing was changed.`);
				return null;
			}
			return { do: "change objects", slide_id: slideId, object_ids: [item.id], changes };
		});
	}

	way(/** @type {any} */ handle) {
		return [Number(handle.dataset.across), Number(handle.dataset.down)];
	}

	sizeOne(/** @type {StageEvent} */ event, /** @type {Core.SlideObject} */ item, /** @type {any} */ handle) {
		const { stage } = this;
		const place = stage.placeOf(item.id);
		const pull = this.way(handle);
		const start = stage.boxOf(item);
		const least = item.form === "line" ? [8, 2] : [8, 8];
		// A turned object pulls along its own sides: the way of the pointer snaps only on an upright one.
		const boxAt = (/** @type {any} */ way) => {
			const found = way.alt
				? { dx: way.x, dy: way.y }
				: snapHandle(start, pull, [way.x, way.y], this.guides, new Set([item.id]), this.reach);
			const keep = (item.kind === "picture") !== Boolean(way.shift);
			return { box: pullHandle(start, pull, [found.dx, found.dy], keep, least), found };
		};
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => {
				const { box, found } = boxAt(way);
				const [sx, sy] = [start.width ? box.width / start.width : 1, start.height ? box.height / start.height : 1];
				place.setAttribute("transform", `translate(${box.x} ${box.y}) scale(${sx} ${sy})`);
				stage.frames.preview([[item, box]], `${Math.round(box.width)} × ${Math.round(box.height)}`);
				this.lines.show(
					{ x_guide: found.x_guide, y_guide: found.y_guide, x_size: found.x_size, y_size: found.y_size },
					box,
				);
			},
			(/** @type {any} */ way) => {
				this.lines.show(null);
				if (!way) {
					stage.rebuild();
					return;
				}
				this.change(item, { box: boxAt(way).box });
			},
		);
	}

	/** Crops a picture by dragging its edges: its content stays in place. The core computes the crop. */
	cut(/** @type {StageEvent} */ event, /** @type {Core.SlideObject} */ item, /** @type {any} */ handle) {
		const { stage } = this;
		const pull = this.way(handle);
		const boxAt = (/** @type {any} */ way) => pullHandle(item.box, pull, [way.x, way.y], false);
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => {
				const box = boxAt(way);
				stage.frames.preview([[item, box]], `${Math.round(box.width)} × ${Math.round(box.height)}`);
				drawGhost(stage, item);
			},
			(/** @type {any} */ way) => {
				if (way)
					this.state.edit({ do: "cut picture", slide_id: this.state.slide.id, object_id: item.id, box: boxAt(way) });
				else stage.rebuild();
			},
		);
	}

	sizeSeveral(/** @type {StageEvent} */ event, /** @type {any} */ items, /** @type {any} */ handle) {
		const { stage } = this;
		const boxes = items.map((/** @type {Core.SlideObject} */ item) => item.box);
		const whole = { ...around(boxes), turn_deg: 0 };
		const pull = this.way(handle);
		const boxAt = (/** @type {any} */ way) => {
			const found = snapHandle(
				whole,
				pull,
				[way.x, way.y],
				this.guides,
				new Set(items.map((/** @type {Core.SlideObject} */ item) => item.id)),
				this.reach,
			);
			return pullHandle(whole, pull, [found.dx, found.dy], !way.shift);
		};
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => {
				const box = boxAt(way);
				const fresh = items.map((/** @type {Core.SlideObject} */ item) => [item, scaleWithin(item.box, whole, box)]);
				for (const [item, next] of fresh) {
					stage
						.placeOf(item.id)
						.setAttribute(
							"transform",
							`translate(${next.x} ${next.y}) scale(${next.width / Math.max(item.box.width, 0.1)} ${next.height / Math.max(item.box.height, 0.1)})`,
						);
				}
				stage.frames.preview(fresh, `${Math.round(box.width)} × ${Math.round(box.height)}`);
			},
			(/** @type {any} */ way) => {
				if (!way) {
					stage.rebuild();
					return;
				}
				this.state.edit({
					do: "scale objects",
					slide_id: this.state.slide.id,
					object_ids: items.map((/** @type {Core.SlideObject} */ item) => item.id),
					box: boxAt(way),
				});
			},
		);
	}

	turn(/** @type {StageEvent} */ event, /** @type {Core.SlideObject} */ item) {
		const { stage } = this;
		const boxAt = (/** @type {any} */ way) => turnBox(item.box, [way.at.x, way.at.y], way.alt ? 0 : TURN_STEP_DEG);
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => {
				const box = boxAt(way);
				const group = stage.placeOf(item.id).firstElementChild;
				group.setAttribute("transform", `rotate(${box.turn_deg} ${box.width / 2} ${box.height / 2})`);
				stage.frames.preview([[item, box]], `${box.turn_deg}°`);
			},
			(/** @type {any} */ way) => {
				if (!way) {
					stage.rebuild();
					return;
				}
				this.change(item, { box: boxAt(way) });
			},
		);
	}

	/** The end of a bubble's tail, kept in shares of its box. */
	pullTail(/** @type {StageEvent} */ event, /** @type {Core.SlideObject} */ item) {
		const { box } = item;
		const at = (/** @type {any} */ way) => {
			const turn = (-(box.turn_deg ?? 0) * Math.PI) / 180;
			const [dx, dy] = [way.at.x - (box.x + box.width / 2), way.at.y - (box.y + box.height / 2)];
			const share = (/** @type {any} */ value, /** @type {any} */ size) =>
				Math.max(-20, Math.min(21, tenths((value / size + 0.5) * 100) / 100));
			return {
				tail_x: share(dx * Math.cos(turn) - dy * Math.sin(turn), box.width || 1),
				tail_y: share(dx * Math.sin(turn) + dy * Math.cos(turn), box.height || 1),
			};
		};
		track(
			this.stage,
			event,
			(/** @type {any} */ way) => this.lines.tail(at(way), item),
			(/** @type {any} */ way) => {
				if (!way) {
					this.stage.rebuild();
					return;
				}
				this.change(item, at(way));
			},
		);
	}
}
