// A clip's pictures following the show: it is told which instant to show, and decides nothing.

// How far a clip that runs may be from where it should be before it is set right, in seconds.
const APART_S = 0.06;
// Told to go on at least so often, it runs; else it stands.
const RUNS_MS = 200;
// A lighter copy of a clip may still be being made: it is looked for again so often, and so long.
const AGAIN_MS = 1500;
const TRIES = 400;

export class Footage {
	/**
	 * @param {SVGForeignObjectElement} place where it is seen
	 * @param {string} address
	 * @param {number} ratePct how fast it runs
	 */
	constructor(place, address, ratePct = 100) {
		const video = document.createElement("video");
		// Its sound is the show's own affair.
		Object.assign(video, {
			src: address,
			muted: true,
			playsInline: true,
			preload: "auto",
			disableRemotePlayback: true,
			defaultPlaybackRate: ratePct / 100,
			playbackRate: ratePct / 100,
		});
		Object.assign(video.style, {
			width: "100%",
			height: "100%",
			objectFit: "fill",
			display: "block",
			pointerEvents: "none",
		});
		place.append(video);
		this.video = video;
		let tries = 0;
		video.addEventListener("error", () => {
			if (address.endsWith("/light") && (tries += 1) < TRIES)
				setTimeout(() => {
					video.src = `${address}?ask=${tries}`;
				}, AGAIN_MS);
		});
		/** @type {{ms: number, now: number} | null} */
		this.told = null;
		this.loaded = new Promise((done) => {
			for (const kind of ["loadeddata", "error"]) video.addEventListener(kind, done, { once: true });
		});
		video.addEventListener("seeked", () => {
			if (!this.running) this.stand();
		});
		video.addEventListener("loadedmetadata", () => {
			if (!this.running) this.stand();
		});
	}

	/** @param {number} ms the instant of the clip's own time that is to be seen */
	show(ms) {
		const now = performance.now();
		const before = this.told;
		if (before?.ms === ms) return;
		this.told = { ms, now };
		const [way, passed] = before ? [ms - before.ms, now - before.now] : [0, 0];
		this.running = way > 0 && passed < RUNS_MS && way < passed * 2 * Math.max(this.video.playbackRate, 1) + 60;
		clearTimeout(this.rest);
		if (!this.running) {
			this.stand();
			return;
		}
		const { video } = this;
		if (Math.abs(video.currentTime - ms / 1000) > APART_S && !video.seeking) video.currentTime = ms / 1000;
		if (video.paused) video.play().catch(() => undefined);
		this.rest = setTimeout(() => {
			this.running = false;
			this.stand();
		}, RUNS_MS);
	}

	/**
	 * Shows the latest wanted instant. A fifth of a millisecond is added: a picture's own time, rounded down, shows
	 * the one before.
	 */
	stand() {
		const { video, told } = this;
		if (!video.paused) video.pause();
		if (!told) return;
		const at = told.ms / 1000 + 0.0002;
		if (video.readyState > 0 && !video.seeking && Math.abs(video.currentTime - at) > 0.0005) video.currentTime = at;
	}
}
