"""Lines, gaps and sizes that an object snaps to while it is moved or sized.

They are sent to the browser in advance, which snaps by the same rules (static/ritornel/stage/snapping.js, checked
against tests/vectors/snapping.json).
"""

from collections.abc import Callable, Iterable
from typing import Literal

import msgspec

from ritornel.core.document.objects import Box, Object
from ritornel.core.document.show import Frame, Slide

EDGES = (0.0, 0.5, 1.0)
"""Start, middle and end of a box along an axis, as shares of its size."""
MOST_GAPS = 200
"""So many gaps are sent ahead at most, the nearest neighbours first: enough for any slide a person can still read."""

Axis = Literal["x", "y"]


class Guide(msgspec.Struct, frozen=True, omit_defaults=True):
    """A line across the slide: upright at an x for axis `x`, level at a y for axis `y`.

    `object_id` is its object, None for the frame. With `only` it counts for that object alone: it marks the object's
    own place on the slide `beside`.
    """

    axis: Axis
    at: float
    object_id: str | None = None
    only: str | None = None
    beside: str | None = None


class Gap(msgspec.Struct, frozen=True):
    """The gap between two neighbours along an axis: the first runs from `first` to `start`, the second from `end` to
    `last`; across the axis both are there from `low` to `high`.
    """

    axis: Axis
    first: float
    start: float
    end: float
    last: float
    low: float
    high: float
    object_ids: tuple[str, str]


class Size(msgspec.Struct, frozen=True):
    """A width (axis `x`) or height that an object has."""

    axis: Axis
    length: float
    object_id: str


class Guides(msgspec.Struct, frozen=True):
    """Everything on a slide that objects can snap to."""

    lines: tuple[Guide, ...]
    gaps: tuple[Gap, ...] = ()
    sizes: tuple[Size, ...] = ()


class GapSnap(msgspec.Struct, frozen=True):
    """A gap that is repeated: `way` says whether the box lies between the two, before the first or after the second."""

    gap: Gap
    way: Literal["between", "before", "after"]


class Snap(msgspec.Struct, frozen=True):
    """How far a box moves by snapping, in px of the frame, and what it then lies on (None where nothing is near)."""

    dx: float
    dy: float
    x_guide: Guide | None
    y_guide: Guide | None
    x_gap: GapSnap | None = None
    y_gap: GapSnap | None = None


class Pull(msgspec.Struct, frozen=True):
    """How far a handle goes after snapping, and what its edges then lie on or what they are as long as."""

    dx: float
    dy: float
    x_guide: Guide | None = None
    y_guide: Guide | None = None
    x_size: Size | None = None
    y_size: Size | None = None


def _lines(box: Box, make: Callable[[Axis, float], Guide]) -> list[Guide]:
    found = []
    for share in EDGES if box.turn_deg % 360 == 0 else (0.5,):
        found.append(make("x", round(box.x + box.width * share, 2)))
        found.append(make("y", round(box.y + box.height * share, 2)))
    return found


def guides_of(slide: Slide, frame: Frame, beside: Iterable[tuple[str, Object, Box]] = ()) -> Guides:
    """The edges and middles of the frame and of each object from the back, then the places `beside`: where an object
    stands on a neighbouring slide (that slide's name, the object here, its box there). A turned object gives only its
    middle, and no gap or size.
    """
    found = [Guide("x", frame.width_px * share) for share in EDGES] + [
        Guide("y", frame.height_px * share) for share in EDGES
    ]
    upright = [item for item in slide.objects if not item.aside and item.box.turn_deg % 360 == 0]
    for item in slide.objects:
        if not item.aside:
            found += _lines(item.box, lambda axis, at, own=item.id: Guide(axis, at, own))  # type: ignore[misc]
    for words, item, box in beside:
        found += _lines(box, lambda axis, at, own=item.id, of=words: Guide(axis, at, None, own, of))  # type: ignore[misc]
    sizes: dict[tuple[Axis, float], Size] = {}
    for item in upright:
        sizes.setdefault(("x", item.box.width), Size("x", item.box.width, item.id))
        sizes.setdefault(("y", item.box.height), Size("y", item.box.height, item.id))
    gaps = _gaps(upright, "x", frame) + _gaps(upright, "y", frame)
    return Guides(tuple(found), tuple(gaps[:MOST_GAPS]), tuple(sizes.values()))


def _along(box: Box, axis: Axis) -> tuple[float, float, float, float]:
    """Start and end along the axis, and low and high across it."""
    if axis == "x":
        return box.x, box.x + box.width, box.y, box.y + box.height
    return box.y, box.y + box.height, box.x, box.x + box.width


