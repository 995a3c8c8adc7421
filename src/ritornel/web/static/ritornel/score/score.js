// The score: the whole show along one line. Only the visible part is drawn, so a show of any length scrolls equally
// fast.
import { el, icon, svg } from "../ui/element.js";
import { OTHER_WAY } from "../editor/show-state.js";
import { begin, later } from "../ui/lazy-modules.js";
import { Thumbs } from "../ui/thumbs.js";
import { clockText } from "../ui/times.js";
import { countWords } from "../ui/wording.js";
import { armBuild, drawBar } from "./bars.js";
import { RULER, VOICES_PX, barLines, patterns, playhead, rulerColumn, snapLine, staffLines } from "./lines.js";
import { MARKS_PX, drawMarks } from "./marks.js";
import { Sheet, alike } from "./sheet.js";
import { Ties } from "./ties.js";
import { Waves } from "./waves.js";
import { MOST_PX_S, Scale } from "./scale.js";

const SLIDES = 70;
const TAIL_PX = 120;
const STEP_PX = 200;
const AHEAD_STEPS = 4;
// Beneath what is drawn lies a ground of twice this width, though it shows nothing: a browser paints a picture anew
// when its left edge moves.
const GROUND_PX = 8000;
const LEAST_READABLE_PX_S = 8;
const MOST_AT_FIRST_PX_S = 60;
// Zooming: what is drawn is stretched within these bounds, until it has rested so long; bars are drawn ahead for so
// much of a frame, in which a hand zooms or rests.
const [LEAST_STRETCH, MOST_STRETCH] = [0.45, 2.4];
const REST_MS = 90;
const AHEAD_MS = { zooming: 1, resting: 2 };
// Longer than between two presses of somebody who zooms on and on.
const PICTURES_REST_MS = 250;
const FRAME_MS = 16.7;
const WALKS = /^(Arrow.*|Home|End|Enter| )$/;

export class Score {
	/** @type {any} */
	reached;
	/** @type {number} */
	resting;
	/** @type {number} */
	zoomedAt;
	/** @type {any} */
	plan;

	/** @param {ShowState} state */
	constructor(state, /** @type {any} */ { names, scroll }) {
		this.state = state;
		this.names = names;
		this.scroll = scroll;
		this.ties = new Ties(state, () => this.draw());
		this.waves = new Waves(
			(id) => state.asset(id)?.derived,
			() => this.draw(),
		);
		this.seen = new Sheet();
		this.next = new Sheet();
		/** @type {import("./walking.js").Walker | null} */
		this.walker = null;
		this.next.node.ariaHidden = "true";
		this.spacer = el(
			"div",
			{ class: "spacer", role: "application", "aria-label": "Bars of the show" },
			svg("svg", {}, patterns()),
			this.next.node,
			this.seen.node,
			(this.cursor = el("div", { class: "score-place", role: "button", tabindex: 0, "aria-label": "Score" })),
		);
		scroll.append(this.spacer);
		// The whole show at once, unless its bars would be too narrow to read.
		const fit = ((scroll.clientWidth - TAIL_PX) * 1000) / Math.max(state.data.length_ms, 1);
		this.scale = new Scale(Math.min(Math.max(fit, LEAST_READABLE_PX_S), MOST_AT_FIRST_PX_S));
		for (const kind of ["show", "pick", "time", "trial"]) state.addEventListener(kind, () => this.draw());
		this.pictured = new Set();
		this.thumbs = new Thumbs(() => this.draw());
		this.pictures = 0;
		scroll.addEventListener("scroll", () => this.scrolling());
		scroll.addEventListener("wheel", (/** @type {WheelEvent} */ event) => this.wheel(event), { passive: false });
		scroll.addEventListener("keydown", (/** @type {KeyboardEvent} */ event) => this.key(event));
		this.walking = later(() => import("./walking.js"));
		this.cursor.addEventListener("focus", () => this.walking.get().then(({ arrive }) => arrive(this)), { once: true });
		new ResizeObserver(() => this.draw()).observe(scroll);
		this.spacer.addEventListener("pointerover", (/** @type {any} */ { target }) => {
			const build = target.closest(".build");
			if (build) armBuild(build);
		});
		this.spacer.addEventListener("pointerdown", (event) => this.press(event));
		this.spacer.addEventListener("dblclick", (/** @type {any} */ event) => {
			if (event.target.dataset.pick === "slide") this.fitSlide(event.target.dataset.slide);
		});
		this.keyButton = el(
			"button",
			{ class: "push bare", "aria-label": "What the signs mean", title: "What the signs mean" },
			"?",
		);
		this.keyButton.addEventListener("click", async () => (await import("./key.js")).openKey());
		this.voices = later(() => import("./voices.js"));
		this.music = later(() => import("./music.js"));
		this.drags = later(() => import("./drags.js"));
		this.drags.near(scroll);
		const touched = (/** @type {PointerEvent} */ event) => {
			if (event.pointerType !== "touch") return;
			scroll.removeEventListener("pointerdown", touched, true);
			begin(
				later(() => import("./pinch.js")),
				({ pinch }) => pinch(this, event),
			);
		};
		scroll.addEventListener("pointerdown", touched, true);
		this.tag = el("div", { class: "number-tag", hidden: true });
		scroll.parentElement.append(this.tag);
		document.fonts.ready.then(() => this.draw());
	}

