"""Shakes from side to side and comes to rest."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Shake(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How far it goes at first; every swing is a third shorter."""

    distance_px: Annotated[float, Meta(ge=1, le=200)] = 14.0


def _ramps(settings: Shake, curve: Curve) -> tuple[Ramp, ...]:
    keys = (
        [(0.0, 0.0)]
        + [((n + 0.5) / 6, settings.distance_px * (-1) ** n * (2 / 3) ** n) for n in range(6)]
        + [(1.0, 0.0)]
    )
    return (Ramp("x", tuple(keys), (0.4, 0.0, 0.6, 1.0)),)


EFFECT = Effect(name="accents shake", title="Shake", kind="accents", ramps=_ramps, settings=Shake, lasts_ms=700)
