// A show being played: self-running by its schedule, or live by presses; on the audio clock where there is sound.
import { Clock } from "./clock.js";
import {
	arrive,
	back,
	cue,
	goesOnAtMs,
	goOn,
	liveFrameState,
	nextCueId,
	nextStep,
	stand,
	standReady,
	waitsSinceMs,
} from "./live.js";
import { Painter } from "./painter.js";
import { PressedClips } from "./pressed-clips.js";
import { stopPressed } from "./presses.js";
import { momentAt, frameStateAt } from "./frame-state.js";
import { Sound } from "./sound.js";

// Two screens of one run that are further apart than this are brought together.
const APART_MS = 60;

/**
 * Events: "painted" (detail: the frame state), "moment" when slide or beat changed, "cued" (detail: cue id and how
 * long its wait was open), "arrived" (detail: slide id), "end", "acted" after every act of a person on this run.
 */
export class ShowPlayer extends EventTarget {
	/** @type {Clock} */
	clock;
	/** @type {number} */
	request;

	/**
	 * @param {PlayedShow} show
	 * @param {SVGSVGElement} surface
	 * @param {{mode: "self-running"|"on cue", loops?: boolean, card?: AudioContext | null}} options `card`: a sound card
	 * whose
	 * clock it keeps though nothing is heard from it
	 */
	constructor(show, surface, { mode, loops = false, card = null }) {
		super();
		/** @type {PlayedShow} */
		this.show = loops && show.content_ms ? { ...show, end: "loop", length_ms: show.content_ms } : show;
		if (show.language) surface.setAttribute("lang", show.language);
		this.mode = mode;
		this.card = card;
		this.painter = new Painter(surface, this.show, { pressed: true });
		this.pressed = new PressedClips(this);
		const heard =
			this.show.music.length ||
			this.show.slides.some((slide) => Object.keys(slide.clips ?? {}).length) ||
			this.show.effects?.length ||
			(this.show.voices?.length && (mode === "self-running" || this.show.voices_live));
		this.audio = heard ? new AudioContext({ sampleRate: 48_000 }) : null;
		this.sound = this.audio ? new Sound(this.show, this.audio) : null;
		this.black = false;
		this.running = false;
		this.heardMs = 0;
		this.state = null;
		this.leaving = null;
		/** A live run that waits at its first slide until somebody begins. */
		this.ready = false;
		/** The first slide of the run. */
		this.first = 0;
	}

	get live() {
		return this.mode === "on cue";
	}

	/** Whether the browser allows sound now. */
	async mayBeHeard() {
		if (!this.audio) return true;
		this.audio.resume().catch(() => undefined);
		// A browser that wants a press first leaves the promise open; its state tells within a moment.
		for (let tries = 0; tries < 10 && this.audio.state !== "running"; tries += 1)
			await new Promise((done) => {
				setTimeout(done, 20);
			});
		return this.audio.state === "running";
	}

	/**
	 * Begins at a slide (0: the show's start). Call it from a press where the browser requires one for sound. A live
	 * run may stand `ready` there, its clock at 0, until `start` is called.
	 */
	async begin(index = 0, { ready = false } = {}) {
		const soon = this.show.starts_ms[index + 1] ?? Infinity;
		await Promise.race([
			Promise.all([this.sound?.ready(this.live ? Infinity : soon), this.painter.ready(index), document.fonts.ready]),
			new Promise((done) => {
				setTimeout(done, 4000);
			}),
		]);
		this.audio?.resume().catch(() => undefined);
		this.clock = new Clock(this.audio ?? this.card);
		/** @type {number} */
		this.returns = 0;
		this.running = true;
		this.first = index;
		if (ready) {
			this.clock.set(0);
			this.clock.pause();
			this.clock.set(0);
			this.ready = true;
			this.take(standReady(this.show, index, 0), false);
		} else if (this.live) this.take(arrive(this.show, index, 0), true);
		else {
			this.clock.set(this.show.starts_ms[index]);
			this.sound?.seek(this.clock.now());
		}
		if (!ready)
			this.dispatchEvent(new CustomEvent("arrived", { detail: { slide_id: this.show.slides[index].id, at_ms: 0 } }));
		this.frame();
	}

	/** Starts the run that stood ready: its clock, and the sounds of the slide. */
	start() {
		if (!this.ready) return;
		this.ready = false;
		this.clock.resume();
		this.sound?.arrive(this.state.index);
		this.dispatchEvent(new Event("started"));
		this.dispatchEvent(
			new CustomEvent("arrived", { detail: { slide_id: this.show.slides[this.state.index].id, at_ms: 0 } }),
		);
		this.paint();
		this.acted();
	}

	/**
	 * After the device slept: its sound card may be gone. Resolves to whether the show can be heard again; until then
	 * it goes on in silence.
	 */
	async wake() {
		return this.running ? this.mayBeHeard() : true;
	}

