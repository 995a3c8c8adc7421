"""A recording: a take with a voice, over one or more slides.

Its clock is that of the recorded sound; paused time is not in it.
"""

from collections.abc import Mapping, Sequence
from typing import Literal

import msgspec

from ritornel.core.document.integrity import cue_ids
from ritornel.core.document.objects import Clip
from ritornel.core.document.sections import Section, shown_sections
from ritornel.core.document.show import AdvanceOnCue, Build, Show, Slide
from ritornel.core.errors import UnknownName
from ritornel.core.rehearsal.take import Arrived, Take
from ritornel.core.time.milliseconds import clock_text

LONG_BY = 0.1
LONG_BY_MS = 5000
"""A section is told to be too long where it is over its plan by a tenth and by five seconds."""


def recordable_sections(show: Show) -> tuple[Section, ...]:
    """The sections that can be recorded: those that are played; without sections, the whole show as one."""
    sections = shown_sections(show)
    if sections:
        return sections
    shown = tuple(slide.id for slide in show.shown)
    return (Section("", shown),) if shown else ()


def section_with(show: Show, slide_id: str) -> Section:
    """The recordable section of the slide. Raises UnknownName where it is in none."""
    found = next((section for section in recordable_sections(show) if slide_id in section.slide_ids), None)
    if found is None:
        raise UnknownName(f"There is no section with the slide “{slide_id}” that could be recorded.")
    return found


def leaving_cue(slide: Slide) -> str:
    """The id of the cue that leaves the slide during a recording: its own, or one for recording only."""
    return slide.advance.cue_id if isinstance(slide.advance, AdvanceOnCue) else f"leave-{slide.id}"


def _silence(build: Build) -> Build:
    return msgspec.structs.replace(build, sound=None) if build.sound else build


def as_recorded(show: Show, section: Section) -> Show:
    """The show as the person who records the section sees it: only its slides, each left on a cue, the last one too,
    and without sounds that a microphone would pick up again.
    """
    slides = []
    for slide in show.slides:
        if slide.id not in section.slide_ids:
            continue
        objects = tuple(
            msgspec.structs.replace(item, muted=True) if isinstance(item, Clip) else item for item in slide.objects
        )
        slides.append(
            msgspec.structs.replace(
                slide,
                voice=None,
                also_live=False,
                advance=AdvanceOnCue(leaving_cue(slide)),
                transition=msgspec.structs.replace(slide.transition, sound=None),
                objects=objects,
                order=tuple(_silence(build) for build in slide.order),
            )
        )
    return msgspec.structs.replace(show, slides=tuple(slides), music=(), marks=(), end="black", runs="on cue")


class RecordedSlide(msgspec.Struct, frozen=True):
    """The recording of one slide, from its arrival or from a new start on it: `from_ms` is where it begins in the
    recording.

    `cues` are the times of the cues on the slide's clock; `waits` how long each wait had been open. It is `whole` where
    a cue left its slide.
    """

    number: int
    slide_id: str
    from_ms: int
    lasts_ms: int
    cues: dict[str, int]
    waits: dict[str, int]
    whole: bool


