// Hearing what was recorded: one piece, a section as it is picked, or the whole show.
import { ShowPlayer } from "../player/player.js";
import { get } from "../ui/net.js";

/** Events: "begun" and "ended" of a show as picked, "changed" whenever something else is heard, or nothing. */
export class Hearing extends EventTarget {
  /** @param {string} base the show's address @param {SVGSVGElement} surface */
  constructor(base, surface) {
    super();
    Object.assign(this, { base, surface, now: null });
  }

  /** What is heard: a piece's key, "picked", or nothing. */
  get key() { return this.now?.key ?? null; }

  /** Where it has come, as {slide_id, at_ms}; null where nothing is heard. */
  head() { return this.now?.head() ?? null; }

  stop() {
    if (!this.now) return;
    const { key, end } = this.now;
    this.now = null;
    end();
    if (key === "picked") this.dispatchEvent(new Event("ended"));
    this.dispatchEvent(new Event("changed"));
  }

  /** A piece; the same once more stops it. Rejected where it cannot be heard. */
  async piece(row, piece) {
    const key = `${row.id}/${piece.number}`;
    const same = this.key === key;
    this.stop();
    if (same) return;
    const sound = new Audio(`${this.base}/record/media/rec-${row.id}-${piece.number}-${piece.lasts_ms}`);
    this.now = { key, head: () => ({ slide_id: piece.slide_id, at_ms: Math.min(sound.currentTime * 1000, piece.lasts_ms) }), end: () => sound.pause() };
    sound.addEventListener("ended", () => this.stop());
    try { await sound.play(); } catch (error) { this.stop(); throw error; }
  }

  /** @param {string} what a slide of the section that is heard as picked, or "all" */
  async picked(what) {
    this.stop();
    const show = await get(`${this.base}/record/picked.json?section=${encodeURIComponent(what)}`);
    const player = new ShowPlayer(show, this.surface, { mode: "self-running" });
    const head = () => {
      if (!player.running) return null;
      const { index, slide_ms: ms } = player.moment();
      return { slide_id: show.slides[index].id, at_ms: ms };
    };
    this.now = { key: "picked", head, end: () => player.stop() };
    this.dispatchEvent(new Event("begun"));
    player.addEventListener("end", () => this.stop());
    await player.begin(0);
  }
}
