// The pen: forms drawn by hand, freely or from point to point. The core thins and smooths what the hand drew.
import { newId, svg } from "../ui/element.js";
import { toast } from "../ui/toast.js";

export class Pen {
	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.active = null;
		stage.svg.addEventListener("pointerdown", (event) => {
			if (this.active) this.down(event);
		});
		stage.svg.addEventListener("pointermove", (event) => {
			if (this.active === "points" && this.points?.length) this.preview(stage.point(event));
		});
		stage.svg.addEventListener("dblclick", (event) => {
			if (this.active === "points") {
				event.stopPropagation();
				this.finish();
			}
		});
		addEventListener(
			"keydown",
			(event) => {
				if (!this.active) return;
				if (event.key === "Escape") {
					event.stopPropagation();
					this.stop();
				} else if (event.key === "Enter") {
					event.preventDefault();
					event.stopPropagation();
					this.finish();
				}
			},
			true,
		);
	}

	/** @param {"free"|"points"} kind */
	start(kind) {
		this.active = kind;
		this.points = null;
		this.stage.theatre.dataset.pen = kind;
		this.stage.state.pick([]);
		toast(
			kind === "free"
				? "Draw on the stage; letting go keeps it. Esc leaves."
				: "Press from point to point; a double press or Enter ends it, the first point closes it. Esc leaves.",
		);
	}

	stop() {
		this.active = null;
		this.points = null;
		this.line?.remove();
		/** @type {any} */
		this.line = null;
		delete this.stage.theatre.dataset.pen;
	}

	down(/** @type {PointerEvent} */ event) {
		event.preventDefault();
		event.stopImmediatePropagation();
		const at = this.stage.point(event);
		if (this.active === "points") {
			const [first] = this.points ?? [];
			if (first && this.points.length > 2 && Math.hypot(at.x - first.x, at.y - first.y) * this.stage.scale < 10) {
				this.finish(true);
				return;
			}
			this.points = [...(this.points ?? []), at];
			this.preview(at);
			return;
		}
		this.points = [at];
		const move = (/** @type {any} */ next) => {
			this.points.push(this.stage.point(next));
			this.preview();
		};
		const up = () => {
			removeEventListener("pointermove", move);
			removeEventListener("pointerup", up);
			const [first] = this.points ?? [];
			const last = this.points?.at(-1);
			this.finish(this.points?.length > 12 && Math.hypot(last.x - first.x, last.y - first.y) * this.stage.scale < 12);
		};
		addEventListener("pointermove", move);
		addEventListener("pointerup", up);
	}

	preview(to = /** @type {any} */ (null)) {
		this.line ??= svg("path", { fill: "none", stroke: "#e0559b" });
		const points = to ? [...this.points, to] : this.points;
		this.line.setAttribute(
			"d",
			points.map((/** @type {any} */ { x, y }, /** @type {number} */ at) => `${at ? "L" : "M"} ${x} ${y}`).join(" "),
		);
		this.line.setAttribute("stroke-width", 2 / this.stage.scale);
		this.stage.overlay.append(this.line);
	}

	async finish(closed = false) {
		const { points, active, stage } = this;
		this.stop();
		if (!points || points.length < 2) return;
		const { state } = stage;
		const id = newId();
		const look = closed ? { fill: { kind: "plain", colour: "@second" } } : { fill: null };
		const model = {
			kind: "shape",
			id,
			name: active === "free" ? "Drawing" : "Path",
			form: "path",
			box: { x: 0, y: 0, width: 1, height: 1 },
			stroke: { colour: "@accent", width_px: 4 },
			...look,
		};
		const step = Math.max(1, Math.ceil(points.length / 5000));
		const thin = points
			.filter((/** @type {any} */ _, /** @type {number} */ at) => at % step === 0 || at === points.length - 1)
			.map((/** @type {any} */ { x, y }) => [x, y]);
		if (
			await state.edit({
				do: "add drawing",
				slide_id: state.slide.id,
				model,
				points: thin,
				closed,
				smooth: active === "free",
			})
		)
			state.pick([id]);
	}
}
