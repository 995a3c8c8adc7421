"""The ways a picture can drift: the two crops of each."""

from typing import Literal

import msgspec

from ritornel.core.document.objects import Crop, Drift, Picture

DriftWay = Literal["none", "closer", "farther", "left", "right", "up", "down"]
SHARE = 0.82
"""How much of what a drift goes over is seen at a time: enough to be felt, too little to be noticed as a move."""


IN_TURN: tuple[DriftWay, ...] = ("closer", "right", "farther", "left")
"""The ways of pictures one after another, so that no two neighbours move alike."""


def whole_of(picture: Picture) -> Crop:
    """All that a picture shows over time: its crop before it drifted, else its crop and the crop it drifts to."""
    if picture.drift and picture.drift.still:
        return picture.drift.still
    one, other = picture.crop, picture.drift.ends if picture.drift else picture.crop
    x, y = min(one.x, other.x), min(one.y, other.y)
    return Crop(
        x, y, max(one.x + one.width, other.x + other.width) - x, max(one.y + one.height, other.y + other.height) - y
    )


def _within(whole: Crop, across: float, down: float) -> Crop:
    """A crop of `SHARE` of the whole, placed in the remaining room by shares of 0..1."""
    width, height = whole.width * SHARE, whole.height * SHARE
    x, y = whole.x + (whole.width - width) * across, whole.y + (whole.height - height) * down
    return Crop(*(round(value, 6) for value in (x, y, width, height)))


def set_drift(picture: Picture, way: DriftWay) -> Picture:
    """The picture with another drift over all that it shows.

    With `none` it stands still and shows all of it. Example, a whole picture, to the right: from the left 82 %, in the
    middle of its height, to the right 82 %.
    """
    whole = whole_of(picture)
    crops = {
        "closer": (whole, _within(whole, 0.5, 0.5)),
        "farther": (_within(whole, 0.5, 0.5), whole),
        "left": (_within(whole, 1.0, 0.5), _within(whole, 0.0, 0.5)),
        "right": (_within(whole, 0.0, 0.5), _within(whole, 1.0, 0.5)),
        "up": (_within(whole, 0.5, 1.0), _within(whole, 0.5, 0.0)),
        "down": (_within(whole, 0.5, 0.0), _within(whole, 0.5, 1.0)),
    }
    if way == "none":
        return msgspec.structs.replace(picture, crop=whole, drift=None)
    first, last = crops[way]
    pace = picture.drift.pace if picture.drift else "even"
    return msgspec.structs.replace(picture, crop=first, drift=Drift(last, pace, whole))
