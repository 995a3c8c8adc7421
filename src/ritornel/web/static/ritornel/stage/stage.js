// The stage: the slide at the playhead, and the selection on it. Selecting, moving, adding and drawing have files of
// their own.
import { Painter } from "../player/painter.js";
import { frameStateAt } from "../player/frame-state.js";
import { el, svg } from "../ui/element.js";
import { begin, later, onFirst } from "../ui/lazy-modules.js";
import { loadSheet } from "../ui/sheets.js";
import { Frames } from "./frames.js";
import { heldKeys } from "./held-keys.js";
import { Picking } from "./picking.js";
import { Places } from "./places.js";

const spares = later(() => import("./spares.js"));
const words = later(async () => (await Promise.all([import("./writing.js"), loadSheet("writing")]))[0]);

export class Stage {
	/** @type {any} */
	show;
	/** @type {number} */
	scale;

	/** @param {ShowState} state */
	constructor(state, /** @type {any} */ theatre) {
		this.state = state;
		this.theatre = theatre;
		/** The text that is being edited, and its place. */
		/** @type {any} */
		this.writing = null;
		/** @type {any} */
		this.editor = null;
		this.canvas = el("div", { class: "canvas" });
		this.svg = svg("svg", { role: "application", "aria-label": "The slide", "data-stage": true, tabindex: 0 });
		this.overlay = svg("svg", { class: "frames", "aria-hidden": "true" });
		this.canvas.append(this.svg, this.overlay);
		theatre.append(this.canvas);
		this.frames = new Frames(this.overlay, state);
		this.places = new Places(this);
		this.hands = later(() => import("./moving.js").then(({ Moving }) => new Moving(this)));
		this.hands.near(theatre);
		// What is drawn over the slide only where there is such a thing.
		this.drawn = [
			{
				there: () => this.state.slide?.framings.length,
				part: later(() => import("./framings.js").then(({ Framings }) => new Framings(this))),
			},
			{
				there: () => this.state.build(this.state.pickedBuild)?.kind === "travels",
				part: later(() => import("./path.js").then(({ PathEditor }) => new PathEditor(this))),
			},
			{
				there: () => this.state.cutting,
				part: later(() => import("./cropped-out.js").then(({ Ghost }) => new Ghost(this))),
			},
			{
				there: () => !this.state.picked.size && this.state.data.viewing?.carry?.pairs.length,
				part: later(() => import("./carries.js").then(({ Carries }) => new Carries(this))),
			},
			{
				there: () => this.picked().some((item) => item.wings),
				part: later(() => import("./wings.js").then(({ Wings }) => new Wings(this))),
			},
		];
		/** @type {any} */
		this.pen = null;
		this.overlay.addEventListener("pointerdown", (/** @type {StageEvent} */ event) => {
			if (event.button !== 0 || !event.target.closest("[data-handle]")) return;
			event.stopPropagation();
			begin(this.hands, (moving) => moving.pressHandle(event));
		});
		this.picking = new Picking(this);
		import("./context-menu.js").then(({ contextMenu }) => contextMenu(this));
		onFirst([[state, "preview"]], async () => {
			const { Preview } = await import("./preview.js");
			new Preview(this);
		});
		new ResizeObserver(() => this.fit()).observe(theatre);
		state.addEventListener("show", () => this.rebuild());
		state.addEventListener("time", () => this.paint());
		state.addEventListener("pick", () => {
			this.drawFrames();
			if (this.picked()[0]?.paragraphs) this.readyToWrite();
		});
		state.addEventListener("trial", () => this.tryTimes());
		import("./files.js").then(({ receiveFiles }) => receiveFiles(this));
		this.rebuild();
	}

	/** The stage shows the slide, which may be larger than the show's frame. */
	get frame() {
		return this.state.slide?.size ?? this.state.data.settings.frame;
	}

	fit() {
		const { width_px: width, height_px: height } = this.frame;
		const room = { width: this.theatre.clientWidth - 52, height: this.theatre.clientHeight - 28 - this.drawSpares() };
		this.scale = Math.max(0.05, Math.min(room.width / width, room.height / height));
		this.canvas.style.width = `${Math.round(width * this.scale)}px`;
		this.canvas.style.height = `${Math.round(height * this.scale)}px`;
		this.overlay.setAttribute("viewBox", `0 0 ${width} ${height}`);
		this.places.draw();
		this.drawFrames();
	}

	/** The slide's spares; returns how much room they take. */
	drawSpares() {
		const there = this.state.slide?.spares?.length;
		if (spares.ready) return spares.ready.drawSpares(this);
		if (there) spares.get().then(() => this.fit());
		return 0;
	}

