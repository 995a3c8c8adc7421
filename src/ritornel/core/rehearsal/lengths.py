"""Lengths from reading, and fitting a show to a length (domain: takes, estimates)."""

import math
from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Any

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeSlides, Edit, Several
from ritornel.core.document.edits.holds import hold_edits
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, Build, OnCue, Show
from ritornel.core.errors import BadValue
from ritornel.core.schedule.reading import reading_time
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.core.time.milliseconds import LONGEST_MS, clock_text

MOST_STEPS, BESIDE = 100, Fraction(1, 2**60)
"""In the search for a factor: of steps, and how near to a point its slope is taken."""
Time = Any
"""Milliseconds, whole or as an exact fraction while a factor is looked for."""


def read_through(show: Show, slide_ids: tuple[str, ...]) -> Edit:
    """The edit that gives slides which advance by themselves the time their text needs, with all builds.

    Raises BadValue where none of them has text, or all advance on cue.
    """
    edits: list[Edit] = []
    for slide in show.slides:
        if slide.id not in slide_ids or not isinstance(slide.advance, AdvanceAfter):
            continue
        reading = reading_time(slide, compile_slide(slide, show.default_hold_ms, show.holds_by_cue, show.frame))
        if reading.needs_ms:
            edits.append(
                ChangeSlides(
                    (slide.id,),
                    {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=reading.length_ms))},
                )
            )
    if not edits:
        raise BadValue("Lengths from reading: none of these slides both has words and advances by itself.", "slide_ids")
    return Several(f"Lengths from reading for {len(edits)} slide{'' if len(edits) == 1 else 's'}", tuple(edits))


class Item(msgspec.Struct, frozen=True):
    """A time that may be stretched: the length of a slide, or the hold of one of its cues (`build_id`, or None for the
    cue that leaves it).
    """

    slide: int
    is_after: bool
    build_id: str | None
    value_ms: int


def _items(show: Show, first: int) -> list[Item]:
    items: list[Item] = []
    for number, slide in enumerate(show.slides):
        if slide.skipped or number < first:
            continue
        schedule = compile_slide(slide, show.default_hold_ms, show.holds_by_cue, show.frame)
        openers = [build for build in slide.order if isinstance(build.starts, OnCue)]
        waits = [beat.wait for beat in schedule.beats[1:]]
        # What a voice's mark decides is the voice's, and no target stretches a voice.
        free = [
            (build, wait) for build, wait in zip(openers, waits, strict=True) if wait and wait.source != "voice mark"
        ]
        items += [Item(number, False, build.id, wait.hold_ms) for build, wait in free]
        if isinstance(slide.advance, AdvanceAfter):
            # A length below what the slide needs counts as what it needs.
            items.append(
                Item(number, True, None, slide.advance.after_ms if slide.advance.cut_short else schedule.length_ms)
            )
        elif schedule.last_wait and schedule.last_wait.source != "voice mark":
            items.append(Item(number, False, None, schedule.last_wait.hold_ms))
    return items


def _with_times(show: Show, items: Sequence[Item], times: Sequence[Time]) -> Show:
    slides = list(show.slides)
    for item, time_ms in zip(items, times, strict=True):
        slide = slides[item.slide]
        if item.is_after:
            assert isinstance(slide.advance, AdvanceAfter)
            slides[item.slide] = msgspec.structs.replace(
                slide, advance=msgspec.structs.replace(slide.advance, after_ms=time_ms)
            )
        elif item.build_id is None:
            assert isinstance(slide.advance, AdvanceOnCue)
            slides[item.slide] = msgspec.structs.replace(
                slide, advance=msgspec.structs.replace(slide.advance, hold_ms=time_ms)
            )
        else:
            order = tuple(_set_holds(build, time_ms) if build.id == item.build_id else build for build in slide.order)
            slides[item.slide] = msgspec.structs.replace(slide, order=order)
    return msgspec.structs.replace(show, slides=tuple(slides))


def _set_holds(build: Build, time_ms: Time) -> Build:
    assert isinstance(build.starts, OnCue)
    return msgspec.structs.replace(build, starts=msgspec.structs.replace(build.starts, hold_ms=time_ms))


class _Stretching:
    """The length of the show with other times. The length of a slide without stretchable times is computed once."""

    def __init__(self, show: Show, items: Sequence[Item]) -> None:
        self._show = show
        self._places: dict[int, list[int]] = {}
        for place, item in enumerate(items):
            self._places.setdefault(item.slide, []).append(place)
        self._items = items
        schedule = compile_show(show)
        shown = [number for number, slide in enumerate(show.slides) if not slide.skipped]
        rest_ms = sum(
            times.length_ms for number, times in zip(shown, schedule.slides, strict=True) if number not in self._places
        )
        self._fixed_ms = rest_ms + schedule.length_ms - schedule.content_ms

    def length_ms(self, times: Sequence[Time]) -> Time:
        """The show's length; exact for fractions."""
        return self._fixed_ms + sum(self.slide_ms(number, times) for number in self._places)

    def slide_ms(self, number: int, times: Sequence[Time]) -> Time:
        """The length of one slide."""
        places = self._places[number]
        one = msgspec.structs.replace(self._show, slides=(self._show.slides[number],))
        items = [msgspec.structs.replace(self._items[place], slide=0) for place in places]
        (slide,) = _with_times(one, items, [times[place] for place in places]).slides
        return compile_slide(slide, self._show.default_hold_ms, self._show.holds_by_cue, self._show.frame).length_ms


