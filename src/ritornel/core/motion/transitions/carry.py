"""Objects that are on both slides move from their old place to their new one; everything else fades.

The pairs are found when the show is staged (schedule/carries.py).
"""

from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings
from ritornel.core.motion.transition import Layers, TransitionKind


def _layers(settings: NoSettings, curve: Curve, width_px: int, height_px: int) -> Layers:
    return Layers(carries=True)


TRANSITION = TransitionKind("carry", "Carry", _layers, NoSettings, 1200)
