"""The old slide fades to black, and the next fades in from black."""

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings
from ritornel.core.motion.transition import Layers, TransitionKind


def _layers(settings: NoSettings, curve: Curve, width_px: int, height_px: int) -> Layers:
    old = Ramp("opacity", ((0.0, 1.0), (0.5, 0.0), (1.0, 0.0)), curve)
    return Layers(old=(old,), new=(Ramp("opacity", ((0.0, 0.0), (0.5, 0.0), (1.0, 1.0)), curve),))


TRANSITION = TransitionKind("through black", "Through black", _layers, NoSettings, 1200)
