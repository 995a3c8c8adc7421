"""Builds and transitions as tracks. Painters follow them and know no effect by name."""

from typing import Any

import msgspec

from ritornel.core.document.objects import Clip, Picture
from ritornel.core.document.show import Build, Frame, Slide, Transition
from ritornel.core.document.theme import Theme, colour_in
from ritornel.core.errors import BadValue
from ritornel.core.layout.marks import PartDrawing, SlideDrawing
from ritornel.core.motion.catalogue import effect_named, transition_named
from ritornel.core.motion.channels import AWAY, STILL, Channel, Ramp, Values
from ritornel.core.motion.easing import Curve, curve_of
from ritornel.core.motion.sampling import Entrance, Instant, Motion, Segment, value_at, values_at
from ritornel.core.motion.settings import read_settings
from ritornel.core.motion.transition import Layers
from ritornel.core.schedule.slide_schedule import SlideSchedule, clip_of
from ritornel.core.schedule.view_moves import view_motion
from ritornel.core.time.counts import NO_BUILD, ON_SLIDE, ONCE_BENEATH, UNTIL_SLIDE_ENDS
from ritornel.core.time.milliseconds import time_text


class Rest(msgspec.Struct, frozen=True):
    """Between which beats a motion's target changes, and its values before and after them; no `after` where something
    goes on.
    """

    target: tuple[str, str | None]
    first: int
    last: int
    before: Values
    after: Values | None


class SlideTracks(msgspec.Struct, frozen=True):
    """Everything that moves on a slide, the transition into it, and the moves of the view.

    `rests` follow from `motions`, in their order.
    """

    motions: tuple[Motion, ...]
    layers: Layers
    view: Motion | None
    rests: tuple[Rest, ...]


def rest_of(motion: Motion) -> Rest:
    """When a motion rests.

    Most objects rest most of the time: their values are then looked up. Ten thousand states of twenty objects take half
    as long with it.
    """
    beats = [segment.beat for segment in motion.segments] + [entrance.beat for entrance in motion.entrances]
    ends = all(segment.beat != ON_SLIDE and segment.repeats > 0 for segment in motion.segments)
    last = max(beats, default=-1)
    over = Instant(last + 1, 0.0, 0.0, (0.0,) * (last + 2))
    before = AWAY if motion.away_first else STILL
    return Rest(
        (motion.object_id, motion.part), min(beats, default=-1), last, before, values_at(motion, over) if ends else None
    )


def tracks_of(motions: tuple[Motion, ...], layers: Layers, view: Motion | None) -> SlideTracks:
    return SlideTracks(motions, layers, view, tuple(map(rest_of, motions)))


def layers_of(transition: Transition, frame: Frame) -> Layers:
    """The ramps of both slides' layers.

    Raises UnknownName or BadValue for an unknown transition or wrong settings.
    """
    kind = transition_named(transition.name)
    settings = read_settings(transition.settings, kind.settings, f"The transition {kind.title.lower()}")
    return kind.layers(settings, curve_of(transition.pace), frame.width_px, frame.height_px)


def extra_part(build: Build) -> str:
    """The name of the part for the marks that a build adds to its object; no paragraph can have it."""
    return f"+{build.id}"


def with_extras(drawing: SlideDrawing, slide: Slide, theme: Theme) -> SlideDrawing:
    """The drawing with the marks that builds add: lines under objects, rings around them, arrows at them."""
    added: dict[str, list[PartDrawing]] = {}
    by_id = {item.object_id: item for item in drawing.objects}
    for build in slide.order:
        effect = effect_named(build.effect)
        if effect.extra is None:
            continue
        item = by_id[build.object_id]
        settings = read_settings(build.settings, effect.settings, f"The effect {effect.title.lower()}")
        about = (
            item
            if build.part is None
            else msgspec.structs.replace(item, parts=tuple(part for part in item.parts if part.part == build.part))
        )
        marks = effect.extra(settings, about, lambda colour: colour_in(theme, colour))
        added.setdefault(item.object_id, []).append(
            PartDrawing(extra_part(build), item.width / 2, item.height / 2, marks)
        )
    if not added:
        return drawing
    objects = tuple(
        msgspec.structs.replace(item, parts=(*item.parts, *added[item.object_id])) if item.object_id in added else item
        for item in drawing.objects
    )
    return msgspec.structs.replace(drawing, objects=objects)


def _on_slide(channel: Channel, lasts_ms: int, curve: Curve) -> Segment:
    """What moves from the slide's 0 on, without a build."""
    return Segment(
        build=NO_BUILD,
        entrance=False,
        channel=channel,
        beat=ON_SLIDE,
        offset_ms=0,
        cycle_ms=lasts_ms,
        repeats=1,
        keys=((0.0, 0.0), (1.0, 1.0)),
        curve=curve,
    )


