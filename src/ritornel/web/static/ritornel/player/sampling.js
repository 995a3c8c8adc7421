// The values of tracks at an instant, as in core/motion/sampling.py; tests/vectors/motion.json checks both.
import { ease } from "./easing.js";

export const STILL = Object.freeze({
	shown: true,
	opacity: 1,
	x: 0,
	y: 0,
	scale: 1,
	turn: 0,
	wide: 1,
	reveal: 1,
	drawn: 1,
	typed: 1,
	tint: 0,
	mask: null,
	colour: null,
	yaw: 0,
	pitch: 0,
	hinge: null,
	drift: 0,
	played: null,
});
export const AWAY = Object.freeze({ ...STILL, shown: false });

// core/time/counts
export const ON_SLIDE = -1;
const ONCE_BENEATH = -1;

/**
 * @typedef {{beat: number, since_ms: number, slide_ms: number, begun_ms: number[]}} Instant
 * A segment is [build, entrance, channel, beat, offset_ms, cycle_ms, repeats, keys, curve, mask, colour];
 * an entrance is [build, beat, offset_ms, lasts_ms, enters].
 */

/**
 * @returns {number|null} 0..1 within the current repeat, 1 when over, null before it begins
 * @param {Core.Segment} segment
 * @param {Instant} at
 */
function progressOf(segment, at) {
	const [, , , beat, offset, cycle, repeats] = segment;
	if (beat > at.beat) return null;
	if (beat === ON_SLIDE) return cycle ? Math.min(Math.max(at.slide_ms - offset, 0) / cycle, 1) : 1;
	if (repeats <= 0) {
		if (beat === at.beat && at.since_ms < offset) return null;
		const elapsed = Math.max(at.slide_ms - at.begun_ms[beat] - offset, 0);
		if (repeats === ONCE_BENEATH) return cycle ? Math.min(elapsed / cycle, 1) : 1;
		return cycle ? (elapsed % cycle) / cycle : 1;
	}
	if (beat < at.beat) return 1;
	const elapsed = at.since_ms - offset;
	if (elapsed < 0) return null;
	if (elapsed >= cycle * repeats) return 1;
	return (elapsed % cycle) / cycle;
}

/**
 * The value between the two keys around `progress`, eased between them.
 * @param {[number, number][]} keys
 * @param {number[]} curve
 * @param {number} progress
 */
export function valueAt(keys, curve, progress) {
	let before = keys[0];
	if (progress <= before[0]) return before[1];
	for (let i = 1; i < keys.length; i += 1) {
		const key = keys[i];
		if (progress < key[0]) {
			const share = (progress - before[0]) / (key[0] - before[0]);
			return before[1] + (key[1] - before[1]) * ease(share, curve);
		}
		before = key;
	}
	return before[1];
}

/** @type {{[channel: string]: boolean}} */
const MULTIPLIES = { opacity: true, scale: true, wide: true, reveal: true, drawn: true, typed: true };

/** @param {Core.Motion} motion @param {Instant} at */
export function valuesAt(motion, at) {
	let current = -1;
	let shown = !motion.away_first;
	for (const [build, beat, offset, lasts, enters] of motion.entrances) {
		if (beat < at.beat || (beat === at.beat && at.since_ms >= offset)) {
			current = build;
			shown = enters || !(beat < at.beat || at.since_ms >= offset + lasts);
		}
	}
	if (!shown) return AWAY;
	/** @type {any} */
	let result = null;
	for (const segment of motion.segments) {
		if (segment[1] && segment[0] !== current) continue;
		const progress = progressOf(segment, at);
		if (progress === null) continue;
		result ??= { ...STILL };
		const value = valueAt(segment[7], segment[8], progress);
		if (MULTIPLIES[segment[2]]) result[segment[2]] *= value;
		else result[segment[2]] += value;
		if (segment[2] === "reveal" && value < 1) result.mask = segment[9];
		if (segment[2] === "tint") {
			result.tint = Math.min(result.tint, 1);
			if (value > 0) result.colour = segment[10];
		}
	}
	return result ?? STILL;
}

/**
 * The channels of a slide's layer during a transition. @param {Core.Ramp[]} ramps
 * @param {number} progress
 */
export function layerValues(ramps, progress) {
	/** @type {any} */
	const result = { ...STILL };
	for (const ramp of ramps) {
		result[ramp.channel] = valueAt(ramp.keys, ramp.curve, progress);
		if (ramp.channel === "reveal" && result.reveal < 1) result.mask = ramp.mask;
		if (ramp.channel === "tint" && result.tint) result.colour = ramp.colour;
		if (ramp.hinge) result.hinge = ramp.hinge;
	}
	return result;
}

/**
 * Both combined: shares multiply, offsets and turns add; a hidden target stays hidden. As core/motion/channels.py has
 * it.
 * @param {any} own
 * @param {any} more
 */
export function combine(own, more) {
	if (!own.shown) return own;
	const result = {
		...own,
		tint: Math.min(own.tint + more.tint, 1),
		mask: own.mask ?? more.mask,
		colour: own.colour ?? more.colour,
		played: own.played ?? more.played,
	};
	for (const name of ["opacity", "scale", "wide", "reveal", "drawn", "typed"]) result[name] = own[name] * more[name];
	for (const name of ["x", "y", "turn", "drift"]) result[name] = own[name] + more[name];
	return result;
}

/**
 * @returns {Map<string, object>} values by `object` or `object/part` @param {Core.Motion[]} motions
 * @param {Instant} at
 */
export function objectValues(motions, at) {
	const result = new Map();
	for (const motion of motions)
		result.set(motion.part ? `${motion.object_id}/${motion.part}` : motion.object_id, valuesAt(motion, at));
	return result;
}
