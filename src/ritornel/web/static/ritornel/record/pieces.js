// The pieces of a recording's events, slide by slide: core/rehearsal/recording.py's pieces_of, checked by
// tests/vectors/recording.json.

/**
 * @param {any[]} events
 * @param {number} endedMs
 * @param {Object<string, string>} leaving by slide, the cue that leaves it
 */
export function piecesOf(events, endedMs, leaving) {
	const kept = events.filter((event) => event.at_ms <= endedMs);
	const starts = kept.flatMap((event, at) => (event.event === "arrived" ? [at] : []));
	return starts.map((at, number) => {
		const until = starts[number + 1] ?? kept.length;
		const first = kept[at];
		const endMs = kept[until]?.at_ms ?? endedMs;
		const pressed = kept.slice(at + 1, until);
		const leave = leaving[first.slide_id] ?? `leave-${first.slide_id}`;
		const left = pressed.find((event) => event.cue_id === leave)?.at_ms ?? null;
		return {
			number,
			slide_id: first.slide_id,
			from_ms: first.at_ms,
			lasts_ms: (left ?? endMs) - first.at_ms,
			cues: Object.fromEntries(
				pressed.filter((event) => event.cue_id !== leave).map((event) => [event.cue_id, event.at_ms - first.at_ms]),
			),
			waits: Object.fromEntries(pressed.map((event) => [event.cue_id, event.waited_ms])),
			whole: left !== null,
		};
	});
}
