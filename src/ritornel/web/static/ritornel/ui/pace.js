// How a run compares with the plan: core/reference/pace.py, checked by tests/vectors/pace.json.

const ON_TEMPO_MS = 1500;

/**
 * How far the run is behind the plan; negative: ahead.
 * @param {number} startMs
 * @param {number} lengthMs
 * @param {number} onSlideMs
 * @param {number} elapsedMs
 */
export const slipMs = (startMs, lengthMs, onSlideMs, elapsedMs) =>
	elapsedMs - (startMs + Math.min(onSlideMs, lengthMs));

/**
 * The slip in words, seconds cut.
 * @param {number} slip
 */
export function paceWords(slip) {
	if (Math.abs(slip) < ON_TEMPO_MS) return "On tempo";
	const seconds = Math.floor(Math.abs(slip) / 1000);
	return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")} ${slip > 0 ? "behind plan" : "ahead of plan"}`;
}

export const SOON_MS = 120_000;

/**
 * When the run will end, counted from its start, if it keeps to the plan from here on.
 * @param {number} lengthMs
 * @param {number} startMs
 * @param {number} slideLengthMs
 * @param {number} onSlideMs
 * @param {number} elapsedMs
 */
export const endsAfterMs = (lengthMs, startMs, slideLengthMs, onSlideMs, elapsedMs) =>
	lengthMs + slipMs(startMs, slideLengthMs, onSlideMs, elapsedMs);

const DAY_MIN = 24 * 60;
const LENGTH = /^(?:(\d{1,2})\s*(?:h|hours?))?\s*(?:(\d{1,3})\s*(?:m|min|minutes?)?)?$/;
const CLOCK = /^(\d{1,2})(?:[:.](\d{2}))?\s*(am|pm|a\.m\.|p\.m\.)?$/;

/**
 * When a slot ends, in minutes from now, from typed text: a length or a time of day; null for neither.
 * @param {string} text
 * @param {number} nowMin
 */
export function parseSlot(text, nowMin) {
	const words = text.toLowerCase().trim().split(/\s+/).join(" ");
	const clock = CLOCK.exec(words);
	if (clock && (clock[2] || clock[3])) {
		let hours = Number(clock[1]);
		const minutes = Number(clock[2] ?? 0);
		if (clock[3]) {
			if (hours < 1 || hours > 12) return null;
			hours = (hours % 12) + (clock[3].startsWith("p") ? 12 : 0);
		}
		if (hours > 23 || minutes > 59) return null;
		const left = (((hours * 60 + minutes - nowMin) % DAY_MIN) + DAY_MIN) % DAY_MIN;
		return left > DAY_MIN / 2 ? left - DAY_MIN : left;
	}
	const length = LENGTH.exec(words);
	if (!words || !length) return null;
	return Number(length[1] ?? 0) * 60 + Number(length[2] ?? 0) || null;
}

/**
 * The rest of a slot, in words; past its end, by how much.
 * @param {number} leftMs
 */
export function slotWords(leftMs) {
	const seconds = Math.floor(Math.abs(leftMs) / 1000);
	const told = `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
	if (leftMs < 0) return `${told} over`;
	return leftMs <= SOON_MS ? `${told} left` : `in ${told}`;
}
