// Playing recordings: one piece, a section with its selected pieces, or the whole show.
import { ShowPlayer } from "../player/player.js";
import { get } from "../ui/requests.js";

/**
 * Events: "begun", "reached" (detail: slide_id, beat) and "ended", and "changed" whenever something else plays, or
 * nothing.
 */
export class Hearing extends EventTarget {
	/** @param {string} base the show's address @param {SVGSVGElement} surface */
	constructor(base, surface) {
		super();
		this.base = base;
		this.surface = surface;
		this.now = null;
	}

	/** What plays: a piece's key, "picked", or nothing. */
	get key() {
		return this.now?.key ?? null;
	}

	/** Its position, as {slide_id, at_ms}; null where nothing plays. */
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

	/** Plays a piece; a second call stops it. Rejects where it cannot be played. */
	async piece(/** @type {RecordedTake} */ row, /** @type {Piece} */ piece) {
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

	/** The recording as the audience will see it: with its cues, its voice and its camera. */
	async play(/** @type {string} */ key, /** @type {any} */ asked) {
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
