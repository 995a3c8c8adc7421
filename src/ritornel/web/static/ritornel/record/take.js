// One take in progress: the show run by presses on the sound card's clock, the sound between them, and where it goes.
import { arrive, cue } from "../player/live.js";
import { ShowPlayer } from "../player/player.js";
import { roundHalfUp } from "../ui/times.js";
import { piecesOf } from "./pieces.js";

/** Events: "moved" when slide or beat changed, "done" when the last slide was left. */
export class Take extends EventTarget {
	/** @type {number} */
	from;

	/** @param {any} parts show, surface, microphone, camera, courier; `leaving` by slide the cue that leaves it */
	constructor(parts, /** @type {any} */ { id, number, bytes, take }) {
		super();
		this.show = parts.show;
		this.surface = parts.surface;
		this.microphone = parts.microphone;
		this.camera = parts.camera;
		this.courier = parts.courier;
		this.leaving = parts.leaving;
		this.id = id;
		this.number = number;
		this.recordedMs = Math.floor(bytes / 96);
		this.going = false;
		this.laid = false;
		/** @type {Set<string>} */
		this.rivals = new Set();
		this.courier.begin({ id, bytes, take });
		this.resumed = take.events;
		this.player = new ShowPlayer(this.show, this.surface, { mode: "on cue", card: this.microphone.context });
		this.player.addEventListener("arrived", ({ detail }) => this.arrived(detail));
		this.player.addEventListener("cued", ({ detail }) => this.cued(detail));
		this.player.addEventListener("moment", () => this.dispatchEvent(new Event("moved")));
	}

	get events() {
		return this.courier.events;
	}

	/** The recording's clock, in whole ms. */
	get nowMs() {
		return this.going ? Math.max(0, roundHalfUp(this.player.clock.now())) : this.recordedMs;
	}

	get pieces() {
		return piecesOf(this.events, this.nowMs, this.leaving);
	}

	get piece() {
		return this.pieces.at(-1) ?? null;
	}

	/** Stands where it will continue, without running: at a slide's start, or where an earlier part was paused. */
	async lay(/** @type {string} */ slideId) {
		const index = Math.max(
			0,
			this.show.slides.findIndex((/** @type {RecordedSlideLine} */ slide) => slide.id === slideId),
		);
		this.laying = true;
		await this.player.begin(index);
		this.player.pause();
		const last = this.resumed.length ? piecesOf(this.resumed, this.recordedMs, this.leaving).at(-1) : null;
		if (last && !last.whole && last.slide_id === slideId) {
			let state = arrive(this.show, index, last.from_ms);
			for (const ms of Object.values(last.cues).sort((a, b) => a - b)) state = cue(this.show, state, last.from_ms + ms);
			this.player.adopt({ state, now_ms: this.recordedMs, paused: true, black: false });
			this.player.clock.set(this.recordedMs);
			this.laying = false;
		} else {
			this.player.clock.set(this.recordedMs);
			this.laying = false;
			this.player.goTo(index);
		}
		this.laid = true;
		this.player.paint();
		this.dispatchEvent(new Event("moved"));
	}

	/** Continues. */
	go() {
		const from = this.microphone.frame;
		this.from = from - this.recordedMs * 48;
		this.microphone.record(from);
		this.player.clock.set(this.recordedMs);
		this.player.resume();
		this.going = true;
		this.courier.state = "recording";
		if (this.camera.open) {
			if (this.fresh) this.camera.beginPiece(this.piece?.number ?? 0, this.recordedMs);
			else if (this.camera.recorder) this.camera.resume();
			else this.camera.beginPiece(this.piece?.number ?? 0, this.recordedMs);
		}
		this.fresh = false;
	}

	/** Pauses, after the last press at the earliest; resolves when all sound is under way. */
	async pause(state = "paused") {
		if (this.going) {
			const last = this.events.at(-1)?.at_ms ?? 0;
			this.player.pause();
			const atMs = Math.max(roundHalfUp(this.player.clock.now()), last);
			this.going = false;
			this.recordedMs = atMs;
			this.player.clock.set(atMs);
			if (state === "ended") await Promise.all([this.microphone.halt(this.from + atMs * 48), this.camera.endPiece()]);
			else {
				this.camera.pause();
				await this.microphone.halt(this.from + atMs * 48);
			}
		} else if (state === "ended") await this.camera.endPiece();
		this.courier.state = state;
		return this.courier.flush();
	}

	/** Starts the present slide again; what was recorded of it stays. */
	restart() {
		this.player.goTo(this.player.state.index);
	}

	next() {
		if (this.going) this.player.next();
	}

	arrived(/** @type {any} */ { slide_id: slideId, at_ms: atMs }) {
		if (this.laying) return;
		const at = this.going ? Math.max(0, roundHalfUp(atMs)) : this.recordedMs;
		const before = this.events.at(-1);
		// A slide that was arrived at and not yet recorded is arrived at once.
		if (before?.event === "arrived" && before.at_ms === at && !this.going) this.courier.retract();
		this.courier.say({ event: "arrived", slide_id: slideId, at_ms: at });
		if (this.going) this.camera.beginPiece(this.pieces.length - 1, at);
		else this.fresh = true;
	}

	cued(/** @type {any} */ { cue_id: cueId, at_ms: atMs, waited_ms: waitedMs }) {
		this.courier.say({
			event: "cued",
			cue_id: cueId,
			at_ms: Math.max(0, roundHalfUp(atMs)),
			waited_ms: Math.max(0, roundHalfUp(waitedMs)),
		});
		if (cueId === this.leaving[this.show.slides.at(-1).id]) queueMicrotask(() => this.dispatchEvent(new Event("done")));
	}

	leave() {
		this.player.stop();
		this.courier.end();
	}
}
