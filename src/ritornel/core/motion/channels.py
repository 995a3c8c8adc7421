"""The closed set of channels. A new channel means work in both painters and in the parity test."""

from typing import Literal

import msgspec

from ritornel.core.motion.easing import EVEN, Curve

Channel = Literal[
    "opacity", "x", "y", "scale", "turn", "wide", "reveal", "drawn", "typed", "tint", "yaw", "pitch", "drift", "played"
]
"""opacity, scale, wide (across only), reveal, drawn and typed are shares that multiply; x and y in px of the frame,
turn in degrees clockwise and tint (0..1) add. `reveal` is how much is seen through the mask, `drawn` how far
outlines are drawn, `typed` how many letters stand. `yaw` and `pitch`, in degrees, turn a whole slide in depth
(motion/depth.py); objects know no depth. `drift` (0..1) is how far a picture is on its way from its crop to the
other; `played` (0..1) how far a clip has come from its in point to its out point.
"""

Hinge = tuple[float, float, float]
"""The point, in px of the frame and towards the viewer, about which something turns in depth."""


class Mask(msgspec.Struct, frozen=True, omit_defaults=True):
    """The shape that reveals something.

    `angle_deg` is the direction of a wipe or of blinds (0: to the right, 90: down), `count` the number of blinds, or of
    columns of cells, `soft` the width of a wipe's edge as a share of its way.
    """

    kind: Literal["wipe", "iris", "blinds", "cells"]
    angle_deg: float = 0.0
    count: int = 8
    soft: float = 0.0


class Ramp(msgspec.Struct, frozen=True):
    """How one channel runs over a progress of 0..1: values at points of progress, eased between each two of them.

    `mask` goes with `reveal`, `colour` with `tint`, `hinge` with `yaw` and `pitch`.
    """

    channel: Channel
    keys: tuple[tuple[float, float], ...]
    curve: Curve = EVEN
    mask: Mask | None = None
    colour: str | None = None
    hinge: Hinge | None = None


class Values(msgspec.Struct, frozen=True, kw_only=True):
    """The channels of one target at one instant.

    A target that is not `shown` is not drawn at all; a clip that has not begun is not `played`.
    """

    shown: bool = True
    opacity: float = 1.0
    x: float = 0.0
    y: float = 0.0
    scale: float = 1.0
    turn: float = 0.0
    wide: float = 1.0
    reveal: float = 1.0
    drawn: float = 1.0
    typed: float = 1.0
    tint: float = 0.0
    mask: Mask | None = None
    colour: str | None = None
    yaw: float = 0.0
    pitch: float = 0.0
    hinge: Hinge | None = None
    drift: float = 0.0
    played: float | None = None


STILL = Values()
AWAY = Values(shown=False)


def combine(own: Values, more: Values) -> Values:
    """Both combined: shares multiply, offsets and turns add. A hidden target stays hidden."""
    if not own.shown:
        return own
    shares = {
        name: getattr(own, name) * getattr(more, name)
        for name in ("opacity", "scale", "wide", "reveal", "drawn", "typed")
    }
    ways = {name: getattr(own, name) + getattr(more, name) for name in ("x", "y", "turn", "drift")}
    played = more.played if own.played is None else own.played
    return Values(
        tint=min(own.tint + more.tint, 1.0),
        mask=own.mask or more.mask,
        colour=own.colour or more.colour,
        played=played,
        **shares,
        **ways,
    )