def _gaps(items: list[Object], axis: Axis, frame: Frame) -> list[Gap]:
    """The gap from each object to the next one beside it. An object that fills the frame has no neighbours."""
    whole = frame.width_px if axis == "x" else frame.height_px
    spans = sorted(
        (_along(item.box, axis), item.id)
        for item in items
        if _along(item.box, axis)[1] - _along(item.box, axis)[0] < whole
    )
    found = []
    for index, ((first, start, low, high), own) in enumerate(spans):
        for (end, last, other_low, other_high), other in spans[index + 1 :]:
            if end > start and max(low, other_low) < min(high, other_high):
                found.append(
                    Gap(axis, first, start, end, last, max(low, other_low), min(high, other_high), (own, other))
                )
                break
    return found


def _nearest(start: float, size: float, guides: Iterable[Guide], reach: float) -> tuple[float, Guide | None]:
    best: tuple[float, Guide | None] = (0.0, None)
    for guide in guides:
        for share in EDGES:
            distance = guide.at - (start + size * share)
            if abs(distance) <= reach and (best[1] is None or abs(distance) < abs(best[0])):
                best = (distance, guide)
    return best


def _nearest_gap(box: Box, axis: Axis, gaps: Iterable[Gap], reach: float) -> tuple[float, GapSnap | None]:
    start, end, low, high = _along(box, axis)
    best: tuple[float, GapSnap | None] = (0.0, None)
    for gap in gaps:
        if gap.axis != axis or gap.high <= low or gap.low >= high:
            continue
        wide = gap.end - gap.start
        ways: list[tuple[Literal["between", "before", "after"], float]] = [
            ("before", gap.first - wide - end),
            ("after", gap.last + wide - start),
        ]
        if end - start < wide:
            ways.append(("between", (gap.start + gap.end - start - end) / 2))
        for way, distance in ways:
            if abs(distance) <= reach and (best[1] is None or abs(distance) < abs(best[0])):
                best = (distance, GapSnap(gap, way))
    return best


def _counts(guide: Guide, moving: frozenset[str]) -> bool:
    if guide.only is not None:
        return moving == {guide.only}
    return guide.object_id not in moving


def snap_box(box: Box, guides: Guides, moving: frozenset[str], reach: float) -> Snap:
    """The smallest move, within `reach` on each axis, that puts an edge or the middle of the box on a line of an object
    that does not move, or makes an equal gap beside or between two such objects.

    Among equals the first counts: the frame's lines before those of objects, lines before gaps.
    """
    still = [guide for guide in guides.lines if _counts(guide, moving)]
    gaps = [gap for gap in guides.gaps if not moving.intersection(gap.object_ids)]
    dx, x_guide = _nearest(box.x, box.width, (guide for guide in still if guide.axis == "x"), reach)
    dy, y_guide = _nearest(box.y, box.height, (guide for guide in still if guide.axis == "y"), reach)
    gap_dx, x_gap = _nearest_gap(box, "x", gaps, reach)
    gap_dy, y_gap = _nearest_gap(box, "y", gaps, reach)
    if x_gap is not None and (x_guide is None or abs(gap_dx) < abs(dx)):
        dx, x_guide = gap_dx, None
    else:
        x_gap = None
    if y_gap is not None and (y_guide is None or abs(gap_dy) < abs(dy)):
        dy, y_guide = gap_dy, None
    else:
        y_gap = None
    return Snap(dx, dy, x_guide, y_guide, x_gap, y_gap)


def _edge(at: float, guides: Iterable[Guide], reach: float) -> tuple[float, Guide | None]:
    best: tuple[float, Guide | None] = (0.0, None)
    for guide in guides:
        distance = guide.at - at
        if abs(distance) <= reach and (best[1] is None or abs(distance) < abs(best[0])):
            best = (distance, guide)
    return best


def snap_handle(
    box: Box,
    handle: tuple[float, float],
    way: tuple[float, float],
    guides: Guides,
    moving: frozenset[str],
    reach: float,
) -> Pull:
    """Where a handle goes: the edge it moves comes to a line, or else the side becomes as long as another.

    `handle` is 0, 0.5 or 1 along each axis; 0.5 does not move its edge. A turned box does not snap.
    """
    dx, dy = way
    if box.turn_deg % 360:
        return Pull(dx, dy)
    still = [guide for guide in guides.lines if _counts(guide, moving)]
    results: dict[Axis, tuple[float, Guide | None, Size | None]] = {}
    axes: tuple[Axis, Axis] = ("x", "y")
    for axis, share, move in zip(axes, handle, way, strict=True):
        start, end, _, _ = _along(box, axis)
        if share == 0.5:
            results[axis] = (move, None, None)
            continue
        more, guide = _edge((end if share else start) + move, (line for line in still if line.axis == axis), reach)
        size = None
        if guide is None:
            length = end - start + (move if share else -move)
            near = [
                other
                for other in guides.sizes
                if other.axis == axis and other.object_id not in moving and abs(other.length - length) <= reach
            ]
            size = min(near, key=lambda other: abs(other.length - length), default=None)
            more = (size.length - length) * (1 if share else -1) if size else 0.0
        results[axis] = (move + more, guide, size)
    return Pull(results["x"][0], results["y"][0], results["x"][1], results["y"][1], results["x"][2], results["y"][2])
