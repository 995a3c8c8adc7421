"""Places and outlines of OpenDocument: transformations, paths, polygons."""

import math
import re
from xml.etree.ElementTree import Element

from fontTools.pens.recordingPen import DecomposingRecordingPen
from fontTools.svgLib.path import parse_path

from ritornel.core.document.alignment import round_to_tenth
from ritornel.core.document.objects import Box
from ritornel.core.errors import BadMedia
from ritornel.core.formats.opendocument.names import attribute_of, length_px

Point = tuple[float, float]
Outline = list[tuple[str, tuple[Point, ...]]]
"""Words of a path: M, L and C with their points, Z with none."""
MOST_WORDS = 20_000
_ANGLE = re.compile(r"rotate\s*\(\s*(-?[\d.eE+-]+)\s*\)")
_PAIR = re.compile(r"(-?\d*\.?\d+(?:e-?\d+)?)[\s,]+(-?\d*\.?\d+(?:e-?\d+)?)", re.IGNORECASE)
_STEP = re.compile(r"(rotate|translate|scale|skewX|skewY|matrix)\s*\(([^)]*)\)")


def box_of(element: Element, scale: float) -> Box:
    """The box of an object, in px of the show's frame: from its place and size, or from its transformation
    (OpenDocument 1.3, part 3, 19.228: steps from left to right, angles anticlockwise).
    """
    x, y, width, height = (
        (length_px(attribute_of(element, f"svg:{key}")) or 0.0) * scale for key in ("x", "y", "width", "height")
    )
    matrix: tuple[float, ...] = (1.0, 0.0, 0.0, 1.0, x, y)
    for name, words in _STEP.findall(attribute_of(element, "draw:transform")):
        matrix = _then(matrix, _step(name, words, scale))
    a, b, c, d, e, f = matrix
    middle = (a * width / 2 + c * height / 2 + e, b * width / 2 + d * height / 2 + f)
    wide, high = width * math.hypot(a, b), height * math.hypot(c, d)
    turn = math.degrees(math.atan2(b, a))
    return Box(
        _near(middle[0] - wide / 2),
        _near(middle[1] - high / 2),
        min(round_to_tenth(abs(wide)), 100_000.0),
        min(round_to_tenth(abs(high)), 100_000.0),
        round(turn, 3) + 0.0,
    )


def _near(px: float) -> float:
    return max(-100_000.0, min(round_to_tenth(px), 100_000.0))


def _step(name: str, words: str, scale: float) -> tuple[float, ...]:
    given = words.replace(",", " ").split()
    numbers = [length_px(word) or 0.0 for word in given]
    first = numbers[0] if numbers else 0.0
    second = numbers[1] if len(numbers) > 1 else 0.0
    match name:
        case "rotate":
            return (math.cos(first), -math.sin(first), math.sin(first), math.cos(first), 0.0, 0.0)
        case "translate":
            return (1.0, 0.0, 0.0, 1.0, first * scale, second * scale)
        case "scale":
            return (first or 1.0, 0.0, 0.0, (second if len(numbers) > 1 else first) or 1.0, 0.0, 0.0)
        case "matrix" if len(numbers) == 6:
            return (*numbers[:4], numbers[4] * scale, numbers[5] * scale)
    return (1.0, 0.0, 0.0, 1.0, 0.0, 0.0)  # a skew is let go


def _then(first: tuple[float, ...], second: tuple[float, ...]) -> tuple[float, ...]:
    a1, b1, c1, d1, e1, f1 = first
    a2, b2, c2, d2, e2, f2 = second
    return (
        a2 * a1 + c2 * b1,
        b2 * a1 + d2 * b1,
        a2 * c1 + c2 * d1,
        b2 * c1 + d2 * d1,
        a2 * e1 + c2 * f1 + e2,
        b2 * e1 + d2 * f1 + f2,
    )


def parse_outline(data: str) -> Outline:
    """A path in SVG's syntax as words with absolute points; quadratic curves and arcs become cubics.

    Raises BadMedia for a string that is no path.
    """
    pen = DecomposingRecordingPen({})
    try:
        parse_path(data, pen)
    except (ValueError, IndexError, TypeError, AssertionError, ZeroDivisionError) as error:
        raise BadMedia("A drawn path cannot be read.") from error
    words: Outline = []
    for name, given in pen.value:
        match name:
            case "moveTo":
                words.append(("M", given))
            case "lineTo":
                words.append(("L", given))
            case "curveTo":
                words.append(("C", given))
            case "qCurveTo":
                words.append(("C", cubic(words[-1][1][-1] if words and words[-1][1] else given[0], *given)))
            case "closePath":
                words.append(("Z", ()))
    return words


def cubic(start: Point, control: Point, end: Point) -> tuple[Point, ...]:
    """A quadratic curve as a cubic: its handles reach two thirds of the way to the one control point."""
    first = (start[0] + (control[0] - start[0]) * 2 / 3, start[1] + (control[1] - start[1]) * 2 / 3)
    second = (end[0] + (control[0] - end[0]) * 2 / 3, end[1] + (control[1] - end[1]) * 2 / 3)
    return first, second, end


def polygon(words: str, closes: bool) -> Outline:
    """Points of a polygon or polyline as words."""
    points = [(float(x), float(y)) for x, y in _PAIR.findall(words)]
    if len(points) < 2:
        return []
    return [("M", (points[0],)), *(("L", (point,)) for point in points[1:]), *([("Z", ())] if closes else [])]


def shares(outline: Outline, view: tuple[float, float, float, float]) -> str:
    """The outline in shares of its box. `view` is the rectangle of its coordinates that fills the box."""
    left, top, width, height = view
    width, height = width or 1.0, height or 1.0

    def number(value: float) -> str:
        text = f"{max(-40.0, min(value, 40.0)):.4f}".rstrip("0").rstrip(".")
        return "0" if text in ("-0", "") else text

    return " ".join(
        " ".join([name, *(f"{number((x - left) / width)} {number((y - top) / height)}" for x, y in points)])
        for name, points in outline[:MOST_WORDS]
    )


def view_box(element: Element) -> tuple[float, float, float, float] | None:
    """The view box, or None."""
    numbers = attribute_of(element, "svg:viewBox").replace(",", " ").split()
    try:
        left, top, width, height = (float(number) for number in numbers)
    except ValueError:
        return None
    return (left, top, width, height) if width > 0 and height > 0 else None
