// Times in and out of fields: the rules of core/time/milliseconds.py, checked by tests/vectors/times.json.

export const LONGEST_MS = 24 * 60 * 60 * 1000;
const BLANK = "[ \\t\\u00a0\\u2009\\u202f]*";
const CLOCK = new RegExp(
	`^${BLANK}(?:(?:([0-9]{1,4}):)?([0-9]{1,3}):)?([0-9]{1,8})(?:[.,]([0-9]{1,20}))?${BLANK}s?${BLANK}$`,
);

/**
 * floor(x + 1/2), in Python and here alike.
 * @param {any} value
 */
export const roundHalfUp = (value) => Math.floor(value + 0.5);

/**
 * Whole milliseconds in `12`, `12.5`, `1:12.5` or `2.5 s`; null where the text is no time or longer than a day.
 * @param {string} text
 */
export function parseClockMs(text) {
	const match = CLOCK.exec(text);
	if (!match) return null;
	const [, hours, minutes, seconds, fraction] = match;
	// By its digits: 0.5005 is half a thousandth over 500, which a product of floating numbers is not.
	const digits = (fraction ?? "").padEnd(4, "0");
	const thousandths = Number(digits.slice(0, 3)) + (digits[3] >= "5" ? 1 : 0);
	const value = (Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds)) * 1000 + thousandths;
	return value > LONGEST_MS ? null : value;
}

/**
 * Seconds with as many decimals as needed, at least one: 5000 -> "5.0", 1250 -> "1.25".
 * @param {number} ms
 */
export function secondsText(ms) {
	const text = (ms / 1000).toFixed(3).replace(/0+$/, "");
	return text.endsWith(".") ? `${text}0` : text;
}

/**
 * A clock with tenths, cut: 74499 -> "1:14.4".
 * @param {number} ms
 */
export function clockText(ms) {
	const tenths = Math.floor(Math.max(ms, 0) / 100);
	const seconds = Math.floor(tenths / 10);
	const minutes = Math.floor(seconds / 60);
	/** @param {number} n */
	const two = (n) => String(n).padStart(2, "0");
	const hours = Math.floor(minutes / 60);
	if (hours) return `${hours}:${two(minutes % 60)}:${two(seconds % 60)}.${tenths % 10}`;
	return `${minutes}:${two(seconds % 60)}.${tenths % 10}`;
}

/**
 * The same without tenths.
 * @param {number} ms
 */
export const minutesText = (ms) => clockText(ms).slice(0, -2);
