// A show on cue: the functions of core/reference/live.py, checked by tests/vectors/live.json.
import { layerValues } from "./sampling.js";
import { BLACK_MS, layerAt, transitionLayers } from "./frame-state.js";

/**
 * @param {PlayedShow} show
 * @param {number} index
 * @param {number} nowMs
 * @param {number} [fromIndex]
 * @returns {LiveState}
 */
export function arrive(show, index, nowMs, fromIndex = -1) {
	return {
		index,
		began_ms: nowMs,
		beat: 0,
		begun_ms: [show.slides[index].schedule.transition_ms],
		completed_ms: null,
		stepped_back: false,
		from_index: fromIndex,
		over: false,
	};
}

/**
 * The state before the run begins: the slide is there, its transition over, and the clock stands.
 * @param {PlayedShow} show
 * @param {number} index
 * @param {number} nowMs
 */
export function standReady(show, index, nowMs) {
	const state = arrive(show, index, nowMs);
	return { ...state, began_ms: nowMs - state.begun_ms[0] };
}

/** @param {LiveState} state @param {number} nowMs */
const clock = (state, nowMs) => nowMs - state.began_ms;

/** @param {LiveState} state @param {number} nowMs */
export function sinceMs(state, nowMs) {
	return state.completed_ms !== null ? Infinity : clock(state, nowMs) - state.begun_ms[state.beat];
}

/**
 * When the current beat has ended, on the slide's clock. @param {PlayedShow} show
 * @param {LiveState} state
 */
function endedMs(show, state) {
	const beat = show.slides[state.index].schedule.beats[state.beat];
	return state.completed_ms ?? state.begun_ms[state.beat] + beat.end_ms - beat.start_ms;
}

/** @param {PlayedShow} show @param {LiveState} state */
const isLastBeat = (show, state) => state.beat + 1 >= show.slides[state.index].schedule.beats.length;

// Editions made before slides said whether they go on by themselves also live do so where they advance by a time.
/** @param {{advance: Core.Advance, schedule: Core.SlideSchedule}} slide */
function goesOnMs({ advance, schedule }) {
	if (schedule.goes_on_ms !== undefined) return schedule.goes_on_ms;
	return advance.rule === "after" ? advance.after_ms : null;
}

/**
 * Whether the slide goes on by itself from here. @param {PlayedShow} show
 * @param {LiveState} state
 */
export function goesOnAlone(show, state) {
	if (state.over || state.stepped_back || goesOnMs(show.slides[state.index]) === null || !isLastBeat(show, state))
		return false;
	return state.index + 1 < show.slides.length || show.end !== "hold";
}

/**
 * What the next cue does: "beat", "slide", "again" (from the first slide), "black" or "nothing".
 * @param {PlayedShow} show
 * @param {LiveState} state
 */
export function nextStep(show, state) {
	if (state.over) return "nothing";
	if (!isLastBeat(show, state)) return "beat";
	if (state.index + 1 < show.slides.length) return "slide";
	return { loop: "again", black: "black", hold: "nothing" }[show.end];
}

/**
 * How long the wait for the next cue has been open; null while the beat runs, and where no cue is expected.
 * @param {PlayedShow} show
 * @param {LiveState} state
 * @param {number} nowMs
 */
export function waitsSinceMs(show, state, nowMs) {
	if (nextStep(show, state) === "nothing" || goesOnAlone(show, state)) return null;
	const voice = isLastBeat(show, state) ? show.slides[state.index].schedule.voice : null;
	const open = clock(state, nowMs) - Math.max(endedMs(show, state), voice?.end_ms ?? 0);
	return open >= 0 ? open : null;
}

/** @param {PlayedShow} show @param {LiveState} state */
export function nextCueId(show, state) {
	const schedule = show.slides[state.index].schedule;
	if (state.beat + 1 < schedule.beats.length) return schedule.beats[state.beat + 1].wait?.cue_id ?? null;
	return schedule.last_wait?.cue_id ?? null;
}

