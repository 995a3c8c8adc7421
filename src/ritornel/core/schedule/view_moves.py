"""Moves of the view over a slide as tracks that painters follow."""

import math

from ritornel.core.document.framings import FLY, View, moves_view, view_named
from ritornel.core.document.show import Build, Frame, Slide
from ritornel.core.motion.channels import Channel
from ritornel.core.motion.easing import EVEN, curve_of, ease
from ritornel.core.motion.flight import turn_between, view_on_path
from ritornel.core.motion.sampling import Entrance, Motion, Segment
from ritornel.core.schedule.slide_schedule import SlideSchedule

CHANNELS: tuple[Channel, ...] = ("x", "y", "scale", "turn")
KEYS = 48
"""Straight pieces a flight is taken as: x, y and size go straight between them together, so that what is looked at does
not swim.
"""


def _channels(view: View, frame: Frame) -> tuple[float, float, float, float]:
    """x, y, scale and turn that bring the view's part of the slide into the frame: about the frame's middle m, a point
    p goes to m + (x, y) + scale R (p - m), and the view's middle must go to m.
    """
    scale = frame.width_px / view.width_px
    angle = math.radians(-view.turn_deg)
    dx, dy = view.x - frame.width_px / 2, view.y - frame.height_px / 2
    c, s = math.cos(angle), math.sin(angle)
    return -scale * (dx * c - dy * s), -scale * (dx * s + dy * c), scale, -view.turn_deg


def _segments(
    build: int, beat: int, offset_ms: int, cycle_ms: int, points: list[tuple[float, View]], frame: Frame
) -> list[Segment]:
    values = [(at, _channels(view, frame)) for at, view in points]
    return [
        Segment(
            build=build,
            entrance=True,
            channel=channel,
            beat=beat,
            offset_ms=offset_ms,
            cycle_ms=cycle_ms,
            repeats=1,
            keys=tuple((at, entry[number]) for at, entry in values),
            curve=EVEN,
        )
        for number, channel in enumerate(CHANNELS)
    ]


def _flight(first: View, last: View, build: Build) -> list[tuple[float, View]]:
    curve = curve_of(build.pace)
    return [(n / KEYS, view_on_path(first, last, ease(n / KEYS, curve))) for n in range(KEYS + 1)]


def view_motion(slide: Slide, schedule: SlideSchedule, frame: Frame) -> Motion | None:
    """The motion of the view; None for a slide that is as large as the frame and has no framings.

    Only the move that began last counts.
    """
    opening = view_named(slide, slide.opens_on, frame)
    moves = [
        (number, build, time)
        for number, (build, time) in enumerate(zip(slide.order, schedule.builds, strict=True))
        if moves_view(build)
    ]
    if slide.size is None and not slide.framings and not moves:
        return None
    segments = _segments(-1, -1, 0, 0, [(1.0, opening)], frame)
    entrances = []
    now = opening
    for number, build, time in sorted(moves, key=lambda entry: (entry[2].beat, entry[2].offset_ms, entry[0])):
        target = view_named(slide, build.object_id, frame)
        # The turn goes on from where it is, so that the short way round stays short.
        target = View(target.x, target.y, target.width_px, now.turn_deg + turn_between(now, target))
        entrances.append(Entrance(number, time.beat, time.offset_ms, time.lasts_ms, True))
        segments += _segments(number, time.beat, time.offset_ms, time.lasts_ms, _flight(now, target, build), frame)
        now = target
    return Motion(FLY, None, False, tuple(entrances), tuple(segments))
