// A small player for a sound or a clip: play, time, a line to scrub on, level. It is used wherever something can be
// heard or watched while a show is made.
import { el, icon } from "./element.js";
import { loadSheet } from "./sheets.js";
import { clockText } from "./times.js";

const LEVEL = "ritornel-listening-level";
const level = () => Number(localStorage.getItem(LEVEL) ?? 100);

export class SmallPlayer {
	/** @type {number} */
	frame;

	/**
	 * @param
	 * {{src: string, name: string, film?: boolean, fromMs?: number, toMs?: number, lastsMs?: number, preload?: string, silent?: boolean}}
	 * what
	 * plays `src` between two of its instants; `toMs` 0 is its end; `silent` has no level; `lastsMs` is its length, where
	 *   that is known before it is fetched
	 */
	constructor({ src, name, film = false, fromMs = 0, toMs = 0, lastsMs = 0, preload = "metadata", silent = false }) {
		loadSheet("media");
		this.name = name;
		this.fromMs = fromMs;
		this.toMs = toMs;
		this.lastsMs = lastsMs;
		this.told = new EventTarget();
		this.media = el(film ? "video" : "audio", { src, preload, playsinline: true, "aria-label": name });
		this.media.volume = level() / 100;
		this.button = el("button", { class: "push bare", onclick: () => this.toggle() });
		this.line = el("input", { type: "range", min: 0, max: 1, step: 10, value: 0, "aria-label": `Place in ${name}` });
		this.line.addEventListener("input", () => this.show(Number(this.line.value)));
		this.time = el("span", { class: "time" });
		this.level = silent
			? null
			: el("input", {
					type: "range",
					class: "level",
					min: 0,
					max: 100,
					value: level(),
					title: "How loud you hear it; the show is not changed",
					"aria-label": "Listening level",
				});
		this.level?.addEventListener("input", () => {
			this.media.volume = this.level?.value / 100;
			localStorage.setItem(LEVEL, this.level?.value);
		});
		this.node = el(
			"div",
			{ class: "small-player", role: "group", "aria-label": name },
			film ? this.media : null,
			el("div", { class: "small-bar" }, this.button, this.line, this.time, this.level),
		);
		if (!film) this.node.append(this.media);
		for (const kind of ["play", "pause", "timeupdate", "seeked", "durationchange", "ended"])
			this.media.addEventListener(kind, () => this.draw());
		this.media.addEventListener("error", () => {
			this.time.textContent = "cannot be played";
		});
		this.media.addEventListener("loadedmetadata", () => this.fromMs && this.show(this.fromMs), { once: true });
		this.draw();
	}

	get endMs() {
		const whole = Number.isFinite(this.media.duration) ? Math.round(this.media.duration * 1000) : this.lastsMs;
		return this.toMs ? Math.min(this.toMs, whole || this.toMs) : whole;
	}

	get atMs() {
		return Math.round(this.media.currentTime * 1000);
	}

	get plays() {
		return !this.media.paused;
	}

	/** @param {number} ms */
	show(ms) {
		this.media.currentTime = ms / 1000;
		this.draw();
	}

	pause() {
		this.media.pause();
	}

	/** Plays on from its position; at its end from its beginning. Only one player plays at a time. */
	async play() {
		for (const other of document.querySelectorAll(".small-player :is(audio, video)"))
			if (other !== this.media) other.pause();
		if (this.endMs && this.atMs >= this.endMs - 30) this.show(this.fromMs);
		await this.media.play().catch(() => undefined);
		this.follow();
	}

	toggle() {
		if (this.plays) this.pause();
		else this.play();
	}

	/** Shows the running time at every frame while it plays, and stops at its end. */
	follow() {
		cancelAnimationFrame(this.frame);
		this.frame = requestAnimationFrame(() => {
			if (!this.plays) return;
			if (this.toMs && this.atMs >= this.toMs) {
				this.pause();
				this.show(this.toMs);
			}
			this.draw();
			this.follow();
		});
	}

	draw() {
		const words = this.plays ? "Stop" : "Play";
		if (this.button.getAttribute("aria-label") !== `${words} ${this.name}`) {
			this.button.setAttribute("aria-label", `${words} ${this.name}`);
			this.button.title = words;
			this.button.replaceChildren(icon(this.plays ? "square" : "play"));
		}
		this.line.min = this.fromMs;
		this.line.max = Math.max(this.endMs, this.fromMs + 1);
		if (document.activeElement !== this.line || this.plays) this.line.value = this.atMs;
		this.line.setAttribute("aria-valuetext", clockText(this.atMs));
		this.time.textContent = this.endMs ? `${clockText(this.atMs)} of ${clockText(this.endMs)}` : clockText(this.atMs);
		this.told.dispatchEvent(new Event("time"));
	}
}

/**
 * A small player's node, for callers that need nothing else.
 * @param {any} what
 */
export const smallPlayer = (what) => new SmallPlayer(what).node;
