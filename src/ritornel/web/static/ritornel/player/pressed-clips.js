// Clips that presses play, apart from the running order: what they show instead, and their sound.
import { STILL } from "./sampling.js";

/**
 * How long a clip takes to play once: (out - in) / rate, rounded half up, as core/document/objects.py has it.
 * @param {{in_ms?: number, out_ms: number, rate_pct?: number}} clip
 */
export const passOf = ({ in_ms: from = 0, out_ms: to, rate_pct: rate = 100 }) =>
	Math.floor(((to - from) * 100) / rate + 0.5);

export class PressedClips {
	/** @param {import("./player.js").ShowPlayer} player */
	constructor(player) {
		this.player = player;
		/** When each of them started, on the player's clock, by object. */
		this.begun = new Map();
	}

	/** @param {PlayedSlide} slide @param {string} objectId */
	toggle(slide, objectId) {
		const clip = slide.clips?.[objectId];
		if (!clip) return;
		const { player, begun } = this;
		if (begun.delete(objectId)) {
			player.sound?.endPressed(objectId);
			return;
		}
		begun.set(objectId, { clip, atMs: player.clock.now() });
		player.sound?.playPressed(clip);
	}

	/** Ends all of them: the show goes to another slide. */
	stop() {
		for (const id of this.begun.keys()) this.player.sound?.endPressed(id);
		this.begun.clear();
	}

	/**
	 * The progress of one, 0..1: at its end it stands on its last picture.
	 * @param {{clip: Core.PressedClip, atMs: number}} begun
	 * @param {number} now
	 */
	played({ clip, atMs }, now) {
		const passMs = passOf(clip);
		const share = (now - atMs) / passMs;
		return clip.repeats ? share % 1 : Math.min(share, 1);
	}

	/** Whether one of them has not ended yet. */
	get running() {
		const now = this.player.clock.now();
		return [...this.begun.values()].some((entry) => !entry.clip.repeats && this.played(entry, now) < 1);
	}

	/**
	 * Adds the pressed clips to a frame state.
	 * @param {FrameState} frameState
	 * @param {number} index
	 * @param {number} now
	 */
	show(frameState, index, now) {
		const layer = this.begun.size ? frameState.layers.find((entry) => entry.index === index) : null;
		if (!layer) return;
		layer.objects = new Map(layer.objects);
		for (const [id, entry] of this.begun)
			layer.objects.set(id, { ...(layer.objects.get(id) ?? STILL), played: this.played(entry, now) });
	}
}
