// What a microphone hears, in blocks with the number of their first sample on the sound card's clock. It runs on the
// sound card's own thread.

const BLOCK = 2048;

class Listening extends AudioWorkletProcessor {
	constructor() {
		super();
		this.block = new Float32Array(BLOCK);
		this.filled = 0;
		this.first = 0;
	}

	process(/** @type {any} */ [channels]) {
		const { length } = channels[0] ?? { length: 128 };
		if (!this.filled) this.first = currentFrame;
		for (let at = 0; at < length; at += 1) {
			// More channels than one become one; where the microphone is gone there is silence, so that time goes on.
			let sum = 0;
			for (const channel of channels) sum += channel[at];
			this.block[this.filled] = channels.length ? sum / channels.length : 0;
			this.filled += 1;
		}
		if (this.filled >= BLOCK) {
			this.port.postMessage({ first: this.first, samples: this.block }, [this.block.buffer]);
			this.block = new Float32Array(BLOCK);
			this.filled = 0;
		}
		return true;
	}
}

registerProcessor("ritornel-listening", Listening);
