"""Fades and returns, once a repeat; never faster than twice a second, well below the limit of WCAG 2.3.1 (three flashes
a second).
"""

from typing import Annotated

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect

LEAST_MS = 500


class Blink(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """How faint it gets."""

    faint: Annotated[float, Meta(ge=0, le=0.9)] = 0.15


def _ramps(settings: Blink, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("opacity", ((0.0, 1.0), (0.5, settings.faint), (1.0, 1.0)), (0.4, 0.0, 0.6, 1.0)),)


EFFECT = Effect(
    name="accents blink",
    title="Blink",
    kind="accents",
    ramps=_ramps,
    settings=Blink,
    lasts_ms=900,
    repeats=3,
    least_ms=LEAST_MS,
)
