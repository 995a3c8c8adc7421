// The peaks of recordings, 25 a second, 0..255: loaded for finished ones, and computed here for the one in progress.

const PEAK_SAMPLES = 1920;

export class Peaks {
	/** @param {string} base @param {() => void} arrived called when there is more to see */
	/** @param {string} base @param {() => void} arrived */
	constructor(base, arrived) {
		this.base = base;
		this.arrived = arrived;
		this.known = new Map();
	}

	of(/** @type {string} */ id) {
		if (!this.known.has(id)) {
			this.known.set(id, []);
			this.fetch(id)
				.then(this.arrived)
				.catch(() => this.known.delete(id));
		}
		return this.known.get(id);
	}

	/** A recording without any peaks yet. */
	fresh(/** @type {string} */ id) {
		this.known.set(id, []);
		this.rest = null;
	}

	async fetch(/** @type {string} */ id) {
		const reply = await fetch(`${this.base}/record/${id}/peaks`);
		if (reply.ok) this.known.set(id, [...new Uint8Array(await reply.arrayBuffer())]);
	}

	/** Adds samples of the recording in progress. */
	hear(/** @type {string} */ id, /** @type {Float32Array} */ samples) {
		const peaks = this.of(id);
		this.rest ??= { count: 0, peak: 0 };
		for (const sample of samples) {
			this.rest.peak = Math.max(this.rest.peak, Math.abs(sample));
			this.rest.count += 1;
			if (this.rest.count === PEAK_SAMPLES) {
				peaks.push(Math.min(Math.floor((this.rest.peak * 255) / 32767), 255));
				this.rest = { count: 0, peak: 0 };
			}
		}
	}
}
