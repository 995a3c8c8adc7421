"""Aligning objects, distributing them and making them the same size."""

import math
from collections.abc import Callable
from typing import Literal

import msgspec

from ritornel.core.document.objects import Box
from ritornel.core.document.show import Frame
from ritornel.core.errors import BadValue

Arrangement = Literal[
    "left",
    "centre",
    "right",
    "top",
    "middle",
    "bottom",
    "frame centre",
    "frame middle",
    "spread across",
    "spread down",
    "same width",
    "same height",
]


def round_to_tenth(value: float) -> float:
    """Places and sizes to a tenth of a px, rounded half up."""
    return math.floor(value * 10 + 0.5) / 10


def bounds_of(box: Box) -> tuple[float, float, float, float]:
    """Left, top, right and bottom of the box as it is seen, with its turn."""
    angle = math.radians(box.turn_deg)
    c, s = abs(math.cos(angle)), abs(math.sin(angle))
    half_w, half_h = (box.width * c + box.height * s) / 2, (box.width * s + box.height * c) / 2
    cx, cy = box.x + box.width / 2, box.y + box.height / 2
    return cx - half_w, cy - half_h, cx + half_w, cy + half_h


def bounds_around(boxes: list[Box]) -> Box:
    """The box around all of them as they are seen, with their turns."""
    edges = [bounds_of(box) for box in boxes]
    left, top = min(edge[0] for edge in edges), min(edge[1] for edge in edges)
    return Box(left, top, max(edge[2] for edge in edges) - left, max(edge[3] for edge in edges) - top)


def _move(box: Box, dx: float, dy: float) -> Box:
    return msgspec.structs.replace(box, x=round_to_tenth(box.x + dx), y=round_to_tenth(box.y + dy))


def _distribute(units: list[list[Box]], axis: int) -> list[list[Box]]:
    """Boxes with equal gaps: the outer two stay, the others move."""
    edges = [bounds_of(bounds_around(unit)) for unit in units]
    order = sorted(range(len(units)), key=lambda n: (edges[n][axis] + edges[n][axis + 2], n))
    room = edges[order[-1]][axis + 2] - edges[order[0]][axis]
    gap = (room - sum(edge[axis + 2] - edge[axis] for edge in edges)) / (len(units) - 1)
    at = edges[order[0]][axis]
    result = list(units)
    for n in order:
        way = at - edges[n][axis]
        result[n] = [_move(box, way if axis == 0 else 0, way if axis == 1 else 0) for box in units[n]]
        at += edges[n][axis + 2] - edges[n][axis] + gap
    return result


def arrange_boxes(units: list[list[Box]], how: Arrangement, frame: Frame) -> list[list[Box]]:
    """The boxes after the arrangement, in the same order.

    A unit is a single object or a group; a group keeps together. Units align to the box around all of them; a single
    unit aligns to the frame. Places are rounded to a tenth of a px. Raises BadValue for distributing fewer than three
    units, or sizing fewer than two.
    """
    if how in ("spread across", "spread down"):
        if len(units) < 3:
            raise BadValue("Spreading needs at least three objects.", "object_ids")
        return _distribute(units, 0 if how == "spread across" else 1)
    if how in ("same width", "same height"):
        if len(units) < 2:
            raise BadValue("Making objects the same size needs at least two.", "object_ids")
        return [[_size_alike(box, units[0][0], how) for box in unit] for unit in units]
    whole = bounds_around([box for unit in units for box in unit])
    target = (
        bounds_of(Box(0, 0, frame.width_px, frame.height_px))
        if len(units) == 1 or how.startswith("frame")
        else bounds_of(whole)
    )
    together = how.startswith("frame")
    result = []
    for unit in units:
        own = bounds_of(whole if together else bounds_around(unit))
        dx, dy = _WAYS[how.removeprefix("frame ")](own, target)
        result.append([_move(box, dx, dy) for box in unit])
    return result


Edges = tuple[float, float, float, float]
_WAYS: dict[str, Callable[[Edges, Edges], tuple[float, float]]] = {
    "left": lambda own, target: (target[0] - own[0], 0),
    "right": lambda own, target: (target[2] - own[2], 0),
    "centre": lambda own, target: ((target[0] + target[2] - own[0] - own[2]) / 2, 0),
    "top": lambda own, target: (0, target[1] - own[1]),
    "bottom": lambda own, target: (0, target[3] - own[3]),
    "middle": lambda own, target: (0, (target[1] + target[3] - own[1] - own[3]) / 2),
}


def _size_alike(box: Box, model: Box, how: str) -> Box:
    width = model.width if how == "same width" else box.width
    height = model.height if how == "same height" else box.height
    x, y = box.x + (box.width - width) / 2, box.y + (box.height - height) / 2
    return Box(round_to_tenth(x), round_to_tenth(y), width, height, box.turn_deg)


def scale_within(box: Box, old: Box, new: Box) -> Box:
    """Where a box goes when the box around its group is pulled from `old` to `new`. A turned box keeps its
    proportion.
    """
    sx = new.width / old.width if old.width else 1.0
    sy = new.height / old.height if old.height else 1.0
    if box.turn_deg % 180:
        own_x = own_y = min(sx, sy)
    else:
        own_x, own_y = sx, sy
    cx = new.x + (box.x + box.width / 2 - old.x) * sx
    cy = new.y + (box.y + box.height / 2 - old.y) * sy
    width, height = box.width * own_x, box.height * own_y
    return Box(
        round_to_tenth(cx - width / 2),
        round_to_tenth(cy - height / 2),
        round_to_tenth(width),
        round_to_tenth(height),
        box.turn_deg,
    )
