// Previews, and playing a stretch on the stage: what is shown here is never saved.
import { newId } from "../ui/element.js";
import { post } from "../ui/requests.js";
import { Painter } from "../player/painter.js";
import { frameStateAt } from "../player/frame-state.js";

const AFTER_MS = 500;

export class Preview {
	/** @type {number} */
	request;

	/** @param {Stage} stage */
	constructor(stage) {
		this.stage = stage;
		this.state = stage.state;
		this.asked = 0;
		this.state.addEventListener("show", () => this.stop());
		this.state.addEventListener("preview", (event) => this.show(event.detail));
		this.state.addEventListener("preview end", () => this.stop());
	}

	/** Shows builds on the slide as they would be. @param {object[]} builds without ids */
	async show(builds) {
		const asked = (this.asked += 1);
		this.wanted = true;
		const body = { slide_id: this.state.slide.id, builds: builds.map((build) => ({ ...build, id: newId() })) };
		const staged = await post(`${this.state.base}/preview`, body).catch(() => null);
		if (!staged || !this.wanted || asked !== this.asked) return;
		const { schedule } = staged;
		/** @type {any} */
		const show = {
			frame: this.stage.frame,
			slides: [{ ...staged, view: null }],
			starts_ms: [0],
			content_ms: schedule.length_ms,
			length_ms: schedule.length_ms + 1,
			end: "hold",
			media: this.state.media(),
			music: [],
		};
		this.stage.svg.replaceChildren();
		const painter = new Painter(/** @type {any} */ (this.stage.svg), show);
		const begin = schedule.transition_ms;
		const runs = schedule.beats.at(-1).end_ms - begin;
		const from = performance.now();
		const step = () => {
			const ms = performance.now() - from;
			painter.paint(frameStateAt(show, begin + (ms % (runs + AFTER_MS))));
			this.request = requestAnimationFrame(step);
		};
		cancelAnimationFrame(this.request);
		this.request = requestAnimationFrame(step);
		this.showing = true;
	}

	stop() {
		this.wanted = false;
		this.asked += 1;
		cancelAnimationFrame(this.request);
		if (!this.showing) return;
		this.showing = false;
		this.stage.rebuild();
	}
}

/** Runs the playhead over a stretch of the slide; the stage follows. A press or key stops it. */
export class Run {
	/** @type {number} */
	request;

	/** @param {ShowState} state */
	constructor(state) {
		this.state = state;
		addEventListener(
			"pointerdown",
			(event) => {
				if (!event.target?.closest?.("[data-run]")) this.stop();
			},
			true,
		);
		addEventListener("keydown", () => this.stop(), true);
	}

	start(/** @type {number} */ fromMs, /** @type {number} */ toMs) {
		this.stop();
		const began = performance.now();
		const step = () => {
			const at = fromMs + performance.now() - began;
			this.state.setPlayhead(Math.min(at, toMs));
			if (at < toMs) this.request = requestAnimationFrame(step);
			else this.request = 0;
		};
		this.request = requestAnimationFrame(step);
	}

	get running() {
		return Boolean(this.request);
	}

	stop() {
		cancelAnimationFrame(this.request);
		this.request = 0;
	}
}
