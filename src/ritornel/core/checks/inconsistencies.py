"""Slides that differ from all others, each with a fix: the notes in the margin of the overview."""

from collections import Counter
from collections.abc import Sequence

import msgspec

from ritornel.core.checks.finding import about_s
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeSlides, Edit, Several
from ritornel.core.document.edits.holds import hold_edits
from ritornel.core.document.show import AdvanceAfter, Show, Slide, Transition
from ritornel.core.schedule.reading import reading_time
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.milliseconds import seconds_text

MOST = 0.7
"""What at least seven of ten slides share is the habit of the show."""


class Difference(msgspec.Struct, frozen=True):
    """One note: its slide, what it says, why it matters, and what fixes it."""

    slide_id: str
    title: str
    why: str
    fix: Edit | None = None
    fix_words: str = ""


def differences_of(show: Show) -> tuple[Difference, ...]:
    """All notes in the order of the slides. Skipped slides are left out."""
    schedule = compile_show(show)
    shown = show.shown
    numbers = show.numbers
    found: list[Difference] = []
    habit = _habit(shown)
    for slide, times in zip(shown, schedule.slides, strict=True):
        number = numbers[slide.id]
        found += (
            _joins(slide, number, habit, shown) + _waits(slide, number, times, show) + _reading(slide, number, times)
        )
    return tuple(found)


def joins_of(show: Show) -> tuple[Difference, ...]:
    """The slides whose transition differs from most others, in order."""
    shown = show.shown
    habit = _habit(shown)
    numbers = show.numbers
    return tuple(note for slide in shown for note in _joins(slide, numbers[slide.id], habit, shown))


def _habit(shown: Sequence[Slide]) -> Transition | None:
    """The transition that most slides have; the first slide does not count."""
    if len(shown) < 4:
        return None
    counted = Counter((slide.transition.name, slide.transition.lasts_ms) for slide in shown[1:])
    (name, lasts), count = counted.most_common(1)[0]
    return Transition(name, lasts) if count >= MOST * (len(shown) - 1) else None


def _joins(slide: Slide, number: int, habit: Transition | None, shown: Sequence[Slide]) -> list[Difference]:
    if (
        habit is None
        or slide is shown[0]
        or (slide.transition.name, slide.transition.lasts_ms) == (habit.name, habit.lasts_ms)
    ):
        return []
    same = sum(
        (other.transition.name, other.transition.lasts_ms) == (habit.name, habit.lasts_ms) for other in shown[1:]
    )
    what = (
        "by " + slide.transition.name
        if slide.transition.name != habit.name
        else f"in {seconds_text(slide.transition.lasts_ms)} s"
    )
    fix = ChangeSlides((slide.id,), {"transition": to_builtins(habit)})
    why = f"{same} of {len(shown) - 1} slides come by {habit.name}, {seconds_text(habit.lasts_ms)} s."
    return [Difference(slide.id, f"{number} comes {what}", why, fix, f"Make it {habit.name}")]


def _waits(slide: Slide, number: int, times: SlideSchedule, show: Show) -> list[Difference]:
    """The waits of a self-running show that last as long as the default hold: one note a slide."""
    waits = times.untimed_waits
    if show.runs != "self-running" or not waits:
        return []
    edits = hold_edits(slide, {wait.cue_id: wait.hold_ms for wait in waits})
    length = seconds_text(waits[0].hold_ms)
    leaves = times.last_wait is not None and waits[0].cue_id == times.last_wait.cue_id
    if len(waits) > 1:
        title, why = f"{number} has {len(waits)} waits without a hold", f"each falls back on the usual {length} s"
    elif leaves:
        title, why = f"{number} is left without a hold", f"it is left after the usual {length} s"
    else:
        title, why = f"{number} has a wait without a hold", f"it falls back on the usual {length} s"
    words = f"Hold {length} s" if len(waits) == 1 else f"Hold each {length} s"
    fix: Edit = edits[0] if len(edits) == 1 else Several(words, edits)
    return [Difference(slide.id, title, f"Self-running, {why}.", fix, words)]


def _reading(slide: Slide, number: int, times: SlideSchedule) -> list[Difference]:
    reading = reading_time(slide, times)
    if not reading.is_short or not isinstance(slide.advance, AdvanceAfter):
        return []
    fix = ChangeSlides(
        (slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=reading.length_ms))}
    )
    why = (
        f"Its words take about {about_s(reading.needs_ms)} s to read (estimate). Once it is there, "
        f"it stays for {about_s(reading.there_ms)} s."
    )
    return [
        Difference(
            slide.id, f"{number} is shorter than its reading", why, fix, f"Make it {about_s(reading.length_ms)} s"
        )
    ]
