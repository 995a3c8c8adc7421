"""How a box changes when one of its handles is dragged (static/ritornel/stage/sizing.js, checked against
tests/vectors/sizing.json).
"""

import math

from ritornel.core.document.alignment import round_to_tenth
from ritornel.core.document.objects import Box

LEAST_PX = 8.0


def pull_handle(
    box: Box,
    handle: tuple[float, float],
    way: tuple[float, float],
    keep: bool,
    least: tuple[float, float] = (LEAST_PX, LEAST_PX),
) -> Box:
    """The box after dragging the handle at `handle` (0, 0.5 or 1 along its width and height) by `way`, in px of the
    frame.

    The opposite side or corner stays in place, also on a turned box. With `keep`, a corner keeps the proportion, by the
    larger of the two growths. No side gets shorter than `least`. Rounded to tenths of a px, half away from zero
    upwards.
    """
    sx, sy = handle
    turn = math.radians(box.turn_deg)
    c, s = math.cos(turn), math.sin(turn)
    across, down = way[0] * c + way[1] * s, -way[0] * s + way[1] * c
    width = box.width if sx == 0.5 else max(box.width + (across if sx else -across), least[0])
    height = box.height if sy == 0.5 else max(box.height + (down if sy else -down), least[1])
    if keep and sx != 0.5 and sy != 0.5 and box.width and box.height:
        share = max(width / box.width, height / box.height)
        width, height = box.width * share, box.height * share
    # The middle goes half the growth away from the side that stays, turned with the box.
    gx = (sx - 0.5) * (width - box.width)
    gy = (sy - 0.5) * (height - box.height)
    cx = box.x + box.width / 2 + gx * c - gy * s
    cy = box.y + box.height / 2 + gx * s + gy * c
    x, y, w, h = (round_to_tenth(value) for value in (cx - width / 2, cy - height / 2, width, height))
    return Box(x, y, w, h, box.turn_deg)


def turn_box(box: Box, pointer: tuple[float, float], step_deg: float) -> Box:
    """The box turned so that its top faces the pointer, to the nearest `step_deg` (0: to a tenth of a degree); -180 up
    to 180.
    """
    dx, dy = pointer[0] - (box.x + box.width / 2), pointer[1] - (box.y + box.height / 2)
    angle = math.degrees(math.atan2(dx, -dy))
    step = step_deg or 0.1
    angle = math.floor(angle / step + 0.5) * step
    angle = round_to_tenth(angle)
    return Box(box.x, box.y, box.width, box.height, angle - 360 if angle >= 180 else angle)
