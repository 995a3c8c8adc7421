"""The next slide is wiped over the old one, with a hard or soft edge."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Mask, Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.transition import Layers, TransitionKind


class Wipe(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Its direction (0: to the right, 90: down), and the softness of its edge."""

    angle_deg: Annotated[float, Meta(ge=-360, le=360)] = 0.0
    soft: Annotated[float, Meta(ge=0, le=1)] = 0.15


def _layers(settings: Wipe, curve: Curve, width_px: int, height_px: int) -> Layers:
    return Layers(
        new=(Ramp("reveal", ((0.0, 0.0), (1.0, 1.0)), curve, Mask("wipe", settings.angle_deg, soft=settings.soft)),)
    )


TRANSITION = TransitionKind("wipe", "Wipe", _layers, Wipe, 900)
