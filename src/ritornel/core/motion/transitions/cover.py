"""The next slide slides over the one before."""

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.sides import WAY, Side
from ritornel.core.motion.transition import Layers, TransitionKind


class Cover(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where the next slide comes from."""

    comes_from: Side = "right"


def _layers(settings: Cover, curve: Curve, width_px: int, height_px: int) -> Layers:
    wx, wy = WAY[settings.comes_from]
    moved = (
        Ramp("x", ((0.0, wx * width_px), (1.0, 0.0)), curve)
        if wx
        else Ramp("y", ((0.0, wy * height_px), (1.0, 0.0)), curve)
    )
    return Layers(new=(moved,))


TRANSITION = TransitionKind("cover", "Cover", _layers, Cover, 700)
