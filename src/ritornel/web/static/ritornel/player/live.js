// A show run by presses: the functions of core/schedule/live.py, held to them by tests/vectors/live.json.
import { layerValues } from "./sampling.js";
import { BLACK_MS, layerAt, transitionLayers } from "./sight.js";

export function arrive(show, index, nowMs, fromIndex = -1) {
  return {
    index, began_ms: nowMs, beat: 0, begun_ms: [show.slides[index].schedule.transition_ms],
    complete: false, stepped_back: false, from_index: fromIndex, over: false,
  };
}

const clock = (state, nowMs) => nowMs - state.began_ms;

export function sinceMs(state, nowMs) {
  return state.complete ? Infinity : clock(state, nowMs) - state.begun_ms[state.beat];
}

function beatLengthMs(show, state) {
  const beat = show.slides[state.index].schedule.beats[state.beat];
  return beat.end_ms - beat.start_ms;
}

/** For how long the wait has been open; null while the beat runs or where no cue is waited for. */
export function waitsSinceMs(show, state, nowMs) {
  const schedule = show.slides[state.index].schedule;
  if (state.beat + 1 >= schedule.beats.length && !schedule.last_wait) return null;
  if (state.complete) return 0;
  const open = sinceMs(state, nowMs) - beatLengthMs(show, state);
  return open >= 0 ? open : null;
}

export function nextCueId(show, state) {
  const schedule = show.slides[state.index].schedule;
  if (state.beat + 1 < schedule.beats.length) return schedule.beats[state.beat + 1].wait?.cue_id ?? null;
  return schedule.last_wait?.cue_id ?? null;
}

export function cue(show, state, nowMs) {
  if (state.over) return state;
  if (state.beat + 1 < show.slides[state.index].schedule.beats.length) {
    const begun = [...state.begun_ms.slice(0, state.beat + 1), clock(state, nowMs)];
    return { ...state, beat: state.beat + 1, begun_ms: begun, complete: false, stepped_back: false };
  }
  return goOn(show, state, nowMs);
}

export function goOn(show, state, nowMs) {
  if (state.index + 1 < show.slides.length) return arrive(show, state.index + 1, nowMs, state.index);
  if (show.end === "loop") return arrive(show, 0, nowMs, state.index);
  if (show.end === "black") return { ...state, over: true, complete: true, began_ms: nowMs };
  return { ...state, complete: true, stepped_back: false };
}

/** The state at the end of a beat, at once: what a step back or a jump to a stop shows. */
export function stand(show, index, beat, nowMs) {
  const { beats } = show.slides[index].schedule;
  return {
    index, began_ms: nowMs - beats[beat].end_ms, beat, begun_ms: beats.slice(0, beat + 1).map((entry) => entry.start_ms),
    complete: true, stepped_back: true, from_index: -1, over: false,
  };
}

export function back(show, state, nowMs) {
  if (state.over) return stand(show, state.index, show.slides[state.index].schedule.beats.length - 1, nowMs);
  if (state.beat > 0) {
    return { ...state, beat: state.beat - 1, begun_ms: state.begun_ms.slice(0, state.beat), complete: true, stepped_back: true };
  }
  if (state.index === 0) return state;
  const before = state.index - 1;
  return stand(show, before, show.slides[before].schedule.beats.length - 1, nowMs);
}

/** When the show goes on by itself; null where only a cue does. */
export function goesOnAtMs(show, state) {
  const { advance, schedule } = show.slides[state.index];
  // Editions made before slides followed voices say it only in how the slide advances.
  const earliest = schedule.goes_on_ms ?? (advance.rule === "after" ? Math.max(advance.after_ms, advance.cut_short ? schedule.transition_ms : 0) : null);
  if (state.over || state.stepped_back || earliest === null || state.beat + 1 < schedule.beats.length) return null;
  if (state.index + 1 >= show.slides.length && show.end === "hold") return null;
  if (advance.cut_short) return state.began_ms + earliest;
  const ended = state.complete ? 0 : state.begun_ms[state.beat] + beatLengthMs(show, state);
  return state.began_ms + Math.max(earliest, ended);
}

export function inTransition(show, state, nowMs) {
  return state.beat === 0 && !state.complete && clock(state, nowMs) < show.slides[state.index].schedule.transition_ms;
}

/** What a live show shows. `leaving` is the layer of the slide before as it was when it was left. */
export function liveSight(show, state, nowMs, leaving) {
  const staged = show.slides[state.index];
  const at = { beat: state.beat, since_ms: sinceMs(state, nowMs), slide_ms: clock(state, nowMs), begun_ms: state.begun_ms };
  const layer = layerAt(show, state.index, at);
  if (state.over) return { layers: [layer], blackness: Math.min(1, clock(state, nowMs) / BLACK_MS) };
  if (!inTransition(show, state, nowMs)) return { layers: [layer], blackness: 0 };
  const progress = clock(state, nowMs) / staged.schedule.transition_ms;
  layer.values = layerValues(staged.layers.new, progress);
  const going = leaving ? { ...leaving, values: layerValues(staged.layers.old, progress) } : null;
  return { layers: transitionLayers(staged.layers, going, layer, progress), blackness: 0 };
}
