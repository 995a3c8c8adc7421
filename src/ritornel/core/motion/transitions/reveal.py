"""The old slide slides away and reveals the next one beneath it."""

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.sides import WAY, Side
from ritornel.core.motion.transition import Layers, TransitionKind


class Reveal(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The side that the old slide goes to."""

    goes_to: Side = "left"


def _layers(settings: Reveal, curve: Curve, width_px: int, height_px: int) -> Layers:
    wx, wy = WAY[settings.goes_to]
    moved = (
        Ramp("x", ((0.0, 0.0), (1.0, wx * width_px)), curve)
        if wx
        else Ramp("y", ((0.0, 0.0), (1.0, wy * height_px)), curve)
    )
    return Layers(old=(moved,), old_on_top=True)


TRANSITION = TransitionKind("reveal", "Reveal", _layers, Reveal, 700)
