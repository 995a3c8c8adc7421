// How a run stands against the plan: core/rehearsal/pace.py, held to it by tests/vectors/pace.json.

const ON_TEMPO_MS = 1500;

/** How far the run is behind the plan; negative: ahead. */
export const slipMs = (startMs, lengthMs, onSlideMs, elapsedMs) =>
	elapsedMs - (startMs + Math.min(onSlideMs, lengthMs));

/** The slip in words, seconds cut. */
export function paceWords(slip) {
	if (Math.abs(slip) < ON_TEMPO_MS) return "On tempo";
	const seconds = Math.floor(Math.abs(slip) / 1000);
	return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")} ${slip > 0 ? "behind plan" : "ahead of plan"}`;
}

export const SOON_MS = 120_000;

/** When the run will end, counted from its start, if it keeps to the plan from here on. */
export const endsAfterMs = (lengthMs, startMs, slideLengthMs, onSlideMs, elapsedMs) =>
	lengthMs + slipMs(startMs, slideLengthMs, onSlideMs, elapsedMs);

/** What is left of a slot, in words; past its end, by how much. */
export function slotWords(leftMs) {
	const seconds = Math.floor(Math.abs(leftMs) / 1000);
	const told = `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
	if (leftMs < 0) return `${told} over`;
	return leftMs <= SOON_MS ? `${told} left` : `in ${told}`;
}
