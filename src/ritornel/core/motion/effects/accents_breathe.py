"""Keeps breathing: grows and shrinks slowly until the slide ends."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Breathe(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How much larger it gets."""

    swell: Annotated[float, Meta(ge=0.005, le=0.5)] = 0.04


def _ramps(settings: Breathe, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("scale", ((0.0, 1.0), (0.5, 1.0 + settings.swell), (1.0, 1.0)), (0.4, 0.0, 0.6, 1.0)),)


EFFECT = Effect(
    name="accents breathe", title="Breathe", kind="accents", ramps=_ramps, settings=Breathe, lasts_ms=3000, repeats=0
)