	get rows() {
		const height = this.scroll.clientHeight;
		const music = Math.max(30, Math.min(46, height * 0.15));
		const head = RULER + (this.state.data.marks.length ? MARKS_PX : 0);
		const voices = this.state.data.voices.length ? VOICES_PX : 0;
		const builds = Math.max(48, height - head - SLIDES - voices - music);
		const under = head + SLIDES + builds;
		return {
			slides: { top: head, height: SLIDES },
			builds: { top: head + SLIDES, height: builds },
			voices: { top: under, height: voices },
			music: { top: under + voices, height: music },
			bottom: under + voices + music,
		};
	}

	draw() {
		this.plan = null;
		this.goOn();
	}

	/** Draws in the next frame, where nothing but the view has changed. */
	goOn() {
		this.drawing ||= requestAnimationFrame(() => {
			this.drawing = 0;
			this.drawNow();
		});
	}

	/** Draws the present show, or during a drag the show as it would be. */
	drawNow() {
		const { state } = this;
		const real = state.data;
		state.data = state.trial ?? real;
		try {
			this.drawShow();
		} finally {
			state.data = real;
		}
	}

	/**
	 * Draws more than the visible part, in steps, so that most scrolling moves a finished sheet and draws nothing.
	 */
	reach(scale = this.scale) {
		const by = scale.pxPerS / this.scale.pxPerS;
		const [left, width] = [this.scroll.scrollLeft * by, this.scroll.clientWidth * by];
		return {
			left,
			width,
			from: Math.floor(left / STEP_PX - AHEAD_STEPS) * STEP_PX,
			to: Math.ceil((left + width) / STEP_PX + AHEAD_STEPS) * STEP_PX,
		};
	}

	outOfFrameState() {
		const now = this.reach();
		if (this.stretched === 1)
			return /** @type {(keyof View)[]} */ (["from", "to"]).some((name) => now[name] !== this.reached?.[name]);
		return (
			now.left < (this.reached.from - STEP_PX / 2) * this.stretched ||
			now.left + now.width > (this.reached.to + STEP_PX / 2) * this.stretched
		);
	}

	scrolling() {
		// Pictures of slides are asked for when the hand rests: while hundreds fly by, nobody sees them, and every one
		// would have to be drawn.
		clearTimeout(this.pictures);
		this.pictures = setTimeout(() => {
			this.pictures = 0;
			this.bringPictures();
		}, PICTURES_REST_MS);
		if (!this.outOfFrameState()) return;
		this.scrolled = !this.drawing || this.scrolled;
		this.goOn();
	}

	bringPictures() {
		for (const image of this.seen.node.querySelectorAll("image[data-href]")) {
			this.pictured.add(image.dataset.href);
			image.setAttribute("href", image.dataset.href);
			delete image.dataset.href;
		}
	}

	/** The factor between the present scale and the scale of the drawing. */
	get stretched() {
		return this.scale.pxPerS / (this.drawnPxPerS ?? this.scale.pxPerS);
	}

