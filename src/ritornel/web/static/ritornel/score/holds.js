// How long a slide waits and how it is left: the edit that changes it, and its words.
import { secondsText } from "../ui/times.js";

/** The edit that sets the hold of the cue before beat `beat`, or before the slide is left. */
export function holdEdit(/** @type {SlideLine} */ line, /** @type {number} */ beat, /** @type {number} */ ms) {
	const { beats, last_wait: last } = line.schedule;
	const wait = /** @type {Core.Wait} */ (beat < beats.length ? beats[beat].wait : last);
	if (wait.source === "voice mark" && line.voice) {
		// Where a mark of the voice decides, the mark is what moves.
		const mark = Math.max(0, wait.start_ms + ms - line.voice.offset_ms);
		return {
			do: "put voice",
			slide_id: line.id,
			voice: { ...line.voice, marks: { ...line.voice.marks, [wait.cue_id]: mark } },
		};
	}
	const opener = line.builds.find((build) => build.beat === beat && build.starts.rule === "cue");
	if (opener)
		return {
			do: "change build",
			slide_id: line.id,
			build_id: opener.id,
			changes: { starts: { ...opener.starts, hold_ms: ms } },
		};
	return { do: "change slides", slide_ids: [line.id], changes: { advance: { ...line.advance, hold_ms: ms } } };
}

/**
 * How a slide is left, in words.
 * @param {SlideLine} line
 * @param {boolean} waits whether it waits for a cue there, in the way that is shown
 */
export function leavesWords({ advance, schedule }, waits) {
	if (waits && !schedule.last_wait) return `waits for a cue, planned after ${secondsText(schedule.length_ms)} s`;
	if (advance.rule === "after") return `goes on after ${secondsText(advance.after_ms)} s`;
	if (advance.rule === "voice") return `goes on ${secondsText(advance.breath_ms)} s after its voice`;
	return `goes on on cue, hold ${secondsText(schedule.last_wait?.hold_ms ?? 0)} s`;
}
