"""From the points of a hand's movement to an outline: thinned, and smoothed where wanted."""

import math

from ritornel.core.document.alignment import round_to_tenth
from ritornel.core.document.objects import Box
from ritornel.core.errors import BadValue

Point = tuple[float, float]
MOST_POINTS = 20_000


def thin_points(points: list[Point], tolerance: float) -> list[Point]:
    """The fewest of the points from which no other is farther than `tolerance` (Ramer 1972; Douglas and Peucker
    1973).
    """
    if len(points) < 3:
        return points
    keep = {0, len(points) - 1}
    spans = [(0, len(points) - 1)]
    while spans:
        first, last = spans.pop()
        (x1, y1), (x2, y2) = points[first], points[last]
        length = math.hypot(x2 - x1, y2 - y1)
        far, worst = 0.0, first
        for index in range(first + 1, last):
            x, y = points[index]
            away = abs((x2 - x1) * (y1 - y) - (x1 - x) * (y2 - y1)) / length if length else math.hypot(x - x1, y - y1)
            if away > far:
                far, worst = away, index
        if far > tolerance:
            keep.add(worst)
            spans += [(first, worst), (worst, last)]
    return [points[index] for index in sorted(keep)]


def outline_of_points(points: list[Point], closed: bool, smooth: bool) -> tuple[Box, str]:
    """The box around the points, at least 2 px each way, and their outline in shares of it.

    A smooth outline goes through the points as a Catmull-Rom spline (1974), written as cubics with handles of a sixth
    of the way between neighbours. Raises BadValue for fewer than two points, or for more than 20 000.
    """
    if len(points) < 2:
        raise BadValue("A drawing needs at least two points.", "points")
    if len(points) > MOST_POINTS:
        raise BadValue(f"The drawing has {len(points):,} points; at most {MOST_POINTS:,} can be kept.", "points")
    if smooth:
        points = thin_points(points, 1.0)
    left, top = min(x for x, _ in points), min(y for _, y in points)
    width, height = max(max(x for x, _ in points) - left, 2.0), max(max(y for _, y in points) - top, 2.0)
    shares = [((x - left) / width, (y - top) / height) for x, y in points]
    words = [_word("M", shares[0])]
    count = len(shares)
    for index in range(1, count + (1 if closed and smooth else 0)):
        a, b = shares[index - 1], shares[index % count]
        if not smooth:
            words.append(_word("L", b))
            continue
        before = shares[(index - 2) % count] if closed or index >= 2 else a
        after = shares[(index + 1) % count] if closed or index + 1 < count else b
        c1 = (a[0] + (b[0] - before[0]) / 6, a[1] + (b[1] - before[1]) / 6)
        c2 = (b[0] - (after[0] - a[0]) / 6, b[1] - (after[1] - a[1]) / 6)
        words.append(_word("C", c1, c2, b))
    if closed:
        words.append("Z")
    return Box(round_to_tenth(left), round_to_tenth(top), round_to_tenth(width), round_to_tenth(height)), " ".join(
        words
    )


def _number(value: float) -> str:
    text = f"{value:.4f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _word(command: str, *points: Point) -> str:
    return " ".join([command, *(_number(value) for point in points for value in point)])
