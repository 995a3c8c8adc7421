"""The view flies to a framing of a large slide, or back to the whole.

How, is in motion/flight.py: it depends on where it comes from.
"""

from typing import Literal

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Fly(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Whether it lasts as long as its way takes, or as long as was set."""

    length: Literal["by its way", "set"] = "by its way"


def _ramps(settings: Fly, curve: Curve) -> tuple[Ramp, ...]:
    return ()


EFFECT = Effect(name="views fly", title="Flies there", kind="views", ramps=_ramps, settings=Fly, lasts_ms=1200)