def fit_to_length(show: Show, target_ms: int, first: int = 0) -> tuple[Edit, int]:
    """The edit that stretches holds and `after` lengths, from slide number `first` on, by one factor until the show
    lasts `target_ms`, its black end included, and the length it reaches: the target, or the nearest to it.

    Animations, clips and voices are never stretched. Times are rounded down; the missing ms go one each to the largest
    fractions, earliest first. Where nothing can be stretched the edit has no changes. Holds of 500 and 1 500 to 1 310:
    the factor is 0.655, so 327.5 and 982.5, and the one missing ms goes to the first: 328 and 982.
    """
    items = _items(show, first)
    stretching = _Stretching(show, items)
    exact = _exact_times(stretching, items, target_ms)
    times = [math.floor(time) for time in exact]
    reached = int(stretching.length_ms(times))
    gained = True
    while reached < target_ms and gained:
        gained = False
        for at in sorted(range(len(items)), key=lambda at: (-(exact[at] % 1), at)):
            if reached == target_ms:
                break
            if times[at] >= math.ceil(exact[at]):
                continue
            tried = [*times[:at], times[at] + 1, *times[at + 1 :]]
            slide = items[at].slide
            longer_ms = stretching.slide_ms(slide, tried) - stretching.slide_ms(slide, times)
            if longer_ms and reached + longer_ms <= target_ms:
                times, reached, gained = tried, reached + longer_ms, True
    return Several(f"Spread the show to {clock_text(reached)}", tuple(_edits(show, items, times))), reached


def _exact_times(stretching: _Stretching, items: Sequence[Item], target_ms: int) -> list[Time]:
    """Each item's time at the one factor with which the length is nearest to the target.

    A time stops at a day; the others go on.
    """
    full: dict[int, Time] = {}
    while True:
        factor = _factor(stretching, items, full, target_ms)
        times: list[Time] = [full.get(place, item.value_ms * factor) for place, item in enumerate(items)]
        over = {place: LONGEST_MS for place, time in enumerate(times) if time > LONGEST_MS}
        if not over:
            return times
        full |= over


def _factor(stretching: _Stretching, items: Sequence[Item], full: Mapping[int, Time], target_ms: int) -> Time:
    """The factor at which the length is the target, exactly; 1 where no factor changes anything.

    The length grows with the factor along straight pieces that get steeper (sums and maxima of straight lines). So
    where a chord meets the target the length is too short or right, where a tangent does it is too long or right
    (Newton's step), and within one piece both are right.
    """

    def length_at(factor: Time) -> Time:
        return stretching.length_ms([full.get(place, item.value_ms * factor) for place, item in enumerate(items)])

    low, high = Fraction(0), Fraction(1)
    least = length_at(low)
    if least >= target_ms:
        return low if least < length_at(Fraction(1)) else Fraction(1)
    while (longest := length_at(high)) < target_ms:
        if high > 2 * LONGEST_MS:
            return Fraction(1)
        low, least, high = high, longest, high * 2
    for _ in range(MOST_STEPS):
        beside = max(high - BESIDE, low)
        slope = (longest - length_at(beside)) / (high - beside)
        tangent = high - (longest - target_ms) / slope if slope else high
        chord = low + (target_ms - least) * (high - low) / (longest - least)
        for factor in (chord, tangent):
            length = length_at(factor)
            if length == target_ms:
                return factor
            if length < target_ms:
                low, least = (factor, length) if factor > low else (low, least)
            else:
                high, longest = (factor, length) if factor < high else (high, longest)
    return low


def _edits(show: Show, items: Sequence[Item], times: Sequence[int]) -> list[Edit]:
    changed = _with_times(show, items, times)
    edits: list[Edit] = []
    for before, after in zip(show.slides, changed.slides, strict=True):
        if isinstance(after.advance, AdvanceAfter) and before.advance != after.advance:
            edits.append(ChangeSlides((after.id,), {"advance": to_builtins(after.advance)}))
        cues = [
            cue
            for cue in (*(build.starts for build in after.order), after.advance)
            if isinstance(cue, OnCue | AdvanceOnCue)
        ]
        edits += hold_edits(before, {cue.cue_id: cue.hold_ms for cue in cues if cue.hold_ms is not None})
    return edits
