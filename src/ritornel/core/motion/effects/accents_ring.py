"""A ring is drawn around the object, as with a pen."""

from collections.abc import Callable
from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.layout.marks import Mark, ObjectDrawing, PathMark
from ritornel.core.layout.outlines import ellipse
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


class Ring(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Colour and width of the line, its distance from the object, and whether it stays."""

    colour: Literal["accent", "second", "words"] = "accent"
    width_px: Annotated[float, Meta(ge=1, le=40)] = 5.0
    distance_px: Annotated[float, Meta(ge=0, le=200)] = 14.0
    then: Literal["stays", "goes"] = "stays"


def _ramps(settings: Ring, curve: Curve) -> tuple[Ramp, ...]:
    return (Ramp("drawn", ((0.0, 0.0), (1.0, 1.0)), curve),)


def _extra(settings: Ring, drawing: ObjectDrawing, colour_of: Callable[[str], str]) -> tuple[Mark, ...]:
    # An ellipse around a box of the same proportion is larger than it by the square root of two.
    # Flat words need less above and below than that: the ring around them would leave the slide.
    left, top, right, bottom = drawing.words_extent()
    flat = 2**0.5 if (bottom - top) * 2 > right - left else 1.15
    rx, ry = (right - left) / 2 * flat + settings.distance_px, (bottom - top) / 2 * 2**0.5 + settings.distance_px
    return (
        PathMark(
            ellipse((left + right) / 2, (top + bottom) / 2, rx, ry),
            None,
            colour_of(f"@{settings.colour}"),
            settings.width_px,
        ),
    )


EFFECT = Effect(
    name="accents ring", title="Ring", kind="accents", ramps=_ramps, settings=Ring, lasts_ms=900, extra=_extra
)
