// Selecting on the stage: by a press, by a frame drawn over several, from beneath with Alt, and by keys.
import { begin, later } from "../ui/lazy-modules.js";

const marquee = later(() => import("./marquee.js"));

export class Picking {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.state = stage.state;
		stage.svg.addEventListener("pointerdown", (event) => this.press(event));
		stage.svg.addEventListener("dblclick", (event) => this.enter(event));
		stage.svg.addEventListener("keydown", (event) => this.key(event));
		stage.theatre.addEventListener("pointerdown", (/** @type {StageEvent} */ event) => {
			if (event.target === stage.theatre) this.frameOver(event);
		});
	}

	/** An object with its whole group. */
	withGroup(/** @type {string} */ id) {
		const { group } = this.state.object(id) ?? {};
		return group ? this.state.slide.objects.filter((item) => item.group === group).map((item) => item.id) : [id];
	}

	press(/** @type {StageEvent} */ event) {
		if (event.button !== 0 || this.stage.pen?.active) return;
		const id = event.altKey ? this.beneath(event) : event.target.closest("[data-object]")?.dataset.object;
		if (!id) {
			this.frameOver(event);
			return;
		}
		const ids = this.withGroup(id);
		if (event.shiftKey) {
			const all = ids.every((one) => this.state.picked.has(one));
			const kept = [...this.state.picked].filter((one) => !ids.includes(one));
			this.state.pick(all ? kept : [...kept, ...ids]);
			return;
		}
		const several = this.state.picked.has(id) && this.state.picked.size > ids.length;
		if (!this.state.picked.has(id)) this.state.pick(ids);
		if (this.state.object(id).locked) return;
		// One of several that was pressed and not pulled is picked alone.
		this.stage.drag(event, several ? () => this.state.pick(ids) : null);
	}

	/** With Alt: the next object beneath the selected one, at the pointer. */
	beneath(/** @type {PointerEvent} */ event) {
		const ids = [
			...new Set(
				document
					.elementsFromPoint(event.clientX, event.clientY)
					.map((node) => node.closest("[data-stage] [data-object]")?.dataset.object)
					.filter(Boolean),
			),
		];
		const at = ids.findIndex((id) => this.state.picked.has(id));
		return ids[(at + 1) % Math.max(ids.length, 1)];
	}

	/** Draws a frame; everything wholly inside is selected. Without a drag the selection becomes empty. */
	frameOver(/** @type {PointerEvent} */ event) {
		const before = event.shiftKey ? [...this.state.picked] : [];
		if (!event.shiftKey) this.state.pick([]);
		begin(marquee, ({ drawMarquee }) => drawMarquee(this, event, before));
	}

	/** A double press: opens the text of a text or shape, or selects one member of a group. */
	/** The text whose box contains a place of the slide, also between its letters. */
	textAt(/** @type {any} */ { x, y }) {
		return this.state.slide?.objects.findLast(({ paragraphs, form, aside, box }) => {
			if (!paragraphs || form || aside) return false;
			const angle = (-(box.turn_deg ?? 0) * Math.PI) / 180;
			const [dx, dy] = [x - box.x - box.width / 2, y - box.y - box.height / 2];
			const [across, down] = [dx * Math.cos(angle) - dy * Math.sin(angle), dx * Math.sin(angle) + dy * Math.cos(angle)];
			return Math.abs(across) <= box.width / 2 && Math.abs(down) <= box.height / 2;
		});
	}

	enter(/** @type {any} */ event) {
		const id = event.target.closest("[data-object]")?.dataset.object;
		const item = id ? this.state.object(id) : this.textAt(this.stage.point(event));
		if (!item) return;
		if (item.group && this.state.picked.size > 1) this.state.pick([id]);
		else if (item.paragraphs && item.form !== "line") this.stage.editWords(item);
	}

	key(/** @type {KeyboardEvent} */ event) {
		const way = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
		const objects = this.state.slide?.objects ?? [];
		if (way && objects.length && (!this.state.picked.size || event.altKey)) {
			event.preventDefault();
			event.stopPropagation();
			const at = objects.findIndex((item) => this.state.picked.has(item.id));
			const next = objects[at < 0 ? (way > 0 ? 0 : objects.length - 1) : (at + way + objects.length) % objects.length];
			this.state.pick([next.id]);
		} else if (event.key === "Enter") {
			const [item] = this.stage.picked();
			if (item?.paragraphs && item.form !== "line") {
				event.preventDefault();
				event.stopPropagation();
				this.stage.editWords(item);
			}
		}
	}
}
