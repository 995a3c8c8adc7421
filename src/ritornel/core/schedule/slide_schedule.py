"""One slide on its own clock, whose 0 is the moment the transition into it begins (domain rules 1, 2, 5 and 6)."""

from collections.abc import Mapping
from typing import Literal

import msgspec

from ritornel.core.document.objects import PLAYS, Clip
from ritornel.core.document.show import (
    AdvanceAfter,
    AdvanceOnCue,
    AdvanceWithVoice,
    Build,
    Follows,
    Frame,
    OnCue,
    Slide,
)
from ritornel.core.motion.flight import flight_lengths

HoldSource = Literal["voice mark", "own hold", "take", "default"]
Reason = Literal["voice", "clip", "build", "transition"]


class Wait(msgspec.Struct, frozen=True, gc=False):
    """The time before a cue: from `start_ms`, self-running for `hold_ms`, with the `source` of that hold."""

    cue_id: str
    start_ms: int
    hold_ms: int
    source: HoldSource


class BuildTime(msgspec.Struct, frozen=True, gc=False, array_like=True):
    """When a build runs: `offset_ms` after its beat's start, for `lasts_ms` with all its repeats."""

    build_id: str
    beat: int
    offset_ms: int
    lasts_ms: int


class Beat(msgspec.Struct, frozen=True, gc=False):
    """All builds that one press sets off, from `start_ms` to the end of the last; `wait` is the one before it (None for
    beat 0).
    """

    start_ms: int
    end_ms: int
    wait: Wait | None = None


class VoiceTime(msgspec.Struct, frozen=True):
    """When the slide's voice is heard, on the slide's clock."""

    start_ms: int
    end_ms: int


class SlideSchedule(msgspec.Struct, frozen=True, kw_only=True, gc=False):
    """A slide's self-running times.

    `done_ms` is N, when everything that must finish has finished; `last_wait` comes before a cue that leaves the slide.
    `goes_on_ms` is the earliest time at which a slide that goes on by itself also live does so; None for a slide that
    waits for a cue there.
    """

    slide_id: str
    transition_ms: int
    beats: tuple[Beat, ...]
    builds: tuple[BuildTime, ...]
    last_wait: Wait | None
    done_ms: int
    length_ms: int
    extended_ms: int = 0
    extended_for: Reason | None = None
    voice: VoiceTime | None = None
    goes_on_ms: int | None = None

    @property
    def waits(self) -> tuple[Wait, ...]:
        """All its waits in order; the one before the slide is left is the last."""
        inside = tuple(beat.wait for beat in self.beats if beat.wait is not None)
        return (*inside, self.last_wait) if self.last_wait is not None else inside

    @property
    def untimed_waits(self) -> tuple[Wait, ...]:
        """The waits without a time of their own: self-running, they last as long as the show's default."""
        return tuple(wait for wait in self.waits if wait.source == "default")


def _wait(
    cue: OnCue | AdvanceOnCue, start_ms: int, holds: Mapping[str, int], default_hold_ms: int, marks: Mapping[str, int]
) -> Wait:
    """The wait from `start_ms`, by the first of rule 2's four sources that exists; `marks` are on the slide's clock."""
    own, cue_id = cue.hold_ms, cue.cue_id
    if cue_id in marks:
        return Wait(cue_id, start_ms, max(marks[cue_id] - start_ms, 0), "voice mark")
    if own is not None:
        return Wait(cue_id, start_ms, own, "own hold")
    if cue_id in holds:
        return Wait(cue_id, start_ms, holds[cue_id], "take")
    return Wait(cue_id, start_ms, default_hold_ms, "default")


def clip_of(slide: Slide, build: Build) -> Clip | None:
    """The clip that a build plays; None for a build of any other kind."""
    found = slide.object(build.object_id) if build.effect == PLAYS else None
    return found if isinstance(found, Clip) else None


