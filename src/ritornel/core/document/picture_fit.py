"""How a picture lies in its box, and how both change when its edges are cropped by hand."""

import math

import msgspec

from ritornel.core.document.alignment import round_to_tenth
from ritornel.core.document.objects import Box, Crop, Picture
from ritornel.core.errors import BadValue

Rectangle = tuple[float, float, float, float]
"""x, y, width, height."""


def fit_picture(picture: Picture, width_px: int, height_px: int) -> Rectangle:
    """The rectangle of the whole picture, in the box's coordinates, such that its cropped part covers the box, is
    contained in it or is stretched over it.
    """
    box, crop = picture.box, picture.crop
    if not width_px or not height_px:
        return 0.0, 0.0, box.width, box.height
    wide, high = width_px * crop.width, height_px * crop.height
    across, down = box.width / wide, box.height / high
    if picture.fit == "cover" or picture.drift is not None:
        across = down = max(across, down)
    elif picture.fit == "contain":
        across = down = min(across, down)
    crop_x = 1 - crop.x - crop.width if picture.flip_x else crop.x
    crop_y = 1 - crop.y - crop.height if picture.flip_y else crop.y
    x = (box.width - wide * across) / 2 - crop_x * width_px * across
    y = (box.height - high * down) / 2 - crop_y * height_px * down
    return x, y, width_px * across, height_px * down


def seen_part(picture: Picture, width_px: int, height_px: int) -> Rectangle:
    """The visible part of the picture, in the box's coordinates: the box itself, or the part that a contained picture
    fills.
    """
    box = picture.box
    if picture.fit != "contain" or picture.drift is not None or not width_px or not height_px:
        return 0.0, 0.0, box.width, box.height
    wide, high = width_px * picture.crop.width, height_px * picture.crop.height
    scale = min(box.width / wide, box.height / high)
    return (box.width - wide * scale) / 2, (box.height - high * scale) / 2, wide * scale, high * scale


def cut_to(picture: Picture, width_px: int, height_px: int, box: Box) -> Picture:
    """The picture with another box and its content in the same place: the crop follows the box.

    A larger box shows again what was cut off, at most to the picture's edge. Raises BadValue where nothing of the
    picture would be left.
    """
    old = picture.box
    turn = math.radians(old.turn_deg)
    c, s = math.cos(turn), math.sin(turn)
    dx, dy = box.x + box.width / 2 - old.x - old.width / 2, box.y + box.height / 2 - old.y - old.height / 2
    left = old.width / 2 + dx * c + dy * s - box.width / 2
    top = old.height / 2 - dx * s + dy * c - box.height / 2
    x, y, width, height = fit_picture(picture, width_px, height_px)
    right, bottom = min(left + box.width, x + width), min(top + box.height, y + height)
    left, top = max(left, x), max(top, y)
    if right - left < width / 100 or bottom - top < height / 100:
        raise BadValue(f"Cutting “{picture.name}”: nothing of it would be left.", "box")
    share_x, share_y, share_w, share_h = (
        (left - x) / width,
        (top - y) / height,
        (right - left) / width,
        (bottom - top) / height,
    )
    crop = Crop(
        _share(1 - share_x - share_w if picture.flip_x else share_x, 0.99),
        _share(1 - share_y - share_h if picture.flip_y else share_y, 0.99),
        _share(share_w, 1.0),
        _share(share_h, 1.0),
    )
    # The middle of what is left, turned back into the slide.
    mx, my = (left + right) / 2 - old.width / 2, (top + bottom) / 2 - old.height / 2
    cx = old.x + old.width / 2 + mx * c - my * s
    cy = old.y + old.height / 2 + mx * s + my * c
    fresh = Box(
        round_to_tenth(cx - (right - left) / 2),
        round_to_tenth(cy - (bottom - top) / 2),
        round_to_tenth(right - left),
        round_to_tenth(bottom - top),
        old.turn_deg,
    )
    return msgspec.structs.replace(
        picture, box=fresh, crop=crop, fit="stretch" if picture.fit == "stretch" else "cover"
    )


def _share(value: float, most: float) -> float:
    """A share between 0 and `most`, to six decimals."""
    return max(0.0, min(round(value, 6), most))