	/**
	 * Zooming stretches the drawing, which costs nothing; it is drawn again when the hand rests, or where that would
	 * be too coarse.
	 */
	stretch() {
		const by = this.stretched;
		const still = by === 1 || !this.reached;
		this.seen.node.style.transform = still ? "" : `scaleX(${by})`;
		const urgent = by < LEAST_STRETCH || by > MOST_STRETCH || this.outOfFrameState();
		// A frame that zooms has enough to do; only where every frame does, what is wanted is made ready in them all the
		// same.
		this.resting = still ? 0 : performance.now() + (urgent ? (this.once ? FRAME_MS / 2 : 0) : REST_MS);
		if (!still) this.goOn();
	}

	drawShow() {
		const { state, rows } = this;
		const { data } = state;
		if (this.resting > performance.now()) {
			this.goOn();
			return;
		}
		if (this.stretched === 1) {
			/** @type {Scale | null} */
			this.goal = null;
			if (!this.next.empty) this.next.clear();
		}
		// What a zoom needs is made ready over several frames, in the scale it had when that began, however the hand goes
		// on; unless it comes back to what is seen.
		const scale = (this.goal ??= this.scale);
		const reached = this.reach(scale);
		const { left, width } = reached;
		const view = {
			from: Math.max(reached.from, 0),
			to: Math.min(reached.to, Math.max(scale.x(data.length_ms) + TAIL_PX, width)),
			left,
		};
		// What is made ready over several frames is reckoned up in the first of them.
		if (!alike(this.plan, [scale, view.from, view.to]))
			this.plan = { looks: [scale, view.from, view.to], wanted: this.wanted(scale, rows, view) };
		const { wanted } = this.plan;
		const focused = this.seen.node.contains(document.activeElement) ? document.activeElement?.dataset.build : null;
		const zoomed = this.stretched !== 1;
		// While it is zoomed or scrolled, what is seen stays good until the new pieces are there.
		const good = zoomed || (this.scrolled && left >= this.reached?.from && left + width <= this.reached?.to);
		const now = performance.now();
		const end = good ? now + AHEAD_MS[now - this.zoomedAt < 3 * FRAME_MS ? "zooming" : "resting"] : Infinity;
		if (!(zoomed ? this.next : this.seen).show(wanted, end)) {
			this.goOn();
			return;
		}
		if (zoomed) this.turn();
		this.goal = null;
		this.scrolled = false;
		this.reached = reached;
		this.drawnPxPerS = scale.pxPerS;
		this.spacer.style.width = `${Math.max(this.scale.x(data.length_ms) + TAIL_PX, this.scroll.clientWidth)}px`;
		// What was drawn while slides flew by may only be seen now that they rest.
		if (!this.pictures) this.bringPictures();
		this.seen.layers.sounds.replaceChildren(...(this.music.ready?.drawAll(state, rows.music, scale, view) ?? []));
		this.seen.layers.over.replaceChildren(
			...drawMarks(state, data, scale, view, { top: RULER + 1, bottom: rows.bottom }),
			...this.signs(scale, rows),
		);
		// Only where its bar was drawn anew has the focus been lost.
		if (focused && !this.seen.node.contains(document.activeElement))
			this.seen.node.querySelector(`.build[data-build="${CSS.escape(focused)}"]`)?.focus({ preventScroll: true });
		this.drawNames(rows);
		this.stretch();
	}

	/** Shows the prepared sheet; the old one is removed in a later frame. */
	turn() {
		[this.seen, this.next] = [this.next, this.seen];
		this.seen.node.ariaHidden = null;
		this.next.node.ariaHidden = "true";
		this.next.node.style.transform = "";
		this.goOn();
	}

	/** The playhead, and the event that a drag has snapped to. */
	signs(/** @type {Scale} */ scale, /** @type {Rows} */ rows) {
		const {
			lineMs,
			state: { playheadMs },
		} = this;
		const line = lineMs === null || lineMs === undefined ? [] : [snapLine(scale.x(lineMs), lineMs, rows.bottom)];
		return [...line, ...playhead(scale.x(playheadMs), playheadMs, rows.bottom)];
	}