def pieces_of(take: Take, leaving: Mapping[str, str] = {}) -> tuple[RecordedSlide, ...]:
    """The recording's pieces in order, numbered from 0.

    `leaving` gives the leaving cue of each slide. An event after the take's end was never recorded and is left out.

    >>> from ritornel.core.rehearsal.take import Cued
    >>> left = Cued("a-1", 1500, 400), Cued("a-out", 4000, 900)
    >>> events = Arrived("a", 0), *left, Arrived("b", 4000), Arrived("b", 5200)
    >>> pieces = pieces_of(Take(events, 9000), {"a": "a-out"})
    >>> [(piece.slide_id, piece.from_ms, piece.lasts_ms, piece.cues, piece.whole) for piece in pieces]
    [('a', 0, 4000, {'a-1': 1500}, True), ('b', 4000, 1200, {}, False), ('b', 5200, 3800, {}, False)]
    """
    events = [event for event in take.events if event.at_ms <= take.ended_ms]
    starts = [at for at, event in enumerate(events) if isinstance(event, Arrived)]
    pieces = []
    for number, at in enumerate(starts):
        until = starts[number + 1] if number + 1 < len(starts) else len(events)
        first = events[at]
        assert isinstance(first, Arrived)
        end_ms = events[until].at_ms if until < len(events) else take.ended_ms
        pressed = [event for event in events[at + 1 : until] if not isinstance(event, Arrived)]
        leave = leaving.get(first.slide_id, f"leave-{first.slide_id}")
        left = next((event.at_ms for event in pressed if event.cue_id == leave), None)
        cues = {event.cue_id: event.at_ms - first.at_ms for event in pressed if event.cue_id != leave}
        waits = {event.cue_id: event.waited_ms for event in pressed}
        lasts = (end_ms if left is None else left) - first.at_ms
        pieces.append(RecordedSlide(number, first.slide_id, first.at_ms, lasts, cues, waits, left is not None))
    return tuple(pieces)


def leaving_cues(show: Show) -> dict[str, str]:
    """The leaving cue of each slide during a recording."""
    return {slide.id: leaving_cue(slide) for slide in show.slides}


def find_misfits(show: Show, pieces: Sequence[RecordedSlide]) -> tuple[str, ...]:
    """What in a recording no longer fits the show, in sentences. The order of slides does not matter."""
    told = []
    gone = len({piece.slide_id for piece in pieces} - {slide.id for slide in show.slides})
    if gone:
        told.append(f"{'1 slide of it is' if gone == 1 else f'{gone} slides of it are'} no longer in the show.")
    for slide in show.slides:
        known = set(cue_ids(slide))
        lost = {cue for piece in pieces if piece.slide_id == slide.id for cue in piece.cues} - known
        if lost:
            cues = "1 cue of it is" if len(lost) == 1 else f"{len(lost)} cues of it are"
            told.append(f"{cues} no longer on slide “{slide.name or slide.id}”.")
    return tuple(told)


Progress = Literal["recording", "paused", "interrupted", "ended"]
Mark = Literal["recording", "paused", "kept", "long", "ready", "partly", "waiting", "nothing"]


class SectionState(msgspec.Struct, frozen=True):
    """The state of a section: a mark with words."""

    mark: Mark
    words: str


class SectionProgress(msgspec.Struct, frozen=True, kw_only=True):
    """The recordings of a section so far: how much of the newest is done and on which slide, whose turn it is, how many
    slides have a selected piece, and how many selected pieces are in the show; the selected and the planned time.
    """

    slides: int
    picked: int = 0
    kept: int = 0
    takes: int = 0
    kept_takes: tuple[int, ...] = ()
    progress: Progress | None = None
    at_slide: int = 0
    picked_ms: int = 0
    plan_ms: int = 0
    who: str = ""


def section_state(now: SectionProgress) -> SectionState:
    """The state of a section: of several that apply, the most urgent."""
    if now.progress == "recording":
        return SectionState("recording", "Being recorded now")
    if now.progress == "interrupted":
        return SectionState("paused", f"Interrupted at slide {now.at_slide}")
    if now.progress == "paused":
        return SectionState("paused", f"Paused at slide {now.at_slide}")
    if now.slides and now.kept == now.slides:
        return SectionState(
            "kept", "Kept " + ("take " if len(now.kept_takes) == 1 else "takes ") + ", ".join(map(str, now.kept_takes))
        )
    if now.picked == now.slides and now.slides:
        over = now.picked_ms - now.plan_ms
        if over > max(now.plan_ms * LONG_BY, LONG_BY_MS):
            return SectionState("long", f"Too long by {clock_text(over)[:-2]}")
        return SectionState("ready", "Recorded, not yet kept")
    if now.picked:
        return SectionState("partly", f"{now.picked} of {now.slides} slides recorded")
    if now.who:
        return SectionState("waiting", f"Waiting for {now.who}")
    return SectionState("nothing", "Not yet recorded")
