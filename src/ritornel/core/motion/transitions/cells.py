"""The next slide appears cell by cell, successive cells far apart."""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Mask, Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.transition import Layers, TransitionKind


class Cells(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The number of columns; cells are about as high as wide."""

    columns: Annotated[int, Meta(ge=2, le=32)] = 14


def _layers(settings: Cells, curve: Curve, width_px: int, height_px: int) -> Layers:
    return Layers(new=(Ramp("reveal", ((0.0, 0.0), (1.0, 1.0)), curve, Mask("cells", count=settings.columns)),))


TRANSITION = TransitionKind("cells", "Cells", _layers, Cells, 1100)