	/** All visible pieces, by their layer: those of slides, and those of columns one step wide. */
	wanted(/** @type {Scale} */ scale, /** @type {Rows} */ rows, /** @type {View} */ view) {
		const { state } = this;
		const { data } = state;
		const bars = this.wantedBars(scale, rows, view);
		const px = scale.pxPerS;
		const inView = (/** @type {number} */ x1, /** @type {number} */ x2) => x2 >= view.from && x1 <= view.to;
		const last = state.shown.at(-1);
		const lines = bars.map(({ id, bar: { line, x, width, number, cued } }) => ({
			id,
			looks: [px, rows.bottom, rows.slides.top, line, x, number === 1, id === last, data.settings.end, cued],
			draw: () => barLines(line, x, x + width, rows, number === 1, id === last ? data.settings.end : null, cued),
		}));
		const columns = [];
		for (let from = Math.floor(view.from / STEP_PX) * STEP_PX; from < view.to; from += STEP_PX) columns.push(from);
		const base = (Math.floor(view.from / GROUND_PX) - 0.5) * GROUND_PX;
		const ground = {
			id: "ground",
			looks: [base, rows.bottom],
			draw: () => [
				svg("rect", {
					x: base,
					y: 0,
					width: GROUND_PX * 2,
					height: rows.bottom,
					fill: "transparent",
					"pointer-events": "none",
				}),
			],
		};
		const staff = columns.map((from) => ({
			id: String(from),
			looks: [rows.bottom, rows.builds.top, rows.voices.top, rows.music.top],
			draw: () => staffLines(rows, from, from + STEP_PX),
		}));
		const ruler = columns.map((from) => ({
			id: String(from),
			looks: [px],
			draw: () => rulerColumn(scale, from, STEP_PX),
		}));
		const { ready: music } = this.music;
		const waves = columns.flatMap((from) =>
			(music ? data.music : []).flatMap((span) => {
				if (scale.x(span.end_ms) <= from || scale.x(span.start_ms) >= from + STEP_PX) return [];
				const [found, picked] = [this.waves.of(span.asset_id, px), state.pickedSpan === span.span_id];
				const lane = music.laneOf(data.music, span, rows.music);
				return [
					{
						id: `${span.span_id} ${from}`,
						looks: [px, ...Object.values(lane), span, found, picked],
						draw: () => music.drawPasses(span, lane, scale, from, from + STEP_PX, found, picked),
					},
				];
			}),
		);
		const { ready: drawn } = this.voices;
		for (const kind of /** @type {const} */ (["voices", "music"]))
			if (data[kind].length && !this[kind].ready) this[kind].get().then(() => this.draw());
		const voices = (drawn ? data.voices : []).flatMap((voice) => {
			const [x1, x2] = [scale.x(voice.start_ms), scale.x(voice.start_ms + voice.lasts_ms)];
			if (!inView(x1, x2)) return [];
			const [line, found, name, from, to] = [
				data.slides[state.shown[voice.index]],
				this.waves.of(voice.asset_id, px),
				state.asset(voice.asset_id)?.name ?? "Voice",
				Math.max(x1, view.from),
				Math.min(x2, view.to),
			];
			return [
				{
					id: voice.id,
					looks: [px, rows.voices.top, voice, line, found, name, from, to],
					draw: () => [drawn.drawVoice(voice, line, rows.voices, scale, from, to, found, name)],
				},
			];
		});
		// First what reaches over the whole width, and bars last: each of them has no more painted anew than its own place.
		return { staff: [ground, ...staff], lines, ruler, waves, voices, bars };
	}

	/** The bars of the visible slides, each with everything its look depends on. */
	wantedBars(/** @type {Scale} */ scale, /** @type {Rows} */ rows, /** @type {View} */ view) {
		const { state } = this;
		const { data } = state;
		const same = [scale.pxPerS, rows.bottom, rows.builds.top, rows.builds.height, state.pickedBuild];
		return data.order.flatMap((id) => {
			const line = data.slides[id];
			if (line.skipped) return [];
			const x = scale.x(data.starts_ms[id]);
			const width = scale.x(line.schedule.length_ms);
			if (x + width < view.from - 20 || x > view.to + 20) return [];
			const thumb = this.thumbs.of(line, !this.pictures);
			const bar = {
				line,
				thumb,
				pictured: !this.pictures || this.pictured.has(thumb),
				number: data.numbers[id],
				x,
				width,
				current: id === state.slide?.id,
				picked: state.pickedSlides.has(id),
				slurPx: scale.x(line.schedule.transition_ms),
				cued: state.waitsToLeave(id),
				waits: state.waitsOf(id),
			};
			const ties = this.ties.of(line);
			const looks = [
				...same,
				line,
				thumb,
				x,
				bar.number,
				bar.current,
				bar.picked,
				bar.cued,
				bar.current ? [...state.picked].join() : "",
				ties,
			];
			return [{ id, bar, looks, draw: () => drawBar(bar, rows, scale, state, ties) }];
		});
	}

