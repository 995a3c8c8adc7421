// The show's master clock: the sound card's where sound runs, the computer's where it does not. It never jumps when they change.

export class Clock {
  /** @param {AudioContext|null} audio */
  constructor(audio) {
    this.audio = audio;
    this.heard = audio?.state === "running";
    this.offset = -this.raw();
    this.paused = null;
  }

  raw() {
    return this.heard ? this.audio.currentTime * 1000 : performance.now();
  }

  /** Milliseconds since the clock was made, without paused time. */
  now() {
    if (this.paused !== null) return this.paused;
    const heard = this.audio?.state === "running";
    if (heard !== this.heard) {
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

  set(ms) {
    if (this.paused !== null) this.paused = ms;
    else this.offset = ms - this.raw();
  }
}
