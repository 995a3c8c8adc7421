"""Its letters appear one after another; an object without letters appears at once."""

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import NoSettings


def _ramps(settings: NoSettings, curve: Curve) -> tuple[Ramp, ...]:
    # Typing is even, whatever the pace: letters that bunch up look like a fault.
    return (Ramp("typed", ((0.0, 0.0), (1.0, 1.0)), EVEN),)


EFFECT = Effect(name="enters type on", title="Type on", kind="enters", ramps=_ramps, settings=NoSettings, lasts_ms=1500)
