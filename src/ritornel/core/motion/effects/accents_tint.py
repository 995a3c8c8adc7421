"""Takes on a colour and loses it again."""

from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Tint(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The role of the colour, and how much of it."""

    colour: Literal["accent", "second", "words", "raised"] = "accent"
    amount: Annotated[float, Meta(ge=0.05, le=1)] = 0.8


def _ramps(settings: Tint, curve: Curve) -> tuple[Ramp, ...]:
    return (
        Ramp(
            "tint",
            ((0.0, 0.0), (0.3, settings.amount), (0.7, settings.amount), (1.0, 0.0)),
            curve,
            colour=f"@{settings.colour}",
        ),
    )


EFFECT = Effect(name="accents tint", title="Tint", kind="accents", ramps=_ramps, settings=Tint, lasts_ms=1200)
