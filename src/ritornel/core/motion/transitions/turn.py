"""The show turns like a cube, from one of its sides to the next."""

import msgspec

from ritornel.core.motion.channels import Hinge, Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.sides import WAY, Side
from ritornel.core.motion.transition import Layers, TransitionKind

SHADE = "#101a1f"


class Turn(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where the next side comes from."""

    comes_from: Side = "right"


def _layers(settings: Turn, curve: Curve, width_px: int, height_px: int) -> Layers:
    wx, wy = WAY[settings.comes_from]
    # A side lies half a cube in front of its middle; the next one stands at a right angle to it, on the side it comes
    # from.
    hinge: Hinge = (width_px / 2, height_px / 2, -(width_px if wx else height_px) / 2)
    quarter = 90.0 * (wx or -wy)
    channel = "yaw" if wx else "pitch"
    old = Ramp(channel, ((0.0, 0.0), (1.0, -quarter)), curve, hinge=hinge)  # type: ignore[arg-type]
    new = Ramp(channel, ((0.0, quarter), (1.0, 0.0)), curve, hinge=hinge)  # type: ignore[arg-type]
    return Layers(
        old=(old, Ramp("tint", ((0.0, 0.0), (1.0, 0.45)), curve, colour=SHADE)),
        new=(new, Ramp("tint", ((0.0, 0.45), (1.0, 0.0)), curve, colour=SHADE)),
    )


TRANSITION = TransitionKind("turn", "Turn", _layers, Turn, 1100)
