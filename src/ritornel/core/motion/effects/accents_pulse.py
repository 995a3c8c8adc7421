"""Grows once and returns, like a heartbeat."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Pulse(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How much larger it gets: 0.12 is 12 %."""

    swell: Annotated[float, Meta(ge=0.01, le=1.0)] = 0.12


def _ramps(settings: Pulse, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("scale", ((0.0, 1.0), (0.4, 1.0 + settings.swell), (1.0, 1.0)), curve),)


EFFECT = Effect(name="accents pulse", title="Pulse", kind="accents", ramps=_ramps, settings=Pulse)
