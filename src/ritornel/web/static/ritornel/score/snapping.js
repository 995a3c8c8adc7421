// What a time that is dragged on the score snaps to: the rule of core/reference/snapping.py, checked by
// tests/vectors/events.json.
import { markMs } from "./marks.js";

/** The event nearest to the instant, at most `reachMs` away; of two as near the earlier; null where there is none. */
export function nearestMs(/** @type {number} */ atMs, /** @type {number[]} */ eventsMs, /** @type {number} */ reachMs) {
	/** @type {any} an instant, or null */
	let best = null;
	for (const event of eventsMs) {
		const way = Math.abs(event - atMs);
		const before = best === null ? Infinity : Math.abs(best - atMs);
		if (way <= reachMs && (way < before || (way === before && event < best))) best = event;
	}
	return best;
}

/**
 * All instants that a drag can snap to: bar lines, beats, ends of builds, marks and the playhead, without those of
 * the dragged build.
 * @param {ShowState} state
 */
export function eventsOf(state, without = null) {
	const { data } = state;
	const found = new Set([state.playheadMs, data.length_ms]);
	for (const id of state.shown) {
		const start = data.starts_ms[id];
		const { schedule, builds } = data.slides[id];
		found
			.add(start)
			.add(start + schedule.length_ms)
			.add(start + schedule.transition_ms);
		for (const beat of schedule.beats) found.add(start + beat.start_ms).add(start + beat.end_ms);
		for (const build of builds) {
			if (build.id === without) continue;
			const from = start + schedule.beats[build.beat].start_ms + build.offset_ms;
			found.add(from).add(from + build.runs_ms);
		}
	}
	for (const mark of data.marks) found.add(markMs(data, mark));
	for (const span of data.music) found.add(span.start_ms).add(span.end_ms);
	return [...found];
}
