"""The next slide appears over the one before."""

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings
from ritornel.core.motion.transition import Layers, TransitionKind


def _layers(settings: NoSettings, curve: Curve, width_px: int, height_px: int) -> Layers:
    return Layers(new=(Ramp("opacity", ((0.0, 0.0), (1.0, 1.0)), curve),))


TRANSITION = TransitionKind("dissolve", "Dissolve", _layers)
