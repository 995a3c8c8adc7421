"""An arrow comes from a side and points at the object."""

from collections.abc import Callable
from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.layout.marks import Mark, ObjectDrawing, PathMark
from ritornel.core.layout.outlines import close_polygon
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.sides import WAY, Side


class Point(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where the arrow comes from, its colour and size, and whether it stays."""

    comes_from: Side = "left"
    colour: Literal["accent", "second", "words"] = "accent"
    size_px: Annotated[float, Meta(ge=10, le=400)] = 70.0
    then: Literal["stays", "goes"] = "goes"


def _ramps(settings: Point, curve: Curve) -> tuple[Ramp, ...]:
    dx, dy = (share * settings.size_px for share in WAY[settings.comes_from])
    moved = (
        Ramp("x", ((0.0, dx), (0.35, 0.0), (1.0, 0.0)), curve)
        if dx
        else Ramp("y", ((0.0, dy), (0.35, 0.0), (1.0, 0.0)), curve)
    )
    return (Ramp("opacity", ((0.0, 0.0), (0.2, 1.0), (1.0, 1.0)), EVEN), moved)


def _extra(settings: Point, drawing: ObjectDrawing, colour_of: Callable[[str], str]) -> tuple[Mark, ...]:
    wx, wy = WAY[settings.comes_from]
    size, gap = settings.size_px, settings.size_px * 0.12
    # The tip, a little off the middle of the side; the arrow's own axis runs back along (wx, wy).
    tx, ty = drawing.width / 2 + wx * (drawing.width / 2 + gap), drawing.height / 2 + wy * (drawing.height / 2 + gap)
    points = ((0.0, 0.0), (0.45, 0.32), (0.45, 0.13), (1.0, 0.13), (1.0, -0.13), (0.45, -0.13), (0.45, -0.32))
    outline = close_polygon([(tx + (wx * a - wy * b) * size, ty + (wy * a + wx * b) * size) for a, b in points])
    return (PathMark(outline, colour_of(f"@{settings.colour}")),)


EFFECT = Effect(
    name="accents point", title="Point", kind="accents", ramps=_ramps, settings=Point, lasts_ms=1600, extra=_extra
)
