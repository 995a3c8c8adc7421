"""The view flies to a framing of a large slide, or back to the whole.

The flight itself is in motion/flight.py, since it depends on where it starts.
"""

from typing import Literal

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Fly(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Whether its length follows from its path or is set."""

    length: Literal["by its way", "set"] = "by its way"


def _ramps(settings: Fly, curve: Curve) -> tuple[Ramp, ...]:
    return ()


EFFECT = Effect(name="views fly", title="Flies there", kind="views", ramps=_ramps, settings=Fly, lasts_ms=1200)
