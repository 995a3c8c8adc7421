"""Its outline is drawn, then it fills."""

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import NoSettings


def _ramps(settings: NoSettings, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("drawn", ((0.0, 0.0), (1.0, 1.0)), curve),)


EFFECT = Effect(name="enters draw on", title="Draw on", kind="enters", ramps=_ramps, settings=NoSettings, lasts_ms=1200)
