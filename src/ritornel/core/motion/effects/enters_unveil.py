"""Is revealed from one side while it stands still."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Mask, Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.sides import AWAY_FROM_DEG, Side


class Unveil(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The side where it begins, and the softness of the edge as a share of the way."""

    begins_at: Side = "left"
    soft: Annotated[float, Meta(ge=0, le=1)] = 0.1


def _ramps(settings: Unveil, curve: Curve) -> tuple[Ramp, ...]:
    mask = Mask("wipe", AWAY_FROM_DEG[settings.begins_at], soft=settings.soft)
    return (Ramp("reveal", ((0.0, 0.0), (1.0, 1.0)), curve, mask),)


EFFECT = Effect(name="enters unveil", title="Unveil", kind="enters", ramps=_ramps, settings=Unveil, lasts_ms=800)
