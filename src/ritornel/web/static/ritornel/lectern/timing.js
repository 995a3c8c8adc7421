// The run as a take: timed from its start, and saved when it ends unless somebody turned that off.
import { post } from "../ui/requests.js";
import { roundHalfUp } from "../ui/times.js";
import { toast } from "../ui/toast.js";

/** @param {string} id */
const at = (id) => document.getElementById(id);
/** @param {any} detail */
const whole = (detail) =>
	Object.fromEntries(
		Object.entries(detail).map(([key, value]) => [
			key,
			typeof value === "number" ? Math.max(0, roundHalfUp(value)) : value,
		]),
	);

export class Timing {
	/** @param {{base: string, player: any, board: any, number: number}} run */
	constructor({ base, player, board, number }) {
		this.base = base;
		this.player = player;
		this.board = board;
		this.number = number;
		/** @type {any[]} */
		this.events = [];
		this.thrown = null;
		this.keeps = true;
		for (const kind of ["arrived", "cued"])
			player.addEventListener(kind, (/** @type {CustomEvent} */ event) =>
				this.events.push({ event: kind, ...whole(event.detail) }),
			);
		at("keep-take").addEventListener("click", () => {
			at("keep-take").blur();
			this.toggle();
		});
		at("throw-away").addEventListener("click", () => {
			at("throw-away").blur();
			this.throwAway();
		});
		this.tell();
	}

	/** When each slide was reached, by its number, the latest last. */
	get arrivals() {
		return this.events
			.filter((entry) => entry.event === "arrived")
			.map((entry) => ({
				index: this.player.show.slides.findIndex((/** @type {PlayedSlide} */ slide) => slide.id === entry.slide_id),
				at_ms: entry.at_ms,
			}));
	}

	toggle() {
		this.keeps = !this.keeps;
		this.tell();
	}

	/** Discards the run so far; this can be undone until the run ends. */
	throwAway() {
		if (!this.keeps) return;
		this.keeps = false;
		this.tell();
		toast(`Take ${this.number} will not be kept.`, {
			act: "Put it back",
			onact: () => {
				this.keeps = true;
				this.tell();
			},
		});
	}

	tell() {
		at("timed").textContent = this.keeps ? `Timed as take ${this.number}` : "Not kept as a take";
		at("keep-take").setAttribute("aria-pressed", String(this.keeps));
		at("throw-away").disabled = !this.keeps;
	}

	/** Ends the run; true where it was saved. A run that cannot be sent stays here, and a press sends it again. */
	async finish() {
		const { player, board } = this;
		const endedMs = Math.max(0, roundHalfUp(player.clock?.now() ?? 0));
		player.stop();
		if (!this.keeps || !this.events.length) return false;
		const drawings = board.keep
			? Object.fromEntries(Object.entries(board.drawings).filter(([, strokes]) => strokes.length))
			: {};
		for (;;) {
			try {
				await post(`${this.base}/takes`, { events: this.events, ended_ms: endedMs, drawings });
				return true;
			} catch (error) {
				await new Promise((/** @type {(done?: any) => void} */ done) => {
					toast(`${error.message} The take is still here.`, {
						wrong: true,
						act: "Keep it again",
						onact: () => done(),
						stays: true,
					});
				});
			}
		}
	}
}