	stop() {
		this.running = false;
		cancelAnimationFrame(this.request);
		stopPressed(this);
		this.sound?.stop();
		this.audio?.close().catch(() => undefined);
	}

	frame() {
		if (!this.running) return;
		this.request = requestAnimationFrame(() => this.frame());
		const now = this.clock.now();
		if (this.live) {
			if (this.clock.paused === null) this.goOnAlone(now);
			this.sound?.ahead();
		} else if (this.clock.paused === null) {
			const at = this.timeMs();
			if (at < this.heardMs) this.sound?.endPass();
			this.heardMs = at;
			if (this.clock.returns !== this.returns) this.sound?.seek(at);
			else this.sound?.follow(at);
			this.returns = this.clock.returns;
		}
		this.paint(now);
	}

	/**
	 * Live: everything that has gone on by itself until now. A pass of a looping show lasts at least a frame, and
	 * time asleep is not made up.
	 * @param {any} now
	 */
	goOnAlone(now) {
		let passed = 0;
		// A clip that a press plays keeps its slide until it ends.
		for (
			let due = goesOnAtMs(this.show, this.state);
			due !== null && due <= now && !this.pressed.running;
			due = goesOnAtMs(this.show, this.state)
		) {
			passed += 1;
			const next = goOn(this.show, this.state, passed > this.show.slides.length ? now : due);
			this.take(next, !next.over, next.began_ms);
			if (passed > this.show.slides.length) break;
		}
	}

	/** The playhead of a self-running show, within its length. */
	timeMs() {
		const now = this.clock.now();
		return this.show.end === "loop" && this.show.length_ms
			? now % this.show.length_ms
			: Math.min(now, this.show.length_ms);
	}

	paint(now = this.clock.now()) {
		const frameState = this.live
			? liveFrameState(this.show, this.state, now, this.leaving)
			: frameStateAt(this.show, this.show.end === "loop" ? now : this.timeMs(), now < this.show.length_ms);
		if (this.black) frameState.blackness = 1;
		const moment = this.moment(now);
		this.pressed.show(frameState, moment.index, now);
		this.painter.paint(frameState);
		this.dispatchEvent(new CustomEvent("painted", { detail: frameState }));
		const key = `${moment.index}/${moment.beat}/${moment.phase}`;
		if (key !== this.seen) {
			if (moment.index !== this.seenIndex) {
				this.seenIndex = moment.index;
				stopPressed(this);
				this.pressed.stop();
				const next = moment.index + 1;
				if (next < this.show.slides.length) this.painter.ready(next);
			}
			/** @type {string} */
			this.seen = key;
			this.dispatchEvent(new CustomEvent("moment", { detail: moment }));
			if (moment.phase === "over") this.dispatchEvent(new Event("end"));
		}
	}

	moment(now = this.clock.now()) {
		if (!this.live) return momentAt(this.show, this.show.end === "loop" ? now : this.timeMs());
		const { index, beat, began_ms: began, over } = this.state;
		const phase = over
			? "over"
			: this.ready
				? "ready"
				: waitsSinceMs(this.show, this.state, now) !== null
					? "wait"
					: nextStep(this.show, this.state) === "nothing"
						? "rest"
						: "beat";
		return { index, beat, slide_ms: now - began, phase };
	}

	/**
	 * Live: sets a new state; `arrived` for a new visit to a slide.
	 * @param {any} state
	 * @param {any} arrived
	 * @param {number} [atMs]
	 */
	take(state, arrived, atMs = this.clock.now()) {
		const before = this.state;
		if (arrived && before) {
			const frameState = liveFrameState(this.show, before, atMs, null);
			this.leaving = frameState.layers.find((layer) => layer.index === before.index) ?? null;
		}
		this.state = state;
		if (before) this.sound?.endClips(state.index, state.beat);
		if (arrived && !state.over) this.sound?.arrive(state.index);
		if (arrived && before && !state.over)
			this.dispatchEvent(
				new CustomEvent("arrived", { detail: { slide_id: this.show.slides[state.index].id, at_ms: atMs } }),
			);
	}

	acted() {
		this.dispatchEvent(new Event("acted"));
	}

	/** The position of a run on cue, for another screen. */
	snapshot() {
		return {
			state: this.state,
			now_ms: this.clock.now(),
			paused: this.paused,
			ready: this.ready,
			first: this.first,
			black: this.black,
		};
	}

