"""A take: one run, with the time of every arrival and cue. All times are in ms from its start, without paused time."""

from itertools import zip_longest
from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeShow, ChangeSlides, Edit, Several
from ritornel.core.document.edits.holds import hold_edits
from ritornel.core.document.ink import Drawings
from ritornel.core.document.integrity import cue_ids
from ritornel.core.document.objects import Id
from ritornel.core.document.show import AdvanceAfter, Show
from ritornel.core.errors import BadValue
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import LONGEST_MS
from ritornel.core.wording import count_text

TakeTime = Annotated[int, Meta(ge=0, le=LONGEST_MS)]


class Arrived(msgspec.Struct, frozen=True, tag_field="event", tag="arrived", forbid_unknown_fields=True):
    """The show came to a slide."""

    slide_id: Id
    at_ms: TakeTime


class Cued(msgspec.Struct, frozen=True, tag_field="event", tag="cued", forbid_unknown_fields=True):
    """A press; `waited_ms` is how long its wait had been open, 0 while the beat before still ran."""

    cue_id: Id
    at_ms: TakeTime
    waited_ms: TakeTime


class Take(msgspec.Struct, frozen=True, forbid_unknown_fields=True, omit_defaults=True):
    """The events of a run in order, its end, and the ink on slides that was kept."""

    events: tuple[Arrived | Cued, ...]
    ended_ms: TakeTime
    drawings: Drawings = {}


class TakeTiming(msgspec.Struct, frozen=True):
    """The times of a take: each slide's, summed over its visits, and each cue's last wait."""

    slide_ms: dict[str, int]
    hold_ms: dict[str, int]


def check_take(take: Take) -> None:
    """Raises BadValue where events run backwards or past the end."""
    before = 0
    for number, event in enumerate(take.events):
        if event.at_ms < before or event.at_ms > take.ended_ms:
            raise BadValue(
                f"The take's event {number + 1} is at {event.at_ms} ms, out of order (after {before}, before "
                f"its end at {take.ended_ms}).",
                f"events[{number}].at_ms",
            )
        before = event.at_ms


def timing_of(take: Take) -> TakeTiming:
    """The take's timing. Visits to a slide add up; of several waits for one cue the last counts.

    >>> take = Take((Arrived("a", 0), Cued("c", 1500, 400), Arrived("b", 4000), Arrived("a", 5000)), 6000)
    >>> timing_of(take)
    TakeTiming(slide_ms={'a': 5000, 'b': 1000}, hold_ms={'c': 400})
    """
    slides: dict[str, int] = {}
    holds: dict[str, int] = {}
    arrivals = [event for event in take.events if isinstance(event, Arrived)]
    for event, following in zip_longest(arrivals, arrivals[1:]):
        until = following.at_ms if following else take.ended_ms
        slides[event.slide_id] = slides.get(event.slide_id, 0) + until - event.at_ms
    for cue in take.events:
        if isinstance(cue, Cued):
            holds[cue.cue_id] = cue.waited_ms
    return TakeTiming(slides, holds)


def use_timing(show: Show, timing: TakeTiming, name: str) -> tuple[Edit, tuple[str, ...]]:
    """The edit that writes a take's timing into the show, and sentences about cues and slides that are gone.

    Waits get their holds; a slide that advances `after` gets its time as length. How a slide advances stays.
    """
    edits: list[Edit] = []
    for slide in show.slides:
        edits += hold_edits(slide, timing.hold_ms)
        if isinstance(slide.advance, AdvanceAfter) and slide.id in timing.slide_ms:
            advance = msgspec.structs.replace(slide.advance, after_ms=timing.slide_ms[slide.id])
            edits.append(ChangeSlides((slide.id,), {"advance": to_builtins(advance)}))
    return Several(f"Use the timing of {name}", tuple(edits)), _find_gone(show, timing)


def follow_timing(show: Show, timing: TakeTiming, name: str) -> tuple[Edit, tuple[str, ...]]:
    """The edit that makes the show follow a take: every wait without a hold of its own lasts as long as in the take
    (rule 2). Nothing in the show is overwritten, and lengths stay. Also sentences about cues that are gone.
    """
    known = {cue for slide in show.slides for cue in cue_ids(slide)}
    holds = {cue: ms for cue, ms in timing.hold_ms.items() if cue in known}
    own = sum(
        wait.source in ("own hold", "voice mark")
        for slide in compile_show(show).slides
        for wait in slide.waits
        if wait.cue_id in holds
    )
    notices = _find_gone(show, timing)
    if own:
        notices = (
            f"{count_text(own, 'wait')} of these {'keeps its' if own == 1 else 'keep their'} own hold or voice mark.",
            *notices,
        )
    return Several(f"Follow {name}", (ChangeShow({"holds_by_cue": holds, "follows_take": name}),)), notices


def _find_gone(show: Show, timing: TakeTiming) -> tuple[str, ...]:
    """The cues and slides of a take that are gone, in sentences."""
    waits = len(set(timing.hold_ms) - {cue for slide in show.slides for cue in cue_ids(slide)})
    slides = len(set(timing.slide_ms) - {slide.id for slide in show.slides})
    notices = []
    if waits:
        belong = "belongs to a cue that is" if waits == 1 else "belong to cues that are"
        notices.append(f"{count_text(waits, 'wait')} of this take {belong} no longer in the show.")
    if slides:
        notices.append(
            f"{count_text(slides, 'slide')} of this take {'is' if slides == 1 else 'are'} no longer in the show."
        )
    return tuple(notices)
