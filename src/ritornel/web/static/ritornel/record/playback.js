// Hearing what was recorded: one piece, a section as it is picked, or the whole show.
import { ShowPlayer } from "../player/player.js";
import { get } from "../ui/requests.js";

/**
 * Events: "begun", "reached" (detail: slide_id, beat) and "ended" of what is heard, "changed" whenever something else
 * is heard, or nothing.
 */
export class Hearing extends EventTarget {
	/** @param {string} base the show's address @param {SVGSVGElement} surface */
	constructor(base, surface) {
		super();
		this.base = base;
		this.surface = surface;
		this.now = null;
	}

	/** What is heard: a piece's key, "picked", or nothing. */
	get key() {
		return this.now?.key ?? null;
	}

	/** Where it has come, as {slide_id, at_ms}; null where nothing is heard. */
	head() {
		return this.now?.head() ?? null;
	}

	stop() {
		if (!this.now) return;
		const { key, end } = this.now;
		this.now = null;
		end();
		this.dispatchEvent(new CustomEvent("ended", { detail: { key } }));
		this.dispatchEvent(new Event("changed"));
	}

	/** A piece; the same once more stops it. Rejected where it cannot be heard. */
	async piece(row, piece) {
		const key = `${row.id}/${piece.number}`;
		const same = this.key === key;
		this.stop();
		if (same) return;
		await this.play(key, `take=${row.id}&piece=${piece.number}`);
	}

	/** @param {string} what a slide of the section that is heard as picked, or "all" */
	async picked(what) {
		this.stop();
		await this.play("picked", `section=${encodeURIComponent(what)}`);
	}

	/** What was recorded as it will be seen and heard: with its cues, its voice and its camera. */
	async play(key, asked) {
		const show = await get(`${this.base}/record/picked.json?${asked}`);
		const player = new ShowPlayer(show, this.surface, { mode: "self-running" });
		const head = () => {
			if (!player.running) return null;
			const { index, slide_ms: ms } = player.moment();
			return { slide_id: show.slides[index].id, at_ms: ms };
		};
		this.now = { key, head, end: () => player.stop() };
		player.addEventListener("moment", ({ detail: { index, beat } }) =>
			this.dispatchEvent(new CustomEvent("reached", { detail: { slide_id: show.slides[index].id, beat } })),
		);
		this.dispatchEvent(new Event("begun"));
		player.addEventListener("end", () => this.stop());
		await player.begin(0);
	}
}
