"""The next slide appears at once."""

from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings
from ritornel.core.motion.transition import Layers, TransitionKind


def _layers(settings: NoSettings, curve: Curve, width_px: int, height_px: int) -> Layers:
    return Layers()


TRANSITION = TransitionKind("cut", "Cut", _layers, NoSettings, 0)
