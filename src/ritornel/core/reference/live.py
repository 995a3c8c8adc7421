"""A show on cue (domain rule 3), as a state that only events change.

What is visible is a function of the state and the clock; nothing is counted frame by frame. docs/timing.md has the
table of all events; each row has a test here and in the browser. static/ritornel/player/live.js has the same functions,
and tests/vectors/live.json checks both.
"""

from typing import Literal

import msgspec

from ritornel.core.motion.sampling import Instant
from ritornel.core.schedule.performance import Performance

Step = Literal["beat", "slide", "again", "black", "nothing"]


class LiveState(msgspec.Struct, frozen=True):
    """Where a live show is.

    `began_ms` is the instant of the slide's 0; `begun_ms` say when each beat so far began on the slide's clock;
    `completed_ms` is when a press completed the current beat at once, on the slide's clock (None: none did). After a
    step back only a cue goes on. `from_index` is the slide it came from (-1: black).
    """

    index: int
    began_ms: float
    beat: int = 0
    begun_ms: tuple[float, ...] = ()
    completed_ms: float | None = None
    stepped_back: bool = False
    from_index: int = -1
    over: bool = False


def arrive(performance: Performance, index: int, now_ms: float, from_index: int = -1) -> LiveState:
    """The state at the 0 of shown slide number `index`."""
    return LiveState(
        index, now_ms, 0, (float(performance.slides[index].schedule.transition_ms),), from_index=from_index
    )


def stand_ready(performance: Performance, index: int, now_ms: float) -> LiveState:
    """The state before the run begins: the slide stands as before its first build, its transition over.

    The clock starts when somebody begins.
    """
    state = arrive(performance, index, now_ms)
    return msgspec.structs.replace(state, began_ms=now_ms - state.begun_ms[0])


def slide_clock_ms(state: LiveState, now_ms: float) -> float:
    """The slide's clock."""
    return now_ms - state.began_ms


def beat_length_ms(performance: Performance, state: LiveState) -> int:
    """How long the current beat runs."""
    beat = performance.slides[state.index].schedule.beats[state.beat]
    return beat.end_ms - beat.start_ms


def since_ms(state: LiveState, now_ms: float) -> float:
    """How long the current beat has run; negative during the transition, infinite where it was completed at once."""
    return (
        float("inf") if state.completed_ms is not None else slide_clock_ms(state, now_ms) - state.begun_ms[state.beat]
    )


def ended_ms(performance: Performance, state: LiveState) -> float:
    """When the current beat has ended, on the slide's clock: by itself, or because it was completed."""
    return (
        state.completed_ms
        if state.completed_ms is not None
        else state.begun_ms[state.beat] + beat_length_ms(performance, state)
    )


def _is_last_beat(performance: Performance, state: LiveState) -> bool:
    return state.beat + 1 >= len(performance.slides[state.index].schedule.beats)


def goes_on_alone(performance: Performance, state: LiveState) -> bool:
    """Whether the slide goes on by itself from here: it does so also live, its last beat was reached, and nobody has
    stepped back.
    """
    schedule = performance.slides[state.index].schedule
    if state.over or state.stepped_back or schedule.goes_on_ms is None or not _is_last_beat(performance, state):
        return False
    return state.index + 1 < len(performance.slides) or performance.schedule.end != "hold"


def next_step(performance: Performance, state: LiveState) -> Step:
    """What the next cue does: the next beat, the next slide, the first slide again, black, or nothing."""
    if state.over:
        return "nothing"
    if not _is_last_beat(performance, state):
        return "beat"
    if state.index + 1 < len(performance.slides):
        return "slide"
    return {"loop": "again", "black": "black", "hold": "nothing"}[performance.schedule.end]  # type: ignore[return-value]


def waits_since_ms(performance: Performance, state: LiveState, now_ms: float) -> float | None:
    """How long the wait for the next cue has been open; None while the beat runs, and where no cue is expected.

    The wait before leaving a slide opens when everything on it has finished, its voice too. A slide with a voice of 9
    000, left at 10 000: 1 000. A cue at 4 000, a step back at 5 000, the cue again at 11 000: 6 000.
    """
    if next_step(performance, state) == "nothing" or goes_on_alone(performance, state):
        return None
    opens_ms = ended_ms(performance, state)
    if _is_last_beat(performance, state):
        voice = performance.slides[state.index].schedule.voice
        opens_ms = max(opens_ms, voice.end_ms if voice else 0)
    open_for = slide_clock_ms(state, now_ms) - opens_ms
    return open_for if open_for >= 0 else None


