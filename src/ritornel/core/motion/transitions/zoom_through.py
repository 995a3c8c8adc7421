"""The view moves through the old slide into the next."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.transition import Layers, TransitionKind


class ZoomThrough(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How large the old slide gets before it is gone."""

    size: Annotated[float, Meta(ge=1.1, le=6)] = 2.2


def _layers(settings: ZoomThrough, curve: Curve, width_px: int, height_px: int) -> Layers:
    old = (
        Ramp("scale", ((0.0, 1.0), (1.0, settings.size)), curve),
        Ramp("opacity", ((0.0, 1.0), (0.3, 1.0), (0.75, 0.0), (1.0, 0.0)), EVEN),
    )
    return Layers(old=old, new=(Ramp("scale", ((0.0, 1 / settings.size), (1.0, 1.0)), curve),), old_on_top=True)


TRANSITION = TransitionKind("zoom through", "Zoom through", _layers, ZoomThrough, 1000)