def compile_slide(
    slide: Slide, default_hold_ms: int, holds: Mapping[str, int], frame: Frame = Frame()
) -> SlideSchedule:
    """The slide's schedule.

    `holds` are the chosen take's, in ms by cue id; moves of the view depend on the show's `frame`. Slide 2 of worked
    example A: push 500; A on cue, 400; B follows after 100, 300; C together, 600; D on cue with hold 3500, 200: A
    2500-2900, B 3000-3300, C 2900-3500, D 7000-7200, N 7200, and with the default hold of 2000 before it leaves, length
    9200.
    """
    transition_ms = slide.transition_ms
    beats: list[Beat] = []
    times: list[BuildTime] = []
    wait: Wait | None = None
    beat, beat_start = 0, transition_ms
    cluster, reached = 0, 0  # both in ms from the beat's start
    clip_ms = -1  # when the last holding clip ends
    voice = VoiceTime(slide.voice.offset_ms, slide.voice.offset_ms + slide.voice.lasts_ms) if slide.voice else None
    marks = {cue: voice.start_ms + mark for cue, mark in slide.voice.marks.items()} if slide.voice and voice else {}
    flights = flight_lengths(slide, frame) if slide.framings else {}
    for build in slide.order:
        starts = build.starts
        if isinstance(starts, OnCue):
            end = beat_start + reached
            beats.append(Beat(beat_start, end, wait))
            wait = _wait(starts, end, holds, default_hold_ms, marks)
            beat += 1
            beat_start = end + wait.hold_ms
            cluster = reached = 0
        elif isinstance(starts, Follows):
            cluster = reached
        lasts = flights.get(build.id, build.lasts_ms)
        if build.repeats > 1:
            lasts *= build.repeats
        offset = cluster + build.after_ms
        if build.effect == PLAYS:
            clip = clip_of(slide, build)
            lasts = clip.pass_ms if clip and clip.holds else 0
            clip_ms = max(clip_ms, beat_start + offset + lasts) if lasts else clip_ms
        times.append(BuildTime(build.id, beat, offset, lasts))
        if offset + lasts > reached:
            reached = offset + lasts
    built_ms = beat_start + reached
    beats.append(Beat(beat_start, built_ms, wait))
    done_ms = max(built_ms, voice.end_ms if voice else 0)

    leaving = slide.advance
    if isinstance(leaving, AdvanceOnCue):
        last_wait = _wait(leaving, done_ms, holds, default_hold_ms, marks)
        return SlideSchedule(
            slide_id=slide.id,
            transition_ms=transition_ms,
            beats=tuple(beats),
            builds=tuple(times),
            last_wait=last_wait,
            done_ms=done_ms,
            length_ms=done_ms + last_wait.hold_ms,
            voice=voice,
        )
    if isinstance(leaving, AdvanceAfter) and leaving.cut_short:
        length_ms = max(leaving.after_ms, transition_ms)
        goes_on_ms = leaving.after_ms if slide.also_live else None
        return SlideSchedule(
            slide_id=slide.id,
            transition_ms=transition_ms,
            beats=tuple(beats),
            builds=tuple(times),
            last_wait=None,
            done_ms=done_ms,
            length_ms=length_ms,
            voice=voice,
            goes_on_ms=goes_on_ms,
        )
    spoken_ms = voice.end_ms + leaving.breath_ms if voice and isinstance(leaving, AdvanceWithVoice) else 0
    after_ms = leaving.after_ms if isinstance(leaving, AdvanceAfter) else spoken_ms
    length_ms = max(after_ms, done_ms)
    extended_ms = length_ms - after_ms
    reason: Reason | None = None
    if extended_ms:
        reason = (
            "voice"
            if voice and voice.end_ms == done_ms
            else "clip"
            if clip_ms == done_ms
            else "build"
            if slide.order
            else "transition"
        )
    goes_on_ms = after_ms if slide.also_live else None
    return SlideSchedule(
        slide_id=slide.id,
        transition_ms=transition_ms,
        beats=tuple(beats),
        builds=tuple(times),
        last_wait=None,
        done_ms=done_ms,
        length_ms=length_ms,
        extended_ms=extended_ms,
        extended_for=reason,
        voice=voice,
        goes_on_ms=goes_on_ms,
    )
