"""A show run by presses (domain rule 3), as a state that only events change.

What is seen is a function of the state and the clock; nothing is counted frame by frame. static/ritornel/player/live.js has the same
functions, and tests/vectors/live.json holds both to them.
"""

import msgspec

from ritornel.core.document.show import AdvanceAfter
from ritornel.core.motion.sampling import Instant
from ritornel.core.schedule.performance import Performance


class LiveState(msgspec.Struct, frozen=True):
    """Where a live show is. `began_ms` is the instant of the slide's 0; `begun_ms` say when each beat so far began on the slide's
    clock; `complete` is true where the current beat was brought to its end at once; `from_index` is the slide it came from (-1: black)."""

    index: int
    began_ms: float
    beat: int = 0
    begun_ms: tuple[float, ...] = ()
    complete: bool = False
    stepped_back: bool = False
    from_index: int = -1
    over: bool = False


def arrive(performance: Performance, index: int, now_ms: float, from_index: int = -1) -> LiveState:
    """The state at the 0 of shown slide number `index`."""
    return LiveState(index, now_ms, 0, (float(performance.slides[index].schedule.transition_ms),), from_index=from_index)


def slide_clock_ms(state: LiveState, now_ms: float) -> float:
    """The slide's clock."""
    return now_ms - state.began_ms


def beat_length_ms(performance: Performance, state: LiveState) -> int:
    """How long the current beat runs."""
    beat = performance.slides[state.index].schedule.beats[state.beat]
    return beat.end_ms - beat.start_ms


def since_ms(state: LiveState, now_ms: float) -> float:
    """How long the current beat has run; negative during the transition, infinite where it was completed at once."""
    return float("inf") if state.complete else slide_clock_ms(state, now_ms) - state.begun_ms[state.beat]


def waits_since_ms(performance: Performance, state: LiveState, now_ms: float) -> float | None:
    """For how long the wait after the current beat has been open; None while the beat runs or where no cue is waited for."""
    slide = performance.slides[state.index].schedule
    if state.beat + 1 >= len(slide.beats) and slide.last_wait is None:
        return None
    if state.complete:
        return 0.0
    open_for = since_ms(state, now_ms) - beat_length_ms(performance, state)
    return open_for if open_for >= 0 else None


def next_cue_id(performance: Performance, state: LiveState) -> str | None:
    """The id of the cue that the next press gives; None where a press would only hurry a slide that goes on by itself."""
    slide = performance.slides[state.index].schedule
    if state.beat + 1 < len(slide.beats):
        wait = slide.beats[state.beat + 1].wait
        return wait.cue_id if wait else None
    return slide.last_wait.cue_id if slide.last_wait else None


def cue(performance: Performance, state: LiveState, now_ms: float) -> LiveState:
    """Moves on by exactly one beat. What still runs is completed at once; the slide's clock does not jump."""
    if state.over:
        return state
    beats = performance.slides[state.index].schedule.beats
    if state.beat + 1 < len(beats):
        begun = (*state.begun_ms[: state.beat + 1], slide_clock_ms(state, now_ms))
        return msgspec.structs.replace(state, beat=state.beat + 1, begun_ms=begun, complete=False, stepped_back=False)
    return go_on(performance, state, now_ms)


def go_on(performance: Performance, state: LiveState, now_ms: float) -> LiveState:
    """To the next slide; after the last one, what the end says."""
    if state.index + 1 < len(performance.slides):
        return arrive(performance, state.index + 1, now_ms, state.index)
    if performance.schedule.end == "loop":
        return arrive(performance, 0, now_ms, state.index)
    if performance.schedule.end == "black":
        return msgspec.structs.replace(state, over=True, complete=True, began_ms=now_ms)
    return msgspec.structs.replace(state, complete=True, stepped_back=False)


def back(performance: Performance, state: LiveState, now_ms: float) -> LiveState:
    """The state at the end of the previous beat, at once. Before the show's first beat there is nothing to step back to."""
    if state.over:
        return stand(performance, state.index, len(performance.slides[state.index].schedule.beats) - 1, now_ms)
    if state.beat > 0:
        begun = state.begun_ms[: state.beat]
        return msgspec.structs.replace(state, beat=state.beat - 1, begun_ms=begun, complete=True, stepped_back=True)
    if state.index == 0:
        return state
    before = state.index - 1
    return stand(performance, before, len(performance.slides[before].schedule.beats) - 1, now_ms)


def stand(performance: Performance, index: int, beat: int, now_ms: float) -> LiveState:
    """The state at the end of a beat, at once, as a step back shows it. From there only a cue goes on."""
    beats = performance.slides[index].schedule.beats
    begun = tuple(float(entry.start_ms) for entry in beats[: beat + 1])
    return LiveState(index, now_ms - beats[beat].end_ms, beat, begun, complete=True, stepped_back=True)


def goes_on_at_ms(performance: Performance, state: LiveState) -> float | None:
    """The instant at which the show goes on by itself; None where only a cue does."""
    advance, earliest_ms = performance.slides[state.index].slide.advance, performance.slides[state.index].schedule.goes_on_ms
    beats = performance.slides[state.index].schedule.beats
    if state.over or state.stepped_back or earliest_ms is None or state.beat + 1 < len(beats):
        return None
    last = state.index + 1 >= len(performance.slides)
    if last and performance.schedule.end == "hold":
        return None
    if isinstance(advance, AdvanceAfter) and advance.cut_short:
        return state.began_ms + earliest_ms
    ended = 0.0 if state.complete else state.begun_ms[state.beat] + beat_length_ms(performance, state)
    return state.began_ms + max(earliest_ms, ended)


def in_transition(performance: Performance, state: LiveState, now_ms: float) -> bool:
    """Whether the transition still runs: it counts to beat 0, so a cue completes it."""
    clock = slide_clock_ms(state, now_ms)
    return state.beat == 0 and not state.complete and clock < performance.slides[state.index].schedule.transition_ms


def instant_of(state: LiveState, now_ms: float) -> Instant:
    """The instant for sampling the slide's tracks."""
    return Instant(state.beat, since_ms(state, now_ms), slide_clock_ms(state, now_ms), state.begun_ms)