	/**
	 * Continues at the position of another screen of the same run.
	 * @param {{state: any, now_ms: number, paused: any, ready?: any, first?: number, black: any}} told
	 */
	adopt({ state, now_ms: nowMs, paused, ready = false, first = 0, black }) {
		const before = this.state;
		const begins = this.ready && !ready;
		this.ready = ready;
		this.first = Math.min(first, this.show.slides.length - 1);
		if (ready) {
			this.sound?.stop();
			this.clock.pause();
		} else if (begins) {
			this.clock.set(nowMs);
			this.clock.resume();
		}
		if (paused && !this.paused) this.pause();
		if (this.clock.paused !== null || Math.abs(this.clock.now() - nowMs) > APART_MS) this.clock.set(nowMs);
		if (!paused && this.paused) this.resume();
		this.black = black;
		const arrived = begins || !before || state.index !== before.index || state.began_ms !== before.began_ms;
		this.take(state, arrived && !ready, state.stepped_back ? nowMs : state.began_ms);
		if (!arrived && state.beat > before.beat) this.sound?.soundBeat(state.index, state.beat);
		this.paint();
	}

	/** A press: the next beat. */
	next() {
		if (this.black) {
			this.setBlack(false);
			return;
		}
		if (this.ready) {
			this.start();
			return;
		}
		const now = this.clock.now();
		if (this.live) {
			const cueId = nextCueId(this.show, this.state);
			const waited = waitsSinceMs(this.show, this.state, now) ?? 0;
			const { index } = this.state;
			const before = this.state;
			const state = cue(this.show, before, now);
			if (state === before) return;
			if (cueId)
				this.dispatchEvent(new CustomEvent("cued", { detail: { cue_id: cueId, at_ms: now, waited_ms: waited } }));
			const arrived = state.index !== index || state.began_ms !== before.began_ms;
			this.take(state, arrived, now);
			if (!arrived) this.sound?.soundBeat(state.index, state.beat);
			this.paint(now);
			this.acted();
			return;
		}
		const stops = this.stops();
		const at = this.timeMs();
		const next = stops.find((ms) => ms > at + 1);
		if (next !== undefined) this.seek(next);
	}

	/** One beat back. */
	previous() {
		if (this.ready) return;
		const now = this.clock.now();
		if (this.live) {
			const state = back(this.show, this.state, now);
			if (state !== this.state) {
				this.take(state, state.index !== this.state.index, now);
				this.paint(now);
				this.acted();
			}
			return;
		}
		// Within the first moments of a beat a press means the beat before, else the start of this one.
		const at = this.timeMs();
		this.seek(
			this.stops()
				.filter((ms) => ms < at - 700)
				.at(-1) ?? 0,
		);
	}

	/** The starts of all beats on the self-running show's clock. */
	stops() {
		return this.show.slides.flatMap((slide, index) =>
			slide.schedule.beats.map((beat, number) => this.show.starts_ms[index] + (number ? beat.start_ms : 0)),
		);
	}

	/** @param {number} index */
	goTo(index) {
		const at = Math.max(0, Math.min(index, this.show.slides.length - 1));
		const now = this.clock.now();
		if (this.ready) {
			this.first = at;
			this.take(standReady(this.show, at, 0), false);
			this.paint(now);
			this.acted();
		} else if (this.live) {
			this.take(arrive(this.show, at, now, this.state.index), true, now);
			this.paint(now);
			this.acted();
		} else this.seek(this.show.starts_ms[at]);
	}

	/**
	 * Live: goes to the end of a beat at once, as a step back does.
	 * @param {number} index
	 * @param {number} beat
	 */
	standAt(index, beat) {
		if (this.ready) {
			this.goTo(index);
			return;
		}
		const now = this.clock.now();
		this.take(stand(this.show, index, beat, now), true, now);
		this.paint(now);
		this.acted();
	}

	/** @param {number} ms */
	seek(ms) {
		this.clock.set(Math.max(0, Math.min(ms, this.show.length_ms)));
		this.heardMs = 0;
		if (this.clock.paused === null) this.sound?.seek(this.timeMs());
		this.paint();
	}

	/** The slide whose voice is heard now, and its clock; no slide where voices are off. */
	voicePlace() {
		if (this.live)
			return this.show.voices_live && this.state
				? { index: this.state.index, slideMs: this.clock.now() - this.state.began_ms }
				: { index: -1, slideMs: 0 };
		const { index, slide_ms: slideMs } = momentAt(this.show, this.timeMs());
		return { index, slideMs };
	}

	get paused() {
		return !this.ready && (this.clock?.paused ?? null) !== null;
	}

	pause() {
		if (this.ready) return;
		this.clock.pause();
		this.sound?.stop();
		this.dispatchEvent(new Event("paused"));
		this.acted();
	}

	/** Continues; a self-running show that has ended begins again. */
	resume() {
		if (this.ready) {
			this.start();
			return;
		}
		if (!this.live && this.clock.now() >= this.show.length_ms && this.show.end !== "loop") this.clock.set(0);
		this.clock.resume();
		if (this.live) this.sound?.arrive(this.state.index, this.clock.now() - this.state.began_ms);
		else this.sound?.seek(this.timeMs());
		this.dispatchEvent(new Event("paused"));
		this.acted();
	}

	/** @param {boolean} on */
	setBlack(on) {
		this.black = on;
		this.paint();
		this.acted();
	}
}
