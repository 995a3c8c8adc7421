"""Pairing the objects of two neighbouring slides, so that a carry moves each from its old place to its new one."""

from collections.abc import Callable, Sequence
from typing import Literal

import msgspec

from ritornel.core.document.objects import Object, Picture, Shape, TextHolder
from ritornel.core.document.show import Link

Reason = Literal["by hand", "lineage", "picture", "words"]


class CarryCandidate(msgspec.Struct, frozen=True):
    """An object that takes part in a carry: its place in the stacking order, and its middle when the slide before ends,
    or when the new slide begins.
    """

    item: Object
    rank: int
    x: float
    y: float


class Pair(msgspec.Struct, frozen=True):
    """Two objects that are one and the same, and why."""

    before: str
    after: str
    why: Reason


def _lineage(item: Object) -> str:
    return item.lineage or item.id


def _picture(item: Object) -> str | None:
    return item.asset_id if isinstance(item, Picture) else None


def _words(item: Object) -> tuple[str, str] | None:
    """Kind and text; two shapes of one form match without text."""
    text = "\n".join(paragraph.text for paragraph in item.paragraphs).strip() if isinstance(item, TextHolder) else ""
    if isinstance(item, Shape):
        return f"shape {item.form}", text
    return (item.__class__.__name__, text) if text else None


def _best(
    old: Sequence[CarryCandidate],
    new: Sequence[CarryCandidate],
    alike: Callable[[Object], object],
    forbidden: set[tuple[str, str]],
) -> list[tuple[CarryCandidate, CarryCandidate]]:
    """The largest number of pairs with equal keys; among those pairings the one with the least sum of squared
    distances; ties go by the stacking order.

    The assignment is Crouse's variant of Jonker and Volgenant's algorithm (IEEE Transactions on Aerospace and
    Electronic Systems, 2016), in SciPy. A forbidden pair costs more than all pairs together, so it is never chosen
    while another one exists.
    """
    groups: dict[object, tuple[list[CarryCandidate], list[CarryCandidate]]] = {}
    for side, items in enumerate((old, new)):
        for standing in items:
            key = alike(standing.item)
            if key is not None:
                groups.setdefault(key, ([], []))[side].append(standing)
    found: list[tuple[CarryCandidate, CarryCandidate]] = []
    for left, right in groups.values():
        if not left or not right:
            continue
        if len(left) == len(right) == 1:
            if (left[0].item.id, right[0].item.id) not in forbidden:
                found.append((left[0], right[0]))
            continue
        found += _assign(left, right, forbidden)
    return found


def _assign(
    left: list[CarryCandidate], right: list[CarryCandidate], forbidden: set[tuple[str, str]]
) -> list[tuple[CarryCandidate, CarryCandidate]]:
    import numpy as np  # here, because most shows never need them and SciPy takes half a second to come in
    from scipy.optimize import linear_sum_assignment

    squares = np.array([[(a.x - b.x) ** 2 + (a.y - b.y) ** 2 for b in right] for a in left])
    ranks = np.array([[(a.rank - b.rank) ** 2 for b in right] for a in left])
    cost = squares + ranks * 1e-6
    never = np.array([[(a.item.id, b.item.id) in forbidden for b in right] for a in left])
    cost[never] = cost.sum() + 1.0
    rows, columns = linear_sum_assignment(cost)
    return [(left[row], right[column]) for row, column in zip(rows, columns, strict=True) if not never[row, column]]


def pairs_of(
    old: Sequence[CarryCandidate],
    new: Sequence[CarryCandidate],
    links: Sequence[Link] = (),
    unlinks: Sequence[Link] = (),
) -> tuple[Pair, ...]:
    """The pairs in the stacking order of the new slide: first those linked by hand, then by lineage, by picture, by
    kind and text. A pair unlinked by hand is not made; its objects may pair with others.
    """
    forbidden = {(link.before, link.after) for link in unlinks}
    left, right = {standing.item.id: standing for standing in old}, {standing.item.id: standing for standing in new}
    pairs: list[Pair] = []
    for link in links:
        if link.before in left and link.after in right:
            del left[link.before], right[link.after]
            pairs.append(Pair(link.before, link.after, "by hand"))
    steps: tuple[tuple[Reason, Callable[[Object], object]], ...] = (
        ("lineage", _lineage),
        ("picture", _picture),
        ("words", _words),
    )
    for why, alike in steps:
        for a, b in _best(list(left.values()), list(right.values()), alike, forbidden):
            del left[a.item.id], right[b.item.id]
            pairs.append(Pair(a.item.id, b.item.id, why))
    rank = {standing.item.id: standing.rank for standing in new}
    return tuple(sorted(pairs, key=lambda pair: rank[pair.after]))
