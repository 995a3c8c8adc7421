// The level of a voice, in words: core/sound/spoken_level.py, checked by tests/vectors/recording.json.

const SOFT_DB = -30;
const LOUD_DB = -12;
const PEAK_DB = -3;
export const FLOOR_DB = -60;

/** A magnitude 0..1 in dB of full scale. */
export const levelDb = (/** @type {number} */ magnitude) =>
	magnitude > 0 ? Math.max(20 * Math.log10(magnitude), FLOOR_DB) : FLOOR_DB;

export function levelWords(/** @type {number} */ meanDb, /** @type {number} */ peakDb) {
	if (meanDb > LOUD_DB || peakDb > PEAK_DB) return "Too loud";
	return meanDb < SOFT_DB ? "Too soft" : "Good level";
}