	/** Makes a new painter for the present slide. */
	rebuild() {
		const { staged } = this.state;
		this.painter = null;
		this.svg.replaceChildren();
		this.canvas.hidden = !staged;
		if (!staged) return;
		const { schedule } = staged;
		this.show = {
			frame: this.frame,
			slides: [{ ...staged, view: null }],
			starts_ms: [0],
			content_ms: schedule.length_ms,
			length_ms: schedule.length_ms + 1,
			end: "hold",
			media: this.state.media(),
			music: [],
		};
		this.painter = new Painter(/** @type {any} */ (this.svg), this.show);
		this.svg.setAttribute(
			"aria-label",
			`Slide ${staged.name || "without a name"}. ${staged.words}. Arrow keys go from object to object.`,
		);
		this.fit();
		this.paint();
		this.byId = new Map([...this.svg.querySelectorAll("[data-object]")].map((node) => [node.dataset.object, node]));
		for (const item of this.state.slide.objects) {
			const node = this.byId.get(item.id);
			if (item.aside) node?.setAttribute("display", "none");
			if (item.id === this.writing) for (const line of this.wordsOf(item)) line.setAttribute("display", "none");
			if (item.locked) node?.setAttribute("data-locked", "");
		}
		this.drawFrames();
	}

	/** During a drag on the score or in the list, the slide at the playhead as it would be. */
	tryTimes() {
		if (!this.painter) return;
		const { schedule, motions } = this.state.trial?.viewing?.staged ?? this.state.staged;
		Object.assign(this.show.slides[0], { schedule, motions });
		Object.assign(this.show, { content_ms: schedule.length_ms, length_ms: schedule.length_ms + 1 });
		this.paint();
	}

	/** The slide's own clock at the playhead. During its transition, the slide stands as before beat 0. */
	slideMs() {
		const { staged } = this.state;
		const start = this.state.data.starts_ms[staged.id] ?? 0;
		return Math.max(this.state.playheadMs - start, staged.schedule.transition_ms);
	}

	paint() {
		if (!this.painter) return;
		const last = this.show.slides[0].schedule.length_ms;
		this.painter.paint(frameStateAt(this.show, Math.min(this.slideMs(), last)));
		this.drawFrames();
	}

	drawFrames() {
		if (!this.scale) return;
		if (this.writing) this.overlay.replaceChildren();
		else this.frames.draw(this.scale, (/** @type {string} */ id) => this.placeOf(id)?.dataset.away === "yes");
		if (!this.writing) this.drawMore();
	}

	drawMore() {
		for (const { there, part } of this.drawn) {
			if (part.ready) part.ready.draw(this.scale);
			else if (there()) part.get().then(() => this.drawFrames());
		}
	}

	/** Moves the selection with the pointer. */
	drag(/** @type {StageEvent} */ event, press = /** @type {(() => void) | null} */ (null)) {
		begin(this.hands, (moving) => moving.drag(event, press));
	}

	async moveBy(/** @type {number} */ dx, /** @type {number} */ dy) {
		(await this.hands.get()).moveBy(this.picked(), dx, dy);
	}

	/** Starts the pen. @param {string} kind "free" or "points" */
	async draw(kind) {
		const { Pen } = await import("./pen.js");
		this.pen ??= new Pen(this);
		this.pen.start(kind);
	}

	placeOf(/** @type {string} */ objectId) {
		return this.byId?.get(objectId) ?? null;
	}

	/** The parts that show an object's text: all of a text, the paragraphs of a shape. */
	wordsOf(/** @type {Core.SlideObject} */ item) {
		const place = this.placeOf(item.id);
		return !place ? [] : !item.form ? [place] : [...place.querySelectorAll("[data-part]")];
	}

	/** An object's box on the stage: its own, or as high as its lines where it grows with them. */
	boxOf(/** @type {Core.SlideObject} */ item) {
		if (item.overflow !== "grow") return item.box;
		const drawn = this.state.staged.drawing.objects.find((entry) => entry.object_id === item.id);
		return drawn ? { ...item.box, height: drawn.height } : item.box;
	}

	/** The selected objects, from the back. */
	picked() {
		return this.state.slide?.objects.filter((item) => this.state.picked.has(item.id)) ?? [];
	}

	point(/** @type {MouseEvent} */ event) {
		const box = this.svg.getBoundingClientRect();
		return { x: (event.clientX - box.left) / this.scale, y: (event.clientY - box.top) / this.scale };
	}

	readyToWrite() {
		return words.get();
	}

	/** @param {Core.SlideObject} item @param {string} typed what was typed before it was open */
	async editWords(item, typed = "") {
		// Nobody has to wait for the editor to type.
		const held = words.ready ? () => "" : heldKeys();
		const { editWords } = await words.get();
		editWords(this, item, typed + held());
	}
}
