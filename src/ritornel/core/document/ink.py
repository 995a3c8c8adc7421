"""Ink: what is drawn by hand on slides during a show.

Inks differ by the width and dashes of their stroke and not only by colour. Each has an edge of the opposite tone, so
that it is seen on light and dark.
"""

from collections.abc import Mapping
from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from ritornel.core.document.objects import Id

InkName = Literal["plum", "chalk", "slate"]
Point = tuple[Annotated[float, Meta(ge=-20_000, le=20_000)], Annotated[float, Meta(ge=-20_000, le=20_000)]]


class Ink(msgspec.Struct, frozen=True):
    """How an ink draws, in px of the frame: `dash_px` are strokes and gaps, empty for a smooth line."""

    title: str
    colour: str
    edge: str
    width_px: float
    dash_px: tuple[float, ...]


INKS: Mapping[InkName, Ink] = {
    "plum": Ink("Plum", "#8a2456", "#fbe9f1", 7.0, ()),
    "chalk": Ink("Chalk", "#f5f6f1", "#16262e", 9.0, (14.0, 12.0)),
    "slate": Ink("Slate", "#16262e", "#f5f6f1", 3.0, ()),
}
EDGE_PX = 1.5
"""How far the edge stands out on both sides."""


class InkStroke(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One line from touch to lift, through points in px of the frame."""

    ink: InkName
    points: Annotated[tuple[Point, ...], Meta(min_length=1, max_length=5000)]


Drawings = dict[Id, Annotated[tuple[InkStroke, ...], Meta(max_length=2000)]]
"""Strokes by the slide they were drawn on."""


def erase_strokes(strokes: tuple[InkStroke, ...], x: float, y: float, reach_px: float) -> tuple[InkStroke, ...]:
    """The strokes without those that come nearer than `reach_px` to a point.

    >>> erase_strokes((InkStroke("plum", ((0, 0), (100, 0))), InkStroke("slate", ((0, 90),))), 50, 5, 10)
    (InkStroke(ink='slate', points=((0, 90),)),)
    """
    return tuple(stroke for stroke in strokes if _distance_px(stroke, x, y) > reach_px)


def _distance_px(stroke: InkStroke, x: float, y: float) -> float:
    pairs = list(zip(stroke.points, stroke.points[1:], strict=False)) or [(stroke.points[0], stroke.points[0])]
    return float(min(_from_line(x, y, *one, *other) for one, other in pairs))


def _from_line(x: float, y: float, x1: float, y1: float, x2: float, y2: float) -> float:
    """How far a place is from the line between two points."""
    dx, dy = x2 - x1, y2 - y1
    long = dx * dx + dy * dy
    share = min(max(((x - x1) * dx + (y - y1) * dy) / long, 0.0), 1.0) if long else 0.0
    return float(((x - x1 - share * dx) ** 2 + (y - y1 - share * dy) ** 2) ** 0.5)
