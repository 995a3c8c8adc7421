"""Turns in about its upright middle, like a sign on a pole."""

import math

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve, ease
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import NoSettings

STEPS = 12


def _ramps(settings: NoSettings, curve: Curve) -> tuple[Ramp, ...]:
    # Seen from afar, what has turned by an angle is as wide as its sine; twelve straight pieces are within 1 % of it.
    keys = (*tuple((n / STEPS, math.sin(ease(n / STEPS, curve) * math.pi / 2)) for n in range(STEPS)), (1.0, 1.0))
    return (Ramp("wide", keys, EVEN), Ramp("opacity", ((0.0, 0.0), (0.15, 1.0), (1.0, 1.0)), EVEN))


EFFECT = Effect(name="enters turn in", title="Turn in", kind="enters", ramps=_ramps, settings=NoSettings, lasts_ms=800)
