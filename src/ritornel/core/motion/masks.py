"""Masks as outlines that both painters clip to (static/ritornel/player/masks.js, checked against
tests/vectors/masks.json).
"""

import math

from ritornel.core.layout.outlines import close_polygon, ellipse
from ritornel.core.motion.channels import Mask

Region = tuple[float, float, float, float]
"""x, y, width and height of what is revealed."""
Point = tuple[float, float]


def _ways(mask: Mask, region: Region) -> tuple[Point, float, float, float, float]:
    """The middle of the region, the direction of the mask as cosine and sine, the length of the region in that
    direction, and half its width across it.
    """
    x, y, width, height = region
    angle = math.radians(mask.angle_deg)
    c, s = math.cos(angle), math.sin(angle)
    return (
        (x + width / 2, y + height / 2),
        c,
        s,
        abs(width * c) + abs(height * s),
        (abs(width * s) + abs(height * c)) / 2,
    )


def _strip(mask: Mask, region: Region, first: float, last: float) -> str:
    """The part of the region between two shares of its length along the mask's direction."""
    (cx, cy), c, s, length, half = _ways(mask, region)
    a, b = (first - 0.5) * length, (last - 0.5) * length
    corners = ((a, -half), (b, -half), (b, half), (a, half))
    return close_polygon([(cx + along * c - across * s, cy + along * s + across * c) for along, across in corners])


def cell_order(count: int) -> int:
    """The step from one cell to the next: about 0.618 of their number and without a common divisor with it, so that
    every cell has one turn and successive cells are far apart.
    """
    step = max(1, int(count * 0.618))
    while math.gcd(step, count) != 1:
        step += 1
    return step


def mask_outline(mask: Mask, reveal: float, region: Region) -> str:
    """The visible region as an outline in SVG's path syntax; empty where nothing is visible.

    For a wipe with a soft edge see `soft_edge`.
    """
    if reveal <= 0:
        return ""
    x, y, width, height = region
    if mask.kind == "wipe":
        return _strip(mask, region, 0.0, reveal)
    if mask.kind == "iris":
        radius = math.hypot(width, height) / 2 * reveal
        return ellipse(x + width / 2, y + height / 2, radius, radius)
    if mask.kind == "blinds":
        return " ".join(_strip(mask, region, n / mask.count, (n + reveal) / mask.count) for n in range(mask.count))
    columns = mask.count
    rows = max(1, math.floor(columns * height / width + 0.5)) if width else 1
    total = columns * rows
    step = cell_order(total)
    shown = math.floor(reveal * total + 1e-9)
    wide, high = width / columns, height / rows
    pieces = []
    for rank in range(shown):
        cell = rank * step % total
        left, top = x + cell % columns * wide, y + cell // columns * high
        pieces.append(close_polygon([(left, top), (left + wide, top), (left + wide, top + high), (left, top + high)]))
    return " ".join(pieces)


def soft_edge(mask: Mask, reveal: float, region: Region) -> tuple[float, float, float, float] | None:
    """The line (x1, y1, x2, y2) along which a soft wipe goes from visible to invisible; None for a hard edge."""
    if mask.kind != "wipe" or mask.soft <= 0:
        return None
    (cx, cy), c, s, length, _ = _ways(mask, region)
    last = reveal * (1 + mask.soft)
    a, b = (last - mask.soft - 0.5) * length, (last - 0.5) * length
    return cx + a * c, cy + a * s, cx + b * c, cy + b * s
