"""When a self-running slide changes, so that a viewer of frames can skip still spans."""

from collections.abc import Iterator

from ritornel.core.layout.marks import ClipMark
from ritornel.core.motion.sampling import Motion
from ritornel.core.schedule.performance import StagedSlide
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.counts import ON_SLIDE, UNTIL_SLIDE_ENDS
from ritornel.core.time.spans import Span


def changing_spans(staged: StagedSlide) -> tuple[Span, ...]:
    """The spans of the slide's clock in which the picture may change, in order and disjoint; between them it is
    constant.

    The transition into the slide and the start of each beat are included. A slide with a transition of 600 ms and a
    build that runs from 2000 to 2800 ms changes in [0, 601) and [2000, 2801).
    """
    schedule = staged.schedule
    if any(isinstance(mark, ClipMark) for mark in staged.drawing.ground):
        return (Span(0, schedule.length_ms),)
    motions = (*staged.tracks.motions, staged.tracks.view) if staged.tracks.view else staged.tracks.motions
    spans = [(0, schedule.transition_ms), *((beat.start_ms, beat.start_ms) for beat in schedule.beats)]
    spans.extend(span for motion in motions for span in _of(motion, schedule))
    merged: list[Span] = []
    for first, last in sorted(spans):
        # The state at the last instant is the one that stays, and is still a change against the instant before it.
        end = min(last + 1, schedule.length_ms)
        if merged and first <= merged[-1].end_ms:
            merged[-1] = Span(merged[-1].start_ms, max(merged[-1].end_ms, end))
        elif first < end:
            merged.append(Span(first, end))
    return tuple(merged)


def _of(motion: Motion, schedule: SlideSchedule) -> Iterator[tuple[int, int]]:
    """The first and last instant of a motion."""
    for entrance in motion.entrances:
        start = schedule.beats[entrance.beat].start_ms + entrance.offset_ms
        yield start, start
        yield start + entrance.lasts_ms, start + entrance.lasts_ms
    for segment in motion.segments:
        start = segment.offset_ms + (schedule.beats[segment.beat].start_ms if segment.beat != ON_SLIDE else 0)
        over = start + segment.cycle_ms * abs(segment.repeats)
        yield start, schedule.length_ms if segment.repeats == UNTIL_SLIDE_ENDS else over
