"""Travels along a path, evenly apart from its pace, turning with the path if wanted; it stays where the path ends."""

import itertools
import math
from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.errors import BadValue
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve, ease
from ritornel.core.motion.effect import Effect

PIECES = 16
"""Straight pieces a cubic is taken as; on a frame of 1280 px they are off by less than a px."""
KEYS = 60


class Along(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """`path` in px from where the object stands, in SVG's syntax (M, L, C, absolute). `turns` with the path or not."""

    path: Annotated[
        str,
        Meta(
            max_length=20_000,
            pattern=r"^M(?: -?\d+(?:\.\d+)?){2}(?: (?:L(?: -?\d+(?:\.\d+)?){2}|C(?: "
            r"-?\d+(?:\.\d+)?){6}))*$",
        ),
    ] = "M 0 0 C 80 -90 220 -90 300 0"
    turns: Literal["not", "along the path"] = "not"


def points_on(path: str) -> list[tuple[float, float]]:
    """The path as points of straight pieces. Raises BadValue for a path without length."""
    words = path.split()
    points = [(float(words[1]), float(words[2]))]
    at = 3
    while at < len(words):
        count = {"L": 2, "C": 6}[words[at]]
        numbers = [float(word) for word in words[at + 1 : at + 1 + count]]
        x0, y0 = points[-1]
        if count == 2:
            points.append((numbers[0], numbers[1]))
        else:
            x1, y1, x2, y2, x3, y3 = numbers
            for n in range(1, PIECES + 1):
                t = n / PIECES
                a, b, c, d = (1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3
                points.append((a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3))
        at += 1 + count
    if sum(math.dist(a, b) for a, b in itertools.pairwise(points)) < 1:
        raise BadValue("The path has no length; draw it to where the object is to go.", "path")
    return points


def _ramps(settings: Along, curve: Curve) -> tuple[Ramp, ...]:
    points = points_on(settings.path)
    lengths = [0.0]
    for a, b in itertools.pairwise(points):
        lengths.append(lengths[-1] + math.dist(a, b))
    xs, ys, turns = [], [], []
    piece, turn, before = 1, 0.0, None
    for n in range(KEYS + 1):
        way = ease(n / KEYS, curve) * lengths[-1]
        while piece < len(points) - 1 and lengths[piece] < way:
            piece += 1
        (x0, y0), (x1, y1) = points[piece - 1], points[piece]
        span = lengths[piece] - lengths[piece - 1]
        share = (way - lengths[piece - 1]) / span if span else 0.0
        xs.append((n / KEYS, x0 + (x1 - x0) * share))
        ys.append((n / KEYS, y0 + (y1 - y0) * share))
        heading = math.degrees(math.atan2(y1 - y0, x1 - x0))
        if before is not None:
            turn += (heading - before + 180) % 360 - 180
        before = heading
        turns.append((n / KEYS, turn))
    ramps = (Ramp("x", tuple(xs), EVEN), Ramp("y", tuple(ys), EVEN))
    return (*ramps, Ramp("turn", tuple(turns), EVEN)) if settings.turns == "along the path" else ramps


EFFECT = Effect(name="travels along", title="Along a path", kind="travels", ramps=_ramps, settings=Along, lasts_ms=1800)
