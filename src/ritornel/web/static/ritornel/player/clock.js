// The show's master clock: the sound card's while sound runs, the computer's otherwise. It never jumps when they
// change.

// A sound card that says it runs but has not moved for so long has stopped: pulled out, or starved.
const STALLED_MS = 400;

export class Clock {
	/** @param {AudioContext|null} audio */
	constructor(audio) {
		/** @type {any} */
		this.audio = audio;
		this.heard = audio?.state === "running";
		this.offset = -this.raw();
		this.paused = null;
		this.moved = { at: -1, seen: 0 };
		/** How often sound has come back: the sounds then have to be placed again. */
		this.returns = 0;
	}

	/** Whether the sound card moves. */
	runs() {
		if (this.audio?.state !== "running") return false;
		const { currentTime: at } = this.audio;
		const seen = performance.now();
		if (at !== this.moved.at) this.moved = { at, seen };
		return seen - this.moved.seen < STALLED_MS;
	}

	raw() {
		return this.heard ? this.audio.currentTime * 1000 : performance.now();
	}

	/** Milliseconds since the clock was made, without paused time. */
	now() {
		if (this.paused !== null) return this.paused;
		const heard = this.runs();
		if (heard !== this.heard) {
			if (heard) this.returns += 1;
			const at = this.raw() + this.offset;
			this.heard = heard;
			this.offset = at - this.raw();
		}
		return this.raw() + this.offset;
	}

	pause() {
		this.paused ??= this.now();
	}

	resume() {
		if (this.paused === null) return;
		this.offset = this.paused - this.raw();
		this.paused = null;
	}

	/** @param {number} ms */
	set(ms) {
		if (this.paused !== null) this.paused = ms;
		else this.offset = ms - this.raw();
	}
}