	/** The event that a drag has snapped to. */
	showLine(/** @type {number | null} */ ms) {
		if (ms === this.lineMs) return;
		/** @type {number | null} */
		this.lineMs = ms;
		this.draw();
	}

	drawNames(/** @type {Rows} */ rows) {
		const { data } = this.state;
		// Drawn anew only where it says something else: a button in it would lose its focus.
		const said = JSON.stringify([
			rows,
			data.order.length,
			data.length_ms,
			this.state.way,
			data.settings.follows_take,
			data.settings.runs,
			data.voices.length,
			data.music,
			data.lost_spans,
			data.order.map((id) => [data.slides[id].schedule.beats.length, data.slides[id].skipped]),
		]);
		if (said === this.namesSaid) return;
		/** @type {string} */
		this.namesSaid = said;
		const waits = this.state.shown.reduce((sum, id) => sum + this.state.waitsOf(id), 0);
		const place = (/** @type {number} */ top, /** @type {string} */ title, /** @type {any[]} */ ...facts) => {
			const node = el(
				"div",
				{},
				el("b", {}, title),
				facts.map((fact) => el("span", {}, fact)),
			);
			node.style.top = `${top}px`;
			return node;
		};
		const zoom = el(
			"div",
			{ class: "row" },
			el(
				"button",
				{
					class: "push bare mr-auto",
					"aria-label": "Set a mark at the playhead",
					title: "Set a mark at the playhead",
					onclick: async () => (await import("./openings.js")).addMark(this.state),
				},
				icon("flag"),
			),
			this.keyButton,
			el(
				"button",
				{
					class: "push bare",
					"aria-label": "See more of the show",
					title: "See more (−)",
					onclick: () => this.zoom(1 / 1.5),
				},
				"−",
			),
			el(
				"button",
				{ class: "push bare", "aria-label": "See it larger", title: "Larger (+)", onclick: () => this.zoom(1.5) },
				"+",
			),
		);
		zoom.style.top = "-2px";
		const music = data.music.length
			? `${data.music.length === 1 ? (this.state.asset(data.music[0].asset_id)?.name ?? "") : `${data.music.length} stretches`}`
			: "none";
		this.names.replaceChildren(
			zoom,
			place(
				rows.slides.top + 8,
				"Slides",
				this.timesButton(`${countWords(this.state.shown.length, "slide")} · ${clockText(data.length_ms)}`),
				this.wayButton(),
			),
			place(
				rows.builds.top + 8,
				"Builds",
				countWords(waits, "wait"),
				data.settings.follows_take ? `follow ${data.settings.follows_take}` : "",
			),
			...(data.voices.length ? [place(rows.voices.top + 5, "Voices")] : []),
			place(rows.music.top + 4, "Music", data.lost_spans.length ? "a stretch has no slide left" : music),
		);
	}

	timesButton(/** @type {string} */ words) {
		const open = async () => (await import("./times-table.js")).openTimes(this.state, this.ties);
		return el("button", { class: "link times", title: "All times as a table", onclick: open }, words);
	}

	/** Shows one way the show can run, or the other. */
	wayButton() {
		const { way } = this.state;
		const other = OTHER_WAY[/** @type {keyof typeof OTHER_WAY} */ (way)];
		const own = way === this.state.data.settings.runs;
		return el(
			"button",
			{
				class: "link way",
				"aria-label": `Shown ${way}. Show it ${other}`,
				title: `${own ? "This is how the show runs." : "The show runs the other way."} Press to see it ${other}.`,
				onclick: () => this.state.showWay(other),
			},
			own ? way : `shown ${way}`,
		);
	}

	/** Zooms around the playhead, or around a place in the view. */
	/** @param {number} factor @param {number | null} aroundPx */
	zoom(factor, aroundPx = null) {
		const now = performance.now();
		this.once = now - (this.zoomedAt ?? 0) > 4 * FRAME_MS;
		this.zoomedAt = now;
		const x = this.scale.x(this.state.playheadMs) - this.scroll.scrollLeft;
		const at = aroundPx ?? (x >= 0 && x <= this.scroll.clientWidth ? x : this.scroll.clientWidth / 2);
		const ms = this.scale.ms(this.scroll.scrollLeft + at);
		const least = (this.scroll.clientWidth - TAIL_PX) / Math.max(this.state.data.length_ms / 1000, 1);
		this.scale = new Scale(Math.max(Math.min(this.scale.pxPerS * factor, MOST_PX_S), Math.min(least, 13)));
		this.spacer.style.width = `${Math.max(this.scale.x(this.state.data.length_ms) + TAIL_PX, this.scroll.clientWidth)}px`;
		this.scroll.scrollLeft = this.scale.x(ms) - at;
		this.stretch();
	}

