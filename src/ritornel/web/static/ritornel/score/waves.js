// Waveforms in levels of detail: loaded in parts as they come into view, also while they are still being made.
import { get } from "../ui/requests.js";

const AGAIN_MS = 500;

export class Waves {
	/**
	 * @param {function(string): string} place where what is derived of an asset lies
	 * @param {() => void} arrived called when there is more to see
	 */
	constructor(place, arrived) {
		this.place = place;
		this.arrived = arrived;
		this.known = new Map();
	}

	/**
	 * The level for a scale, as {peak(fromMs, toMs) -> 0..255}; a new object whenever there is more to see, null
	 * while nothing is known.
	 */
	of(/** @type {string} */ assetId, /** @type {number} */ pxPerS) {
		if (!this.known.has(assetId)) this.known.set(assetId, new Wave(this.place(assetId), this.arrived));
		return this.known.get(assetId).level(pxPerS);
	}
}

class Wave {
	constructor(/** @type {string} */ address, /** @type {() => void} */ arrived) {
		this.address = address;
		this.arrived = arrived;
		this.about = null;
		this.parts = new Map();
		this.levels = new Map();
		this.ask();
	}

	async ask() {
		try {
			this.about = await get(`${this.address}/wave.json`);
		} catch {
			return;
		}
		if (!this.about.whole) {
			setTimeout(() => this.ask(), AGAIN_MS);
			// Parts that were not full may be by now.
			for (const [key, part] of this.parts) if (part && part.length < this.about.part) this.parts.delete(key);
		}
		this.more();
	}

	more() {
		this.levels.clear();
		this.arrived();
	}

	level(/** @type {number} */ pxPerS) {
		if (!this.about) return null;
		// One peak for every two px, or the finest there is.
		const perS =
			this.about.levels.find((/** @type {number} */ level) => level >= pxPerS / 2) ?? this.about.levels.at(-1);
		if (!this.levels.has(perS))
			this.levels.set(perS, {
				peak: (/** @type {number} */ fromMs, /** @type {number} */ toMs) => this.peak(perS, fromMs, toMs),
			});
		return this.levels.get(perS);
	}

	part(/** @type {number} */ perS, /** @type {number} */ number) {
		const key = this.key(perS, number);
		if (!this.parts.has(key)) {
			this.parts.set(key, null);
			fetch(`${this.address}/wave/${key}`)
				.then((reply) => (reply.ok ? reply.arrayBuffer() : new ArrayBuffer(0)))
				.then((bytes) => {
					this.parts.set(key, new Uint8Array(bytes));
					this.more();
				})
				.catch(() => this.parts.delete(key));
		}
		return this.parts.get(key);
	}

	key(/** @type {number} */ perS, /** @type {number} */ number) {
		return `${perS}/${number * this.about.part}`;
	}

	peak(/** @type {number} */ perS, /** @type {number} */ fromMs, /** @type {number} */ toMs) {
		const { done_ms: done, sketch, lasts_ms: lasts, levels } = this.about;
		if (Math.max(fromMs, 0) >= done) return sketch[Math.floor((fromMs / lasts) * sketch.length)] ?? 0;
		const found = this.loudest(perS, fromMs, toMs, (/** @type {number} */ number) => this.part(perS, number));
		if (found !== null) return found;
		// While a part is on its way, what another level has of it is seen: the next coarser one, or a finer one.
		const others = [
			...levels.filter((/** @type {number} */ level) => level < perS).reverse(),
			...levels.filter((/** @type {number} */ level) => level > perS),
		];
		for (const other of others) {
			const instead = this.loudest(other, fromMs, toMs, (/** @type {number} */ number) =>
				this.parts.get(this.key(other, number)),
			);
			if (instead !== null) return instead;
		}
		return 0;
	}

	/** The loudest that a level has between two times; null where a part of it is not there. */
	loudest(
		/** @type {number} */ perS,
		/** @type {number} */ fromMs,
		/** @type {number} */ toMs,
		/** @type {(number: number) => any} */ part,
	) {
		const first = Math.max(0, Math.floor((fromMs * perS) / 1000));
		const last = Math.max(first + 1, Math.floor((toMs * perS) / 1000));
		let peak = 0;
		for (let at = first; at < last; at += 1) {
			const found = part(Math.floor(at / this.about.part));
			if (!found) return null;
			peak = Math.max(peak, found[at % this.about.part] ?? 0);
		}
		return peak;
	}
}
