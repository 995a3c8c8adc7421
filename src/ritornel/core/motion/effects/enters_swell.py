"""Grows from small into its size."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect


class Swell(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """`size` is the size at the start, as a share of its own."""

    size: Annotated[float, Meta(ge=0, le=0.95)] = 0.3


def _ramps(settings: Swell, curve: Curve) -> tuple[Ramp, ...]:
    return (
        Ramp("opacity", ((0.0, 0.0), (0.3, 1.0), (1.0, 1.0)), EVEN),
        Ramp("scale", ((0.0, settings.size), (1.0, 1.0)), curve),
    )


EFFECT = Effect(name="enters swell", title="Swell", kind="enters", ramps=_ramps, settings=Swell, lasts_ms=700)
