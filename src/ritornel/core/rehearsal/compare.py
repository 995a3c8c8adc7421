"""Takes side by side: the times of each slide and wait with their median and spread, and what a timing would do to the
show.
"""

from collections.abc import Collection, Sequence

import msgspec

from ritornel.core.document.edits import Edit, Several, apply_edit
from ritornel.core.document.integrity import cue_ids
from ritornel.core.document.show import Show
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.beats import beat_lines
from ritornel.core.rehearsal.lengths import fit_to_length
from ritornel.core.rehearsal.take import TakeTiming, follow_timing, use_timing
from ritornel.core.schedule.show_schedule import ShowSchedule, compile_show
from ritornel.core.time.milliseconds import round_half_up


class Spread(msgspec.Struct, frozen=True):
    """The least, middle and greatest time in several takes."""

    least_ms: int
    median_ms: int
    greatest_ms: int


def spread_of(times: Sequence[int | None]) -> Spread | None:
    """The spread of the known times; None where there is none.

    With an even number the median is the mean of the two in the middle, rounded half up.

    >>> spread_of([4000, None, 1000, 2001])
    Spread(least_ms=1000, median_ms=2001, greatest_ms=4000)
    >>> spread_of([1000, 2001]).median_ms
    1501
    """
    known = sorted(time for time in times if time is not None)
    if not known:
        return None
    middle = len(known) // 2
    median = known[middle] if len(known) % 2 else round_half_up((known[middle - 1] + known[middle]) / 2)
    return Spread(known[0], median, known[-1])


class HoldLine(msgspec.Struct, frozen=True):
    """A wait in all takes, in their order; None where a take has no time for it."""

    cue_id: str
    title: str
    planned_ms: int
    taken_ms: tuple[int | None, ...]
    spread: Spread | None


class SlideLine(msgspec.Struct, frozen=True):
    """A shown slide in all takes, with its waits."""

    slide_id: str
    name: str
    planned_ms: int
    taken_ms: tuple[int | None, ...]
    spread: Spread | None
    holds: tuple[HoldLine, ...]


def compare_takes(show: Show, schedule: ShowSchedule, takes: Sequence[TakeTiming]) -> tuple[SlideLine, ...]:
    """A line for each shown slide.

    Takes are matched by slide and cue, so no time is lost where slides have moved since.
    """
    by_id = {slide.id: slide for slide in show.slides}
    lines = []
    for times, start in zip(schedule.slides, schedule.starts_ms, strict=True):
        slide = by_id[times.slide_id]
        titles = [line.title for line in beat_lines(slide, times, start)[1:]]
        waits = [beat.wait for beat in times.beats[1:]] + ([times.last_wait] if times.last_wait else [])
        holds = []
        for number, wait in enumerate(waits):
            if wait is None:
                continue
            taken = tuple(take.hold_ms.get(wait.cue_id) for take in takes)
            title = titles[number] if number < len(titles) else "Leaves the slide"
            holds.append(HoldLine(wait.cue_id, title, wait.hold_ms, taken, spread_of(taken)))
        taken = tuple(take.slide_ms.get(slide.id) for take in takes)
        lines.append(SlideLine(slide.id, slide.name, times.length_ms, taken, spread_of(taken), tuple(holds)))
    return tuple(lines)


def median_timing(takes: Sequence[TakeTiming]) -> TakeTiming:
    """A timing in which every time is the median of the takes."""

    def medians(all_times: Sequence[dict[str, int]]) -> dict[str, int]:
        keys = dict.fromkeys(key for times in all_times for key in times)
        spreads = {key: spread_of([times.get(key) for times in all_times]) for key in keys}
        return {key: found.median_ms for key, found in spreads.items() if found}

    return TakeTiming(medians([take.slide_ms for take in takes]), medians([take.hold_ms for take in takes]))


def timing_for(show: Show, timing: TakeTiming, slide_ids: Collection[str]) -> TakeTiming:
    """The part of a timing that belongs to some slides."""
    cues = {cue for slide in show.slides if slide.id in slide_ids for cue in cue_ids(slide)}
    slides = {key: value for key, value in timing.slide_ms.items() if key in slide_ids}
    return TakeTiming(slides, {key: value for key, value in timing.hold_ms.items() if key in cues})


class Given(msgspec.Struct, frozen=True):
    """What a slide would lose (below 0) or gain."""

    slide_id: str
    name: str
    by_ms: int


class TimingOutcome(msgspec.Struct, frozen=True):
    """The outcome of taking a timing: the new length of the show, the length fitted to the target, which `reached_ms`
    gives exactly, and what each slide gives for it, greatest first.
    """

    edit: Edit
    notices: tuple[str, ...]
    timed_ms: int
    reached_ms: int
    gives: tuple[Given, ...]


def apply_timing(
    show: Show, timing: TakeTiming, name: str, target_ms: int | None = None, *, follows: bool = False
) -> TimingOutcome:
    """The edit that takes a timing into the show, and fits holds and lengths to a target where there is one.

    With `follows` nothing of the show is overwritten: its waits follow this timing (`follow_timing`). A target then has
    nothing to fit, so it raises BadValue.
    """
    if follows and target_ms is not None:
        raise BadValue(
            "A show that follows a take keeps the take's times. To meet a target, use the timing as the "
            "show's own holds.",
            "target_ms",
        )
    edit, notices = (follow_timing if follows else use_timing)(show, timing, name)
    timed = apply_edit(show, edit).show
    before = compile_show(timed)
    if target_ms is None:
        return TimingOutcome(edit, notices, before.length_ms, before.length_ms, ())
    stretching, reached = fit_to_length(timed, target_ms)
    after = compile_show(apply_edit(timed, stretching).show)
    names = {slide.id: slide.name for slide in show.slides}
    given = [
        Given(new.slide_id, names[new.slide_id], new.length_ms - old.length_ms)
        for old, new in zip(before.slides, after.slides, strict=True)
    ]
    gives = tuple(sorted((entry for entry in given if entry.by_ms), key=lambda entry: -abs(entry.by_ms)))
    both: Edit = Several(f"Use the timing of {name}, scaled", (edit, stretching))
    return TimingOutcome(both, notices, before.length_ms, reached, gives)
