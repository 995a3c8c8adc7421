"""The old slide turns over like a page, about one of its edges; the next one lies beneath."""

import math
from typing import Literal

import msgspec

from ritornel.core.motion.channels import Hinge, Ramp
from ritornel.core.motion.depth import camera_px
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.sides import WAY
from ritornel.core.motion.transition import Layers, TransitionKind

SHADE = "#101a1f"


class PageTurn(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The edge where the pages are bound."""

    bound_at: Literal["left", "right", "above"] = "left"


def _layers(settings: PageTurn, curve: Curve, width_px: int, height_px: int) -> Layers:
    wx, wy = WAY[settings.bound_at]
    hinge: Hinge = (width_px * (1 + wx) / 2, height_px * (1 + wy) / 2, 0.0)
    # Turned this far, a page hides nothing any more: it is seen edge on, along the edge where it is bound.
    gone = math.degrees(math.atan2(camera_px(width_px, height_px), (width_px if wx else height_px) / 2))
    channel, way = ("yaw", wx) if wx else ("pitch", -wy)
    page = Ramp(channel, ((0.0, 0.0), (1.0, gone * way)), curve, hinge=hinge)  # type: ignore[arg-type]
    return Layers(
        old=(page, Ramp("tint", ((0.0, 0.0), (1.0, 0.35)), curve, colour=SHADE)),
        new=(Ramp("tint", ((0.0, 0.4), (0.6, 0.15), (1.0, 0.0)), EVEN, colour=SHADE),),
        old_on_top=True,
    )


TRANSITION = TransitionKind("page turn", "Page turn", _layers, PageTurn, 1200)