def next_cue_id(performance: Performance, state: LiveState) -> str | None:
    """The id of the next cue, by which a take knows its wait; None where the slide has no cue of its own for it."""
    slide = performance.slides[state.index].schedule
    if state.beat + 1 < len(slide.beats):
        wait = slide.beats[state.beat + 1].wait
        return wait.cue_id if wait else None
    return slide.last_wait.cue_id if slide.last_wait else None


def cue(performance: Performance, state: LiveState, now_ms: float) -> LiveState:
    """Moves on by exactly one beat. Whatever still runs is completed at once; the slide's clock does not jump."""
    if state.over:
        return state
    if not _is_last_beat(performance, state):
        begun = (*state.begun_ms[: state.beat + 1], slide_clock_ms(state, now_ms))
        return msgspec.structs.replace(
            state, beat=state.beat + 1, begun_ms=begun, completed_ms=None, stepped_back=False
        )
    return go_on(performance, state, now_ms)


def go_on(performance: Performance, state: LiveState, now_ms: float) -> LiveState:
    """Moves to the next slide; after the last one, the show's end decides. A show that holds its end only completes
    what still runs.
    """
    if state.index + 1 < len(performance.slides):
        return arrive(performance, state.index + 1, now_ms, state.index)
    if performance.schedule.end == "loop":
        return arrive(performance, 0, now_ms, state.index)
    if performance.schedule.end == "black":
        return msgspec.structs.replace(state, over=True, completed_ms=slide_clock_ms(state, now_ms), began_ms=now_ms)
    clock_ms = slide_clock_ms(state, now_ms)
    if clock_ms >= ended_ms(performance, state):
        return state
    return msgspec.structs.replace(state, completed_ms=clock_ms, stepped_back=False)


def back(performance: Performance, state: LiveState, now_ms: float) -> LiveState:
    """The state at the end of the beat before, at once; within a slide its clock runs on.

    Before the show's first beat there is nothing to step back to.
    """
    if state.over:
        return stand(performance, state.index, len(performance.slides[state.index].schedule.beats) - 1, now_ms)
    if state.beat > 0:
        begun = state.begun_ms[: state.beat]
        return msgspec.structs.replace(
            state, beat=state.beat - 1, begun_ms=begun, completed_ms=slide_clock_ms(state, now_ms), stepped_back=True
        )
    if state.index == 0:
        return state
    before = state.index - 1
    return stand(performance, before, len(performance.slides[before].schedule.beats) - 1, now_ms)


def stand(performance: Performance, index: int, beat: int, now_ms: float) -> LiveState:
    """The state at the end of a beat, at once, as a step back shows it. From there only a cue goes on."""
    beats = performance.slides[index].schedule.beats
    begun = tuple(float(entry.start_ms) for entry in beats[: beat + 1])
    return LiveState(
        index, now_ms - beats[beat].end_ms, beat, begun, completed_ms=float(beats[beat].end_ms), stepped_back=True
    )


def goes_on_at_ms(performance: Performance, state: LiveState) -> float | None:
    """The instant at which the show goes on by itself: when its time has passed and its last beat has ended; live,
    nothing is cut short. None where only a cue goes on.
    """
    earliest_ms = performance.slides[state.index].schedule.goes_on_ms
    if earliest_ms is None or not goes_on_alone(performance, state):
        return None
    return state.began_ms + max(earliest_ms, ended_ms(performance, state))


def in_transition(performance: Performance, state: LiveState, now_ms: float) -> bool:
    """Whether the transition still runs: it counts to beat 0, so a cue completes it."""
    clock = slide_clock_ms(state, now_ms)
    return (
        state.beat == 0
        and state.completed_ms is None
        and clock < performance.slides[state.index].schedule.transition_ms
    )


def instant_of(state: LiveState, now_ms: float) -> Instant:
    """The instant for sampling the slide's tracks."""
    return Instant(state.beat, since_ms(state, now_ms), slide_clock_ms(state, now_ms), state.begun_ms)
