"""The whole show on one clock (domain rules 6 and 7)."""

from bisect import bisect_right
from functools import lru_cache
from itertools import accumulate
from typing import Literal

import msgspec

from ritornel.core.document.identity import Itself
from ritornel.core.document.show import Frame, Show
from ritornel.core.errors import UnknownName
from ritornel.core.schedule.slide_schedule import SlideSchedule, compile_slide
from ritornel.core.time.spans import Span

BLACK_MS = 600
"""How long a show that ends in black takes to get there; added to its length."""

Phase = Literal["empty", "transition", "beat", "wait", "rest", "to black", "over"]


class ShowSchedule(msgspec.Struct, frozen=True):
    """The shown slides in order; slide number `i` begins at `starts_ms[i]` and has its own length.

    `length_ms` includes the black end.
    """

    slides: tuple[SlideSchedule, ...]
    starts_ms: tuple[int, ...]
    content_ms: int
    length_ms: int
    end: Literal["hold", "loop", "black"]

    def index_of(self, slide_id: str) -> int:
        """The index of the slide among those shown. Raises UnknownName for a skipped or missing slide."""
        for index, slide in enumerate(self.slides):
            if slide.slide_id == slide_id:
                return index
        raise UnknownName(f"The slide “{slide_id}” is not shown: it is skipped, or not in the show.")

    def leaves_on_cue(self, index: int) -> bool:
        """Whether shown slide number `index`, live, waits for a cue after its last beat: it does not go on by itself,
        and something follows it.
        """
        return self.slides[index].goes_on_ms is None and (index + 1 < len(self.slides) or self.end != "hold")

    def cues_of(self, index: int) -> int:
        """How many cues a live run waits for on shown slide number `index`, with the one that leaves it.

        A cue that would only shorten a slide which goes on by itself does not count.
        """
        return len(self.slides[index].beats) - 1 + self.leaves_on_cue(index)

    def span_of(self, index: int) -> Span:
        """The span of shown slide number `index`."""
        return Span(self.starts_ms[index], self.starts_ms[index] + self.slides[index].length_ms)


class Moment(msgspec.Struct, frozen=True):
    """A position in a show: the shown slide's index, its clock, its beat and how long ago that began (negative before
    beat 0).
    """

    index: int
    slide_ms: float
    beat: int
    since_ms: float
    phase: Phase


@lru_cache(maxsize=64)
def _one_of_equals(holds: frozenset[tuple[str, int]]) -> Itself:
    """One key for all equal holds, so that they are compared once a show and not once a slide."""
    return Itself(dict(holds))


@lru_cache(maxsize=4000)
def _compile(slide: Itself, default_hold_ms: int, holds: Itself, frame: Frame) -> SlideSchedule:
    return compile_slide(slide.value, default_hold_ms, holds.value, frame)


def forget_schedules() -> None:
    """Drops what is kept of slides, so that all are computed again: for measuring."""
    _compile.cache_clear()


def compile_show(show: Show) -> ShowSchedule:
    """The schedule of the show.

    A slide's schedule is kept as long as the slide is the same object, so an edit of one slide of 500 computes one
    slide.
    """
    holds = _one_of_equals(frozenset(show.holds_by_cue.items()))
    slides = tuple(_compile(Itself(slide), show.default_hold_ms, holds, show.frame) for slide in show.shown)
    ends = tuple(accumulate(slide.length_ms for slide in slides))
    content_ms = ends[-1] if ends else 0
    black_ms = BLACK_MS if show.end == "black" and slides else 0
    # A show of length 0 has no pass to go round in.
    end = "hold" if show.end == "loop" and content_ms == 0 else show.end
    return ShowSchedule(slides, (0, *ends[:-1]) if ends else (), content_ms, content_ms + black_ms, end)


def renewed_at_ms(schedule: ShowSchedule, time_ms: float) -> int | None:
    """When a show that runs at `time_ms` can switch to a newer edition without a break: a looping one at the end of its
    pass, any other never.

    >>> renewed_at_ms(ShowSchedule((), (), 32_400, 32_400, "loop"), 40_000)
    64800
    """
    if schedule.end != "loop" or not schedule.length_ms:
        return None
    return (int(max(time_ms, 0) // schedule.length_ms) + 1) * schedule.length_ms


def slide_moment(slide: SlideSchedule, slide_ms: float) -> tuple[int, float, Phase]:
    """The beat, the time since it began, and the phase on the slide's own clock."""
    beat = 0
    for index, entry in enumerate(slide.beats):
        if entry.start_ms > slide_ms:
            break
        beat = index
    since_ms = slide_ms - slide.beats[beat].start_ms
    if slide_ms < slide.transition_ms:
        return beat, since_ms, "transition"
    if slide_ms < slide.beats[beat].end_ms:
        return beat, since_ms, "beat"
    waiting = beat + 1 < len(slide.beats) or slide.last_wait is not None
    return beat, since_ms, "wait" if waiting else "rest"


def moment_at(schedule: ShowSchedule, time_ms: float) -> Moment:
    """The position of the self-running show. A looping show begins again without end; any other stays at its end."""
    if not schedule.slides:
        return Moment(-1, 0.0, 0, 0.0, "empty")
    if schedule.end == "loop" and schedule.length_ms:
        time_ms = time_ms % schedule.length_ms
    time_ms = max(time_ms, 0)
    last = len(schedule.slides) - 1
    if time_ms >= schedule.content_ms:
        slide = schedule.slides[last]
        beat, since_ms, _ = slide_moment(slide, slide.length_ms)
        phase: Phase = "to black" if time_ms < schedule.length_ms else "over"
        return Moment(last, time_ms - schedule.starts_ms[last], beat, since_ms, phase)
    index = bisect_right(schedule.starts_ms, time_ms) - 1
    slide_ms = time_ms - schedule.starts_ms[index]
    beat, since_ms, found = slide_moment(schedule.slides[index], slide_ms)
    return Moment(index, slide_ms, beat, since_ms, found)
