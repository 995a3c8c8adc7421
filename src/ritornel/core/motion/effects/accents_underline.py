"""A line is drawn under the object."""

from collections.abc import Callable
from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.layout.marks import Mark, ObjectDrawing, PathMark
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Underline(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Colour and width of the line, and whether it stays."""

    colour: Literal["accent", "second", "words"] = "accent"
    width_px: Annotated[float, Meta(ge=1, le=40)] = 5.0
    then: Literal["stays", "goes"] = "stays"


def _ramps(settings: Underline, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("drawn", ((0.0, 0.0), (1.0, 1.0)), curve),)


def _extra(settings: Underline, drawing: ObjectDrawing, colour_of: Callable[[str], str]) -> tuple[Mark, ...]:
    left, _, right, bottom = drawing.words_extent()
    y = bottom + settings.width_px
    return (
        PathMark(
            f"M {left:.2f} {y:.2f} L {right:.2f} {y:.2f}", None, colour_of(f"@{settings.colour}"), settings.width_px
        ),
    )


EFFECT = Effect(
    name="accents underline",
    title="Underline",
    kind="accents",
    ramps=_ramps,
    settings=Underline,
    lasts_ms=700,
    extra=_extra,
)