	fitSlide(/** @type {string} */ slideId) {
		const { length_ms: length } = this.state.data.slides[slideId].schedule;
		this.zoom((this.scroll.clientWidth - 160) / (length / 1000) / this.scale.pxPerS);
		this.scroll.scrollLeft = this.scale.x(this.state.data.starts_ms[slideId]) - 60;
	}

	wheel(/** @type {WheelEvent} */ event) {
		if (!event.ctrlKey && !event.metaKey) return;
		event.preventDefault();
		this.zoom(1.0025 ** -event.deltaY, event.clientX - this.scroll.getBoundingClientRect().left);
	}

	key(/** @type {KeyboardEvent} */ event) {
		const { key, altKey: alt, shiftKey: shift, target: from } = event;
		if (event.ctrlKey || event.metaKey) return;
		// Delete removes what is picked; elsewhere it first picks what has the keyboard.
		if (key === "Delete") {
			if (!(this.walker ? this.walker.keeps(from) : from === this.cursor)) return;
		} else if (key === "+" || key === "=") this.zoom(1.5);
		else if (key === "-") this.zoom(1 / 1.5);
		else if (WALKS.test(key)) this.walking.get().then(({ walk }) => walk(this, key, { alt, shift, from }));
		else return;
		event.preventDefault();
		event.stopPropagation();
	}

	/** Scrolls a slide's bar into view. */
	reveal(/** @type {string} */ slideId) {
		const x = this.scale.x(this.state.data.starts_ms[slideId] ?? 0);
		const end = x + this.scale.x(this.state.data.slides[slideId].schedule.length_ms);
		const { scrollLeft: left, clientWidth: width } = this.scroll;
		if (x < left || end > left + width) this.scroll.scrollLeft = Math.max(0, x - 40);
	}

	async pickNode(/** @type {any} */ node, event = /** @type {any} */ ({})) {
		const { pick, slide, build, span, mark } = node.dataset;
		if (pick === "slide" && (event.shiftKey || event.ctrlKey || event.metaKey))
			(await import("./openings.js")).pickSeveral(this.state, slide, event);
		else if (pick === "slide") {
			this.state.pick([]);
			await this.state.open(slide);
		} else if (pick === "build") {
			if (this.state.slide?.id !== slide) await this.state.open(slide);
			this.state.pickBuild(this.state.build(build));
		} else if (["transition", "tie", "wait", "notes", "end"].includes(pick))
			(await import("./openings.js")).openFrom(this.state, node.dataset);
		else if (pick === "mark") this.state.pick([], { mark });
		else this.state.pick([], { span });
	}

	press(/** @type {PointerEvent} */ event) {
		if (event.button !== 0) return;
		// A finger was not there before it pressed: what it presses may only just have come. What is only made ready is
		// beneath and cannot be pressed.
		const target =
			document.elementsFromPoint(event.clientX, event.clientY).find((node) => !this.next.node.contains(node)) ??
			/** @type {any} */ (event.target);
		const [handle, node] = ["[data-drag]", "[data-pick]"].map((kind) => target.closest(kind));
		if (handle) {
			event.preventDefault();
			begin(this.drags, ({ dragOn }) =>
				dragOn(this, handle, event, () => {
					if (node) this.pickNode(node, event);
				}),
			);
		} else if (node) this.pickNode(node, event);
		else this.state.pick([]);
	}

	/**
	 * Words beside the pointer; none takes them away.
	 * @param {string} words
	 * @param {any} [event] where the pointer is
	 */
	showNumber(words, event) {
		this.tag.textContent = words;
		this.tag.hidden = !words;
		if (!words) return;
		const box = this.scroll.parentElement.getBoundingClientRect();
		this.tag.style.left = `${Math.min(event.clientX - box.left + 14, box.width - 150)}px`;
		this.tag.style.top = `${event.clientY - box.top - 30}px`;
	}
}