/** @param {PlayedShow} show @param {LiveState} state @param {number} nowMs */
export function cue(show, state, nowMs) {
	if (state.over) return state;
	if (!isLastBeat(show, state)) {
		const begun = [...state.begun_ms.slice(0, state.beat + 1), clock(state, nowMs)];
		return { ...state, beat: state.beat + 1, begun_ms: begun, completed_ms: null, stepped_back: false };
	}
	return goOn(show, state, nowMs);
}

/** @param {PlayedShow} show @param {LiveState} state @param {number} nowMs */
export function goOn(show, state, nowMs) {
	if (state.index + 1 < show.slides.length) return arrive(show, state.index + 1, nowMs, state.index);
	if (show.end === "loop") return arrive(show, 0, nowMs, state.index);
	const now = clock(state, nowMs);
	if (show.end === "black") return { ...state, over: true, completed_ms: now, began_ms: nowMs };
	return now >= endedMs(show, state) ? state : { ...state, completed_ms: now, stepped_back: false };
}

/**
 * The state at the end of a beat, at once: what a step back or a jump to a stop shows.
 * @param {PlayedShow} show
 * @param {number} index
 * @param {number} beat
 * @param {number} nowMs
 */
export function stand(show, index, beat, nowMs) {
	const { beats } = show.slides[index].schedule;
	return {
		index,
		began_ms: nowMs - beats[beat].end_ms,
		beat,
		begun_ms: beats.slice(0, beat + 1).map((entry) => entry.start_ms),
		completed_ms: beats[beat].end_ms,
		stepped_back: true,
		from_index: -1,
		over: false,
	};
}

/** @param {PlayedShow} show @param {LiveState} state @param {number} nowMs */
export function back(show, state, nowMs) {
	if (state.over) return stand(show, state.index, show.slides[state.index].schedule.beats.length - 1, nowMs);
	if (state.beat > 0) {
		return {
			...state,
			beat: state.beat - 1,
			begun_ms: state.begun_ms.slice(0, state.beat),
			completed_ms: clock(state, nowMs),
			stepped_back: true,
		};
	}
	if (state.index === 0) return state;
	const before = state.index - 1;
	return stand(show, before, show.slides[before].schedule.beats.length - 1, nowMs);
}

/**
 * When the show goes on by itself; null where only a cue goes on.
 * @param {PlayedShow} show
 * @param {LiveState} state
 */
export function goesOnAtMs(show, state) {
	const earliest = goesOnMs(show.slides[state.index]);
	if (earliest === null || !goesOnAlone(show, state)) return null;
	return state.began_ms + Math.max(earliest, endedMs(show, state));
}

/** @param {PlayedShow} show @param {LiveState} state @param {number} nowMs */
export function inTransition(show, state, nowMs) {
	return (
		state.beat === 0 &&
		state.completed_ms === null &&
		clock(state, nowMs) < show.slides[state.index].schedule.transition_ms
	);
}

/**
 * The frame state of a live show. `leaving` is the layer of the slide before at the moment when it was left.
 * @param {PlayedShow} show
 * @param {LiveState} state
 * @param {number} nowMs
 * @param {any} leaving
 */
export function liveFrameState(show, state, nowMs, leaving) {
	const staged = show.slides[state.index];
	const at = {
		beat: state.beat,
		since_ms: sinceMs(state, nowMs),
		slide_ms: clock(state, nowMs),
		begun_ms: state.begun_ms,
	};
	const layer = layerAt(show, state.index, at);
	if (state.over) return { layers: [layer], blackness: Math.min(1, clock(state, nowMs) / BLACK_MS) };
	if (!inTransition(show, state, nowMs)) return { layers: [layer], blackness: 0 };
	const progress = clock(state, nowMs) / staged.schedule.transition_ms;
	layer.values = layerValues(staged.layers.new, progress);
	const going = leaving ? { ...leaving, values: layerValues(staged.layers.old, progress) } : null;
	return { layers: transitionLayers(staged.layers, going, layer, progress), blackness: 0 };
}
