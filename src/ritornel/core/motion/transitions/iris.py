"""The next slide opens from the middle in a growing circle."""

from ritornel.core.motion.channels import Mask, Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings
from ritornel.core.motion.transition import Layers, TransitionKind


def _layers(settings: NoSettings, curve: Curve, width_px: int, height_px: int) -> Layers:
    return Layers(new=(Ramp("reveal", ((0.0, 0.0), (1.0, 1.0)), curve, Mask("iris")),))


TRANSITION = TransitionKind("iris", "Iris", _layers, NoSettings, 900)
