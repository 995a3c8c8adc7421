"""Begins a little too large and settles into its size."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect


class Settle(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """`size` is the size at the start, as a share of its own: 1.15 is 15 % too large."""

    size: Annotated[float, Meta(ge=0.2, le=3.0)] = 1.15


def _ramps(settings: Settle, curve: Curve) -> tuple[Ramp, ...]:
    # Fully visible at 60 %, so that the last part of the settling is seen.
    return (
        Ramp("opacity", ((0.0, 0.0), (0.6, 1.0), (1.0, 1.0)), EVEN),
        Ramp("scale", ((0.0, settings.size), (1.0, 1.0)), curve),
    )


EFFECT = Effect(name="enters settle", title="Settle", kind="enters", ramps=_ramps, settings=Settle, lasts_ms=900)
