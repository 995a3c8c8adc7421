"""Fades in where it stands."""

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import NoSettings


def _ramps(settings: NoSettings, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("opacity", ((0.0, 0.0), (1.0, 1.0)), curve),)


EFFECT = Effect(name="enters fade", title="Fade", kind="enters", ramps=_ramps)
