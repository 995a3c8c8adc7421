"""What differs on one slide from all the others, with a mend: the notes in the margin of the overview."""

from collections import Counter

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeBuild, ChangeSlides, Edit
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, OnCue, Show, Slide, Transition
from ritornel.core.schedule.lengths import reading_ms
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.milliseconds import seconds_text

MOST = 0.7
"""What at least seven of ten slides share is the habit of the show."""


class Difference(msgspec.Struct, frozen=True):
    """One note: its slide, what it says, why it matters, and what would mend it."""

    slide_id: str
    title: str
    why: str
    mend: Edit | None = None
    mend_words: str = ""


def differences_of(show: Show) -> tuple[Difference, ...]:
    """All notes in the order of the slides. Skipped slides are not looked at."""
    schedule = compile_show(show)
    shown = [slide for slide in show.slides if not slide.skipped]
    numbers = {slide.id: number for number, slide in enumerate(show.slides, 1)}
    found: list[Difference] = []
    habit = _habit(shown)
    for slide, times in zip(shown, schedule.slides, strict=True):
        number = numbers[slide.id]
        found += _joins(slide, number, habit, shown) + _waits(slide, number, times, show) + _reading(slide, number, times)
    return tuple(found)


def joins_of(show: Show) -> tuple[Difference, ...]:
    """The slides that come by another transition than the others, in order."""
    shown = [slide for slide in show.slides if not slide.skipped]
    habit = _habit(shown)
    numbers = {slide.id: number for number, slide in enumerate(show.slides, 1)}
    return tuple(note for slide in shown for note in _joins(slide, numbers[slide.id], habit, shown))


def _habit(shown: list[Slide]) -> Transition | None:
    """The transition that most slides but the first come by."""
    if len(shown) < 4:
        return None
    counted = Counter((slide.transition.name, slide.transition.lasts_ms) for slide in shown[1:])
    (name, lasts), count = counted.most_common(1)[0]
    return Transition(name, lasts) if count >= MOST * (len(shown) - 1) else None


def _joins(slide: Slide, number: int, habit: Transition | None, shown: list[Slide]) -> list[Difference]:
    if habit is None or slide is shown[0] or (slide.transition.name, slide.transition.lasts_ms) == (habit.name, habit.lasts_ms):
        return []
    same = sum((other.transition.name, other.transition.lasts_ms) == (habit.name, habit.lasts_ms) for other in shown[1:])
    what = "by " + slide.transition.name if slide.transition.name != habit.name else f"in {seconds_text(slide.transition.lasts_ms)} s"
    mend = ChangeSlides((slide.id,), {"transition": to_builtins(habit)})
    why = f"{same} of {len(shown) - 1} slides come by {habit.name}, {seconds_text(habit.lasts_ms)} s."
    return [Difference(slide.id, f"{number} comes {what}", why, mend, f"Make it {habit.name}")]


def _waits(slide: Slide, number: int, times: SlideSchedule, show: Show) -> list[Difference]:
    """Waits of a self-running show that last only as long as waits usually do."""
    if show.runs != "self-running":
        return []
    hold = show.default_hold_ms
    found = []
    openers = [build for build in slide.order if isinstance(build.starts, OnCue)]
    for build, beat in zip(openers, times.beats[1:], strict=True):
        if beat.wait is not None and beat.wait.source == "default" and isinstance(build.starts, OnCue):
            mend = ChangeBuild(slide.id, build.id, {"starts": to_builtins(msgspec.structs.replace(build.starts, hold_ms=hold))})
            why = f"Self-running, it falls back on the usual {seconds_text(hold)} s."
            found.append(Difference(slide.id, f"{number} has a wait without a hold", why, mend, f"Hold {seconds_text(hold)} s"))
    if isinstance(slide.advance, AdvanceOnCue) and times.last_wait is not None and times.last_wait.source == "default":
        mend_out = ChangeSlides((slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, hold_ms=hold))})
        why = f"Self-running, it is left after the usual {seconds_text(hold)} s."
        found.append(Difference(slide.id, f"{number} is left without a hold", why, mend_out, f"Hold {seconds_text(hold)} s"))
    return found


def _reading(slide: Slide, number: int, times: SlideSchedule) -> list[Difference]:
    needs = reading_ms(slide)
    shown = times.length_ms - times.transition_ms
    if not needs or shown >= needs or not isinstance(slide.advance, AdvanceAfter):
        return []
    after = -(-(needs + times.transition_ms) // 100) * 100  # an estimate is no finer than a tenth of a second
    mend = ChangeSlides((slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=after))})
    why = f"Its words take about {needs / 1000:.1f} s to read (estimate). Once it is there, it stays for {shown / 1000:.1f} s."
    return [Difference(slide.id, f"{number} is shorter than its reading", why, mend, f"Make it {seconds_text(after)} s")]
