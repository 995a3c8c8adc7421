"""What on a slide is invisible, and why: for the list of objects while composing."""

from typing import Literal

import msgspec

from ritornel.core.document.alignment import bounds_of
from ritornel.core.document.layouts import scale_of
from ritornel.core.document.objects import Gradient, Object, Picture, Plain, Shape
from ritornel.core.document.show import Asset, Frame, Slide


class Visibility(msgspec.Struct, frozen=True):
    """How visible an object is: wholly or partly outside the frame, and the object that covers it."""

    outside: Literal["", "partly", "wholly"] = ""
    covered_by: str | None = None


def readable_px(frame: Frame) -> float:
    """The smallest letters that can be read at the back of a room, for all checks: 18 px in a frame of 1280 x 720, and
    in proportion in a frame of another area.

    On a phone held upright, 390 px wide, 18 px of 1280 are still 5.5 px.
    """
    return 18 * scale_of(frame)


def _solid(colour: str) -> bool:
    return len(colour) == 7 or colour.startswith("@")


def _opaque(item: Object, assets: dict[str, Asset]) -> bool:
    """Whether an upright object hides everything behind its box: a filled rectangle, or a picture without alpha that
    fills its box.
    """
    if item.opacity < 1 or item.aside or item.box.turn_deg % 360:
        return False
    if isinstance(item, Shape) and item.form == "rectangle" and item.corner_px == 0:
        fill = item.fill
        return (isinstance(fill, Plain) and _solid(fill.colour)) or (
            isinstance(fill, Gradient) and _solid(fill.first) and _solid(fill.second)
        )
    if isinstance(item, Picture) and item.fit != "contain" and item.corner_px == 0:
        asset = assets.get(item.asset_id)
        return asset is not None and asset.media_type == "image/jpeg"
    return False


def outside(item: Object, frame: Frame) -> Literal["", "partly", "wholly"]:
    """How far an object lies outside the frame, by the box around it with its turn; half a px does not count."""
    left, top, right, bottom = bounds_of(item.box)
    if right <= 0 or bottom <= 0 or left >= frame.width_px or top >= frame.height_px:
        return "wholly"
    partly = left < -0.5 or top < -0.5 or right > frame.width_px + 0.5 or bottom > frame.height_px + 0.5
    return "partly" if partly else ""


def seen_on(slide: Slide, frame: Frame, assets: dict[str, Asset]) -> dict[str, Visibility]:
    """The objects that are not simply visible, by id. Builds are ignored."""
    result: dict[str, Visibility] = {}
    walls: list[tuple[str, tuple[float, float, float, float]]] = []
    for item in reversed(slide.objects):
        left, top, right, bottom = bounds_of(item.box)
        beyond = outside(item, frame)
        cover = next(
            (
                name
                for name, wall in walls
                if wall[0] <= left and wall[1] <= top and wall[2] >= right and wall[3] >= bottom
            ),
            None,
        )
        if beyond or cover:
            result[item.id] = Visibility(beyond, cover)
        if _opaque(item, assets):
            walls.append((item.id, (left, top, right, bottom)))
    return result
