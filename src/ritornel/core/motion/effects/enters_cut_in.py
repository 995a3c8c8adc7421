"""Appears at once when its length is over."""

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import NoSettings


def _ramps(settings: NoSettings, curve: Curve) -> tuple[Ramp, ...]:
    # A step: 0 up to the end of the build. With the usual length of 0 it shows in the very frame it starts in.
    return (Ramp("opacity", ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0)), EVEN),)


EFFECT = Effect(name="enters cut in", title="Cut in", kind="enters", ramps=_ramps, settings=NoSettings, lasts_ms=0)
