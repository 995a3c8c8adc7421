"""Lengths from reading, and spreading a show over a target (domain: takes, estimates)."""

import math

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeBuild, ChangeSlides, Edit, Several
from ritornel.core.document.objects import Lettered
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, Build, OnCue, Show, Slide
from ritornel.core.errors import BadValue
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.core.time.milliseconds import clock_text, round_half_up

READING_MS, WORDS_PER_S, SPOKEN_PER_S = 1500, 3.0, 2.2


def words_in(text: str) -> int:
    """How many words there are between white space.

    >>> words_in("Seventy-eight turns,  every evening.")
    4
    """
    return len(text.split())


def reading_ms(slide: Slide) -> int:
    """An estimate of what reading the slide takes: 1.5 s and a third of a second a word; nothing where there are no words.

    27 words take 10 500 ms.
    """
    words = sum(words_in(p.text) for item in slide.objects if isinstance(item, Lettered) for p in item.paragraphs)
    return round_half_up(READING_MS + words * 1000 / WORDS_PER_S) if words else 0


def speaking_ms(slide: Slide) -> int:
    """An estimate of what speaking the notes takes, at 2.2 words a second."""
    return round_half_up(words_in(slide.notes) * 1000 / SPOKEN_PER_S)


def read_through(show: Show, slide_ids: tuple[str, ...]) -> Edit:
    """The edit that gives slides which advance by themselves the time their words need, all builds included. Raises BadValue where
    none of them has words, or all advance on cue."""
    edits: list[Edit] = []
    for slide in show.slides:
        needs = reading_ms(slide)
        if slide.id in slide_ids and needs and isinstance(slide.advance, AdvanceAfter):
            # Reading begins when the slide is there; what comes later is read as it comes.
            after = compile_slide(slide, show.default_hold_ms, show.holds_by_cue, show.frame).transition_ms + needs
            edits.append(ChangeSlides((slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=after))}))
    if not edits:
        raise BadValue("Lengths from reading: none of these slides both has words and advances by itself.", "slide_ids")
    return Several(f"Lengths from reading for {len(edits)} slide{'' if len(edits) == 1 else 's'}", tuple(edits))


class Item(msgspec.Struct, frozen=True):
    """A time that may be stretched: the length of a slide, or the hold of a cue of it (`build_id`, or None for the one that leaves it)."""

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
        free = [(build, wait) for build, wait in zip(openers, waits, strict=True) if wait and wait.source != "voice mark"]
        items += [Item(number, False, build.id, wait.hold_ms) for build, wait in free]
        if isinstance(slide.advance, AdvanceAfter):
            items.append(Item(number, True, None, slide.advance.after_ms))
        elif schedule.last_wait and schedule.last_wait.source != "voice mark":
            items.append(Item(number, False, None, schedule.last_wait.hold_ms))
    return items


def _with_times(show: Show, items: list[Item], times: list[int]) -> Show:
    slides = list(show.slides)
    for item, time_ms in zip(items, times, strict=True):
        slide = slides[item.slide]
        if item.is_after:
            assert isinstance(slide.advance, AdvanceAfter)
            slides[item.slide] = msgspec.structs.replace(slide, advance=msgspec.structs.replace(slide.advance, after_ms=time_ms))
        elif item.build_id is None:
            assert isinstance(slide.advance, AdvanceOnCue)
            slides[item.slide] = msgspec.structs.replace(slide, advance=msgspec.structs.replace(slide.advance, hold_ms=time_ms))
        else:
            order = tuple(_held(build, time_ms) if build.id == item.build_id else build for build in slide.order)
            slides[item.slide] = msgspec.structs.replace(slide, order=order)
    return msgspec.structs.replace(show, slides=tuple(slides))


def _held(build: Build, time_ms: int) -> Build:
    assert isinstance(build.starts, OnCue)
    return msgspec.structs.replace(build, starts=msgspec.structs.replace(build.starts, hold_ms=time_ms))


def _length(show: Show, items: list[Item], times: list[int]) -> int:
    return compile_show(_with_times(show, items, times)).content_ms


def spread(show: Show, target_ms: int, first: int = 0) -> tuple[Edit, int]:
    """The edit that stretches holds and `after` lengths, from slide number `first` on, by one factor until the show's slides last
    `target_ms`, and the length that it reaches: the target, or the nearest to it where animations alone take longer. An animation is never
    stretched. Times are rounded down, the missing ms given one each to the largest fractions, earliest first. Raises BadValue where nothing can
    be stretched."""
    items = _items(show, first)
    if not any(item.value_ms for item in items):
        raise BadValue("Spreading: no slide here has a hold or a length of its own that could be stretched.", "target_ms")

    def times_at(factor: float) -> list[int]:
        return [math.floor(item.value_ms * factor + 1e-9) for item in items]

    low, high = 0.0, 1.0
    while _length(show, items, times_at(high)) < target_ms and high < 1e6:
        low, high = high, high * 2
    for _ in range(60):
        middle = (low + high) / 2
        if _length(show, items, times_at(middle)) <= target_ms:
            low = middle
        else:
            high = middle
    times = times_at(low)
    reached = _length(show, items, times)
    fractions = sorted(range(len(items)), key=lambda at: (-((items[at].value_ms * low) % 1), at))
    for at in fractions:
        if reached >= target_ms:
            break
        tried = [*times[:at], times[at] + 1, *times[at + 1 :]]
        length = _length(show, items, tried)
        if reached < length <= target_ms:
            times, reached = tried, length
    label = f"Spread the show to {clock_text(reached)}"
    return Several(label, tuple(_edits(show, items, times))), reached


def _edits(show: Show, items: list[Item], times: list[int]) -> list[Edit]:
    changed = _with_times(show, items, times)
    edits: list[Edit] = []
    for before, after in zip(show.slides, changed.slides, strict=True):
        if before.advance != after.advance:
            edits.append(ChangeSlides((after.id,), {"advance": to_builtins(after.advance)}))
        for old, new in zip(before.order, after.order, strict=True):
            if old != new:
                edits.append(ChangeBuild(after.id, new.id, {"starts": to_builtins(new.starts)}))
    return edits
