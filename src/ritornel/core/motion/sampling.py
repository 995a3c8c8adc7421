"""The values of tracks at an instant. The browser's painter has the same functions; tests/vectors check both."""

import math
from bisect import bisect_right
from typing import Any

import msgspec

from ritornel.core.motion.channels import AWAY, STILL, Channel, Mask, Values
from ritornel.core.motion.easing import Curve, ease
from ritornel.core.time.counts import NO_BUILD, ON_SLIDE, ONCE_BENEATH, UNTIL_SLIDE_ENDS


class Instant(msgspec.Struct, frozen=True):
    """An instant of a slide: its current beat, how long ago that began (negative: not yet; inf: it is complete), the
    slide's clock, and when each beat so far began on that clock. Earlier beats are complete.
    """

    beat: int
    since_ms: float
    slide_ms: float
    begun_ms: tuple[float, ...]


class Segment(msgspec.Struct, frozen=True, kw_only=True, gc=False, array_like=True):
    """A ramp within a beat: it starts `offset_ms` into the beat and runs `repeats` times `cycle_ms`, where that is no
    named count (core/time/counts.py). One of beat `ON_SLIDE` runs once, from the slide's 0 on.
    """

    build: int
    entrance: bool
    channel: Channel
    beat: int
    offset_ms: int
    cycle_ms: int
    repeats: int
    keys: tuple[tuple[float, float], ...]
    curve: Curve
    mask: Mask | None = None
    colour: str | None = None


class Entrance(msgspec.Struct, frozen=True, gc=False, array_like=True):
    """A build that shows its target, or hides it when it ends."""

    build: int
    beat: int
    offset_ms: int
    lasts_ms: int
    enters: bool


class Motion(msgspec.Struct, frozen=True, gc=False):
    """All builds of one object (`part` None) or of one part of it, in the order in which they begin."""

    object_id: str
    part: str | None
    away_first: bool
    entrances: tuple[Entrance, ...]
    segments: tuple[Segment, ...]


def progress_of(segment: Segment, at: Instant) -> float | None:
    """0..1 within the current repeat, 1 when over, None before it begins."""
    if segment.beat > at.beat:
        return None
    if segment.beat == ON_SLIDE:
        return min(max(at.slide_ms - segment.offset_ms, 0.0) / segment.cycle_ms, 1.0) if segment.cycle_ms else 1.0
    if segment.repeats in (UNTIL_SLIDE_ENDS, ONCE_BENEATH):
        elapsed = at.slide_ms - at.begun_ms[segment.beat] - segment.offset_ms
        if segment.beat == at.beat and at.since_ms < segment.offset_ms:
            return None
        if segment.repeats == ONCE_BENEATH:
            return min(max(elapsed, 0.0) / segment.cycle_ms, 1.0) if segment.cycle_ms else 1.0
        return math.fmod(max(elapsed, 0.0), segment.cycle_ms) / segment.cycle_ms if segment.cycle_ms else 1.0
    if segment.beat < at.beat:
        return 1.0
    elapsed = at.since_ms - segment.offset_ms
    if elapsed < 0:
        return None
    if elapsed >= segment.cycle_ms * segment.repeats:
        return 1.0
    return math.fmod(elapsed, segment.cycle_ms) / segment.cycle_ms


def value_at(keys: tuple[tuple[float, float], ...], curve: Curve, progress: float) -> float:
    """The value between the two keys around `progress`, eased between them; past the ends, the end's value."""
    before = keys[0]
    if progress <= before[0]:
        return before[1]
    # A path has sixty keys, almost everything else two or three: only there a search is worth its call.
    at = bisect_right(keys, (progress, math.inf)) - 1 if len(keys) > 8 else 1
    for key in keys[at : at + 2] if len(keys) > 8 else keys[1:]:
        if progress < key[0]:
            share = (progress - before[0]) / (key[0] - before[0])
            return before[1] + (key[1] - before[1]) * ease(share, curve)
        before = key
    return before[1]


def values_at(motion: Motion, at: Instant) -> Values:
    """The channels of a motion's target. Of its entrances only the last that has begun counts; everything
    else adds up.
    """
    current = NO_BUILD
    shown = not motion.away_first
    for entrance in motion.entrances:
        if entrance.beat < at.beat or (entrance.beat == at.beat and at.since_ms >= entrance.offset_ms):
            current = entrance.build
            over = entrance.beat < at.beat or at.since_ms >= entrance.offset_ms + entrance.lasts_ms
            shown = entrance.enters or not over
    if not shown:
        return AWAY
    opacity, x, y, scale, turn = 1.0, 0.0, 0.0, 1.0, 0.0
    rarer: dict[str, Any] = {}
    mask, colour = None, None
    touched = False
    for segment in motion.segments:
        if segment.entrance and segment.build != current:
            continue
        if 0 <= segment.beat < at.beat and segment.repeats > 0:
            value = segment.keys[-1][1]
        else:
            progress = progress_of(segment, at)
            if progress is None:
                continue
            value = value_at(segment.keys, segment.curve, progress)
        touched = True
        channel = segment.channel
        if channel == "opacity":
            opacity *= value
        elif channel == "y":
            y += value
        elif channel == "scale":
            scale *= value
        elif channel == "x":
            x += value
        elif channel == "turn":
            turn += value
        elif channel == "tint":
            rarer["tint"] = min(rarer.get("tint", 0.0) + value, 1.0)
            colour = segment.colour if value > 0 else colour
        elif channel in ("drift", "played"):
            rarer[channel] = value
        else:
            rarer[channel] = rarer.get(channel, 1.0) * value
            mask = segment.mask if channel == "reveal" and value < 1 else mask
    if not touched:
        return STILL
    return (
        Values(shown=True, opacity=opacity, x=x, y=y, scale=scale, turn=turn, mask=mask, colour=colour, **rarer)
        if rarer
        else Values(shown=True, opacity=opacity, x=x, y=y, scale=scale, turn=turn)
    )