def compile_tracks(slide: Slide, schedule: SlideSchedule, frame: Frame, theme: Theme = Theme()) -> SlideTracks:
    """The slide's tracks; tints are looked up in the theme.

    Raises UnknownName or BadValue for unknown effects or wrong settings.
    """
    entrances: dict[tuple[str, str | None], list[Entrance]] = {}
    segments: dict[tuple[str, str | None], list[Segment]] = {}
    away: dict[tuple[str, str | None], bool] = {}
    timed = sorted(
        enumerate(zip(slide.order, schedule.builds, strict=True)),
        key=lambda entry: (entry[1][1].beat, entry[1][1].offset_ms, entry[0]),
    )
    for number, (build, time) in timed:
        effect = effect_named(build.effect)
        settings = read_settings(build.settings, effect.settings, f"The effect {effect.title.lower()}")
        target = (build.object_id, build.part) if effect.extra is None else (build.object_id, extra_part(build))
        coming = effect.kind in ("enters", "leaves") or effect.extra is not None
        if effect.least_ms and build.repeats != 1 and build.lasts_ms < effect.least_ms:
            every, least = time_text(build.lasts_ms), time_text(effect.least_ms)
            raise BadValue(
                f"{effect.title}: every {every} is more often than eyes can bear; at least {least} each, "
                "twice a second.",
                "lasts_ms",
            )
        # Away at first is what its first build, of whatever kind, brings on.
        away.setdefault(target, effect.kind == "enters" or effect.extra is not None)
        if coming:
            enters = effect.kind == "enters" if effect.extra is None else getattr(settings, "then", "stays") == "stays"
            entrances.setdefault(target, []).append(Entrance(number, time.beat, time.offset_ms, time.lasts_ms, enters))
        # Only an accent may go on until the slide ends; for the others a repeat of 0 counts as once.
        repeats = build.repeats if build.repeats or effect.kind == "accents" else 1
        if coming:
            repeats = 1
        cycle_ms = time.lasts_ms if coming else build.lasts_ms
        if effect.kind == "plays" and (clip := clip_of(slide, build)) is not None:
            # A press completes one that holds; one that does not runs on beneath what the press sets off.
            cycle_ms = clip.pass_ms
            repeats = UNTIL_SLIDE_ENDS if clip.repeats else 1 if clip.holds else ONCE_BENEATH
        for ramp in effect.ramps(settings, curve_of(build.pace)):
            segments.setdefault(target, []).append(
                Segment(
                    build=number,
                    entrance=coming,
                    channel=ramp.channel,
                    beat=time.beat,
                    offset_ms=time.offset_ms,
                    cycle_ms=cycle_ms,
                    repeats=repeats,
                    keys=ramp.keys,
                    curve=ramp.curve,
                    mask=ramp.mask,
                    colour=colour_in(theme, ramp.colour) if ramp.colour else None,
                )
            )
    for item in slide.objects:
        if isinstance(item, Picture) and item.drift is not None:
            drifts = _on_slide("drift", schedule.length_ms, curve_of(item.drift.pace))
            segments.setdefault((item.id, None), []).append(drifts)
        if isinstance(item, Clip) and item.with_slide:
            plays = _on_slide("played", item.pass_ms, curve_of("even"))
            segments.setdefault((item.id, None), []).append(plays)
    targets = dict.fromkeys([*entrances, *segments])
    motions = tuple(
        Motion(
            target[0],
            target[1],
            away.get(target, False),
            tuple(entrances.get(target, ())),
            tuple(segments.get(target, ())),
        )
        for target in targets
    )
    return tracks_of(motions, layers_of(slide.transition, frame), view_motion(slide, schedule, frame))


def instant_at(schedule: SlideSchedule, slide_ms: float, beat: int, since_ms: float) -> Instant:
    """The instant of a self-running slide, for sampling its tracks."""
    return Instant(beat, since_ms, slide_ms, tuple(float(entry.start_ms) for entry in schedule.beats))


def object_values(tracks: SlideTracks, at: Instant) -> dict[tuple[str, str | None], Values]:
    """The channels of everything that has builds, by object id and part. All else is still."""
    beat = at.beat
    return {
        rest.target: rest.before
        if beat < rest.first
        else rest.after
        if rest.after is not None and beat > rest.last
        else values_at(motion, at)
        for motion, rest in zip(tracks.motions, tracks.rests, strict=True)
    }


def layer_values(ramps: tuple[Ramp, ...], progress: float) -> Values:
    """The channels of a slide's layer during a transition."""
    fields: dict[str, Any] = {ramp.channel: value_at(ramp.keys, ramp.curve, progress) for ramp in ramps}
    mask = next((ramp.mask for ramp in ramps if ramp.mask), None) if fields.get("reveal", 1.0) < 1 else None
    colour = next((ramp.colour for ramp in ramps if ramp.colour), None) if fields.get("tint") else None
    return Values(
        shown=True, mask=mask, colour=colour, hinge=next((ramp.hinge for ramp in ramps if ramp.hinge), None), **fields
    )
