"""What differs on one slide from all the others, with a fix: the notes in the margin of the overview."""

from collections import Counter
from collections.abc import Sequence

import msgspec

from ritornel.core.checks.finding import about_s
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeSlides, Edit
from ritornel.core.document.edits.holds import hold_edits
from ritornel.core.document.show import AdvanceAfter, Show, Slide, Transition
from ritornel.core.schedule.reading import reading_time
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.milliseconds import seconds_text

MOST = 0.7
"""What at least seven of ten slides share is the habit of the show."""


class Difference(msgspec.Struct, frozen=True):
    """One note: its slide, what it says, why it matters, and what would fix it."""

    slide_id: str
    title: str
    why: str
    fix: Edit | None = None
    fix_words: str = ""


def differences_of(show: Show) -> tuple[Difference, ...]:
    """All notes in the order of the slides. Skipped slides are not looked at."""
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
    """The slides that come by another transition than the others, in order."""
    shown = show.shown
    habit = _habit(shown)
    numbers = show.numbers
    return tuple(note for slide in shown for note in _joins(slide, numbers[slide.id], habit, shown))


def _habit(shown: Sequence[Slide]) -> Transition | None:
    """The transition that most slides but the first come by."""
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
    """Waits of a self-running show that last only as long as waits usually do."""
    if show.runs != "self-running":
        return []
    found = []
    for wait in times.untimed_waits:
        (fix,) = hold_edits(slide, {wait.cue_id: wait.hold_ms})
        length = seconds_text(wait.hold_ms)
        leaves = times.last_wait is not None and wait.cue_id == times.last_wait.cue_id
        title = f"{number} is left without a hold" if leaves else f"{number} has a wait without a hold"
        why = (
            (f"Self-running, it is left after the usual {length} s.")
            if leaves
            else f"Self-running, it falls back on the usual {length} s."
        )
        found.append(Difference(slide.id, title, why, fix, f"Hold {length} s"))
    return found


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
