"""Where a new object goes on a slide so that it can be seen: not exactly on another object, nor on its own colour."""

from collections.abc import Sequence

import msgspec

from ritornel.core.document.objects import Box, Object, Plain, Shape, TextHolder
from ritornel.core.document.show import Frame

STEP_PX = 24.0
"""How far each try goes to the right and down, in px of a frame of 1280 x 720."""
MOST_TRIES = 200
MOST_COVERED = 0.5
"""So much of something new may lie on what has its colour."""


def free_place(items: Sequence[Object], others: Sequence[Object], frame: Frame, scale: float) -> tuple[Object, ...]:
    """The new objects, moved together to the first place where each can be seen: where they are, else step by step to
    the right and down, starting again at the left and top where the frame ends. Where no place is free they stay.
    """
    step = STEP_PX * scale
    for number in range(MOST_TRIES):
        moved = [_moved(item, number * step, frame) for item in items]
        if not any(_is_lost(item, other, step) for item in moved for other in others):
            return tuple(moved)
    return tuple(items)


def _moved(item: Object, by: float, frame: Frame) -> Object:
    if not by:
        return item
    box = item.box
    room_x, room_y = max(frame.width_px - box.width, 1.0), max(frame.height_px - box.height, 1.0)
    x, y = round((box.x + by) % room_x, 1), round((box.y + by) % room_y, 1)
    return msgspec.structs.replace(item, box=msgspec.structs.replace(box, x=x, y=y))


def _is_lost(item: Object, other: Object, step: float) -> bool:
    """Whether the new object stands exactly where the other does, or mostly on its own colour."""
    a, b = item.box, other.box
    close = abs(a.x - b.x) < step / 2 and abs(a.y - b.y) < step / 2
    paint = _paint(item)
    return close or (paint is not None and paint == _ground(other) and _covered(a, b) > MOST_COVERED)


def _paint(item: Object) -> str | None:
    """The one colour an object is seen by; None where it has several."""
    if isinstance(item, Shape):
        return item.fill.colour if isinstance(item.fill, Plain) else item.stroke.colour if item.stroke else None
    return item.colour if isinstance(item, TextHolder) else None


def _ground(item: Object) -> str | None:
    """The colour with which an object covers what lies behind it."""
    return item.fill.colour if isinstance(item, Shape) and isinstance(item.fill, Plain) else None


def _covered(box: Box, by: Box) -> float:
    """How much of a box another one covers, 0 to 1; turns are ignored."""
    width = min(box.x + box.width, by.x + by.width) - max(box.x, by.x)
    height = min(box.y + box.height, by.y + by.height) - max(box.y, by.y)
    area = box.width * box.height
    return max(width, 0.0) * max(height, 0.0) / area if area else 0.0
