"""Rises into place while it fades in."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect


class Rise(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How far below its place it starts."""

    distance_px: Annotated[float, Meta(ge=0, le=2000)] = 40.0


def _ramps(settings: Rise, curve: Curve) -> tuple[Ramp, ...]:
    return (
        Ramp("opacity", ((0.0, 0.0), (0.7, 1.0), (1.0, 1.0)), EVEN),
        Ramp("y", ((0.0, settings.distance_px), (1.0, 0.0)), curve),
    )


EFFECT = Effect(name="enters rise", title="Rise", kind="enters", ramps=_ramps, settings=Rise)
