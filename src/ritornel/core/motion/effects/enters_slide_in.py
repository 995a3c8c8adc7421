"""Slides in from a side, fully opaque from the start."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.sides import WAY, Side


class SlideIn(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The side it comes from, and the distance; from most places the default distance reaches outside a frame of 1280
    px.
    """

    comes_from: Side = "left"
    distance_px: Annotated[float, Meta(ge=0, le=8192)] = 1280.0


def _ramps(settings: SlideIn, curve: Curve) -> tuple[Ramp, ...]:
    dx, dy = (share * settings.distance_px for share in WAY[settings.comes_from])
    moved = Ramp("x", ((0.0, dx), (1.0, 0.0)), curve) if dx else Ramp("y", ((0.0, dy), (1.0, 0.0)), curve)
    return (Ramp("opacity", ((0.0, 0.0), (0.05, 1.0), (1.0, 1.0)), EVEN), moved)


EFFECT = Effect(name="enters slide in", title="Slide in", kind="enters", ramps=_ramps, settings=SlideIn, lasts_ms=800)
