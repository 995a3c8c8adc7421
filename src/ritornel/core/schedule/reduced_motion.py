"""A performance for people who ask for less motion: everything happens at its time, but nothing moves.

An object that would fly in fades in instead. Channels are judged by their visible effect, never effects by name, so
that a new effect is calmed without further work.
"""

import msgspec

from ritornel.core.layout.marks import ClipMark
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN
from ritornel.core.motion.sampling import Entrance, Motion, Segment
from ritornel.core.motion.transition import Layers
from ritornel.core.schedule.performance import Performance, StagedSlide
from ritornel.core.schedule.tracks import tracks_of

FADE = ((0.0, 0.0), (1.0, 1.0))


def _at_once(segment: Segment) -> Segment:
    """The segment with its last value from the start."""
    last = segment.keys[-1][1]
    return msgspec.structs.replace(segment, keys=((0.0, last), (1.0, last)), curve=EVEN, repeats=1)


def _fade(entrance: Entrance) -> Segment:
    keys = FADE if entrance.enters else ((0.0, 1.0), (1.0, 0.0))
    return Segment(
        build=entrance.build,
        entrance=True,
        channel="opacity",
        beat=entrance.beat,
        offset_ms=entrance.offset_ms,
        cycle_ms=entrance.lasts_ms,
        repeats=1,
        keys=keys,
        curve=EVEN,
    )


def _back_where_it_was(segment: Segment) -> bool:
    """Whether it ends as it began, as an accent does."""
    return segment.keys[0][1] == segment.keys[-1][1]


def calm_motion(motion: Motion) -> Motion:
    """Entrances and exits become fades of the same length; accents keep only their colour; travels end at once; drifts
    stand still.
    """
    segments: list[Segment] = [_fade(entrance) for entrance in motion.entrances if entrance.lasts_ms]
    for segment in motion.segments:
        if segment.entrance or segment.channel == "drift":
            continue
        if segment.channel == "played" or (segment.channel == "tint" and segment.repeats):
            segments.append(segment)
        elif (
            not _back_where_it_was(segment)
            or segment.keys[0][1] == segment.keys[-1][1] == segment.keys[len(segment.keys) // 2][1]
        ):
            segments.append(_at_once(segment))
    return msgspec.structs.replace(motion, segments=tuple(segments))


def _calm_view(view: Motion) -> Motion:
    return msgspec.structs.replace(view, segments=tuple(map(_at_once, view.segments)))


def calm_layers(layers: Layers) -> Layers:
    """A dissolve for any transition with motion; a cut stays a cut."""
    if not (layers.old or layers.new or layers.carries):
        return layers
    return Layers(new=(Ramp("opacity", FADE, EVEN),))


def _calm_slide(slide: StagedSlide) -> StagedSlide:
    tracks = slide.tracks
    view = _calm_view(tracks.view) if tracks.view else None
    # A ground that moves stands still on its first picture.
    ground = tuple(
        msgspec.structs.replace(mark, out_ms=mark.in_ms + 1) if isinstance(mark, ClipMark) else mark
        for mark in slide.drawing.ground
    )
    drawing = msgspec.structs.replace(slide.drawing, ground=ground)
    return msgspec.structs.replace(
        slide,
        drawing=drawing,
        tracks=tracks_of(tuple(map(calm_motion, tracks.motions)), calm_layers(tracks.layers), view),
    )


def calm_performance(performance: Performance) -> Performance:
    """The performance without motion. Its schedule, drawings and sounds are the same."""
    return msgspec.structs.replace(performance, slides=tuple(map(_calm_slide, performance.slides)))
