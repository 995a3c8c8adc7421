"""The next slide pushes the one before out of the frame."""

from typing import Literal

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.transition import Layers, TransitionKind


class Push(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where the next slide comes from."""

    comes_from: Literal["right", "left", "below", "above"] = "right"


def _layers(settings: Push, curve: Curve, width_px: int, height_px: int) -> Layers:
    dx, dy = {"right": (width_px, 0), "left": (-width_px, 0), "below": (0, height_px), "above": (0, -height_px)}[
        settings.comes_from
    ]
    channel, distance = ("x", dx) if dx else ("y", dy)
    return Layers(
        old=(Ramp(channel, ((0.0, 0.0), (1.0, -float(distance))), curve),),  # type: ignore[arg-type]
        new=(Ramp(channel, ((0.0, float(distance)), (1.0, 0.0)), curve),),  # type: ignore[arg-type]
    )


TRANSITION = TransitionKind("push", "Push", _layers, Push, 600)
