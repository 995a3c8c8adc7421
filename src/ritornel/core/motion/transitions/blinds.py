"""The next slide appears in strips, like blinds that open."""

from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Mask, Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.transition import Layers, TransitionKind


class Blinds(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The direction and number of the strips."""

    strips: Literal["lying", "standing"] = "lying"
    count: Annotated[int, Meta(ge=2, le=40)] = 9


def _layers(settings: Blinds, curve: Curve, width_px: int, height_px: int) -> Layers:
    mask = Mask("blinds", 90.0 if settings.strips == "lying" else 0.0, settings.count)
    return Layers(new=(Ramp("reveal", ((0.0, 0.0), (1.0, 1.0)), curve, mask),))


TRANSITION = TransitionKind("blinds", "Blinds", _layers, Blinds, 900)
