// What the self-running show shows at an instant, as core/schedule/performance.py has it.
import { combine, layerValues, objectValues, STILL, valueAt, valuesAt } from "./sampling.js";

export const BLACK_MS = 600;

/**
 * The beat, and how long ago it began, on a slide's own clock. @param {Core.SlideSchedule} schedule
 * @param {number} slideMs
 */
export function slideMoment(schedule, slideMs) {
	let beat = 0;
	schedule.beats.forEach((entry, index) => {
		if (entry.start_ms <= slideMs) beat = index;
	});
	return { beat, since_ms: slideMs - schedule.beats[beat].start_ms };
}

/**
 * The position of the self-running show.
 * @param {PlayedShow} show
 * @param {number} timeMs
 */
export function momentAt(show, timeMs) {
	const last = show.slides.length - 1;
	if (last < 0) return { index: -1, slide_ms: 0, beat: 0, since_ms: 0, phase: "empty" };
	let time = Math.max(timeMs, 0);
	if (show.end === "loop" && show.length_ms) time %= show.length_ms;
	if (time >= show.content_ms) {
		const schedule = show.slides[last].schedule;
		return {
			index: last,
			slide_ms: time - show.starts_ms[last],
			...slideMoment(schedule, schedule.length_ms),
			phase: time < show.length_ms ? "to black" : "over",
		};
	}
	let low = 0,
		high = last;
	while (low < high) {
		const middle = (low + high + 1) >> 1;
		if (show.starts_ms[middle] <= time) low = middle;
		else high = middle - 1;
	}
	const slideMs = time - show.starts_ms[low];
	const schedule = show.slides[low].schedule;
	const moment = slideMoment(schedule, slideMs);
	let phase = "rest";
	if (slideMs < schedule.transition_ms) phase = "transition";
	else if (slideMs < schedule.beats[moment.beat].end_ms) phase = "beat";
	else if (moment.beat + 1 < schedule.beats.length || schedule.last_wait) phase = "wait";
	return { index: low, slide_ms: slideMs, ...moment, phase };
}

/**
 * When a running show can switch to a newer edition without a break: a looping one at the end of its pass, any other
 * never (null).
 * @param {PlayedShow} show
 * @param {number} timeMs
 */
export function renewedAtMs(show, timeMs) {
	return show.end === "loop" && show.length_ms
		? (Math.floor(Math.max(timeMs, 0) / show.length_ms) + 1) * show.length_ms
		: null;
}

const SLIDES_AHEAD = 6;

/**
 * The slides, of so many, whose media are loaded while slide `index` is shown, in this order.
 * @param {number} count
 * @param {number} index
 */
export const comingSlides = (count, index) =>
	Array.from({ length: Math.min(SLIDES_AHEAD, count - index) }, (_, step) => index + step);

/** @param {Core.SlideSchedule} schedule */
const begun = (schedule) => schedule.beats.map((beat) => beat.start_ms);

/**
 * The position of the clip that is a slide's background, as a share; null where there is none.
 * @param {Core.SlideDrawing} drawing
 * @param {number} slideMs
 */
function groundPlayed(drawing, slideMs) {
	const mark = drawing.ground?.find(({ kind }) => kind === "clip");
	if (!mark) return null;
	const passMs = (mark.out_ms ?? 1) - (mark.in_ms ?? 0);
	return (Math.max(slideMs, 0) % passMs) / passMs;
}

/** @param {PlayedShow} show @param {number} index @param {Instant} at @param {any} [values] */
export function layerAt(show, index, at, values = STILL) {
	const { motions, view, drawing } = show.slides[index];
	return {
		index,
		objects: objectValues(motions, at),
		values,
		view: view ? valuesAt(view, at) : STILL,
		ground_played: groundPlayed(drawing, at.slide_ms),
	};
}

/**
 * A slide as it is at its last instant. @param {PlayedShow} show
 * @param {number} index
 * @param {any} [values]
 */
export function lastLayer(show, index, values = STILL) {
	const schedule = show.slides[index].schedule;
	const at = { ...slideMoment(schedule, schedule.length_ms), slide_ms: schedule.length_ms, begun_ms: begun(schedule) };
	return layerAt(show, index, at, values);
}

/**
 * A slide when a beat is complete. @param {PlayedShow} show
 * @param {number} index
 * @param {number} beat
 */
export function restLayer(show, index, beat) {
	const schedule = show.slides[index].schedule;
	return layerAt(show, index, {
		beat,
		since_ms: Infinity,
		slide_ms: schedule.beats[beat].end_ms,
		begun_ms: begun(schedule),
	});
}

const EVEN = [0, 0, 1, 1];

/**
 * A layer with the effect of a carry added to its objects' own values.
 * @param {Layer} layer
 * @param {Core.Moved[] | undefined} moved
 * @param {number} progress
 * @param {number} [ground]
 */
function movedLayer(layer, moved, progress, ground = 1) {
	if (!moved?.length && ground >= 1) return layer;
	const objects = new Map(layer.objects);
	for (const { object_id: id, ramps } of moved ?? [])
		objects.set(id, combine(objects.get(id) ?? STILL, layerValues(ramps, progress)));
	return { ...layer, objects, ground };
}

/**
 * The layers of a transition, from the back: the old slide, if any, and the new one.
 * @param {Core.Layers} layers
 * @param {Layer | null} going
 * @param {Layer} coming
 * @param {number} progress
 */
export function transitionLayers(layers, going, coming, progress) {
	if (!going) return [coming];
	const ground = layers.new_ground?.length ? valueAt(layers.new_ground, EVEN, progress) : 1;
	const pair = [
		movedLayer(going, layers.old_objects, progress),
		movedLayer(coming, layers.new_objects, progress, ground),
	];
	return layers.old_on_top ? pair.reverse() : pair;
}

/**
 * @returns {FrameState} layers from the back over black @param {PlayedShow} show
 * @param {number} timeMs
 * @param {boolean} [firstPass]
 */
export function frameStateAt(show, timeMs, firstPass = true) {
	const moment = momentAt(show, timeMs);
	if (moment.index < 0) return { layers: [], blackness: 0 };
	const staged = show.slides[moment.index];
	if (moment.phase === "to black" || moment.phase === "over") {
		const blackness = show.end === "black" ? Math.min(1, (timeMs - show.content_ms) / BLACK_MS) : 0;
		return { layers: [lastLayer(show, moment.index)], blackness };
	}
	const at = { ...moment, begun_ms: begun(staged.schedule) };
	if (moment.phase === "transition") {
		const progress = moment.slide_ms / staged.schedule.transition_ms;
		const coming = layerAt(show, moment.index, at, layerValues(staged.layers.new, progress));
		if (moment.index === 0 && firstPass) return { layers: [coming], blackness: 0 };
		const before = (moment.index - 1 + show.slides.length) % show.slides.length;
		const going = lastLayer(show, before, layerValues(staged.layers.old, progress));
		return { layers: transitionLayers(staged.layers, going, coming, progress), blackness: 0 };
	}
	return { layers: [layerAt(show, moment.index, at)], blackness: 0 };
}
