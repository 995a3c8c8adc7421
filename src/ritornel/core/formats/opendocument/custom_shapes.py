"""Custom shapes: an outline with modifiers and formulas (OpenDocument 1.3, part 3, 19.145 to 19.171)."""

import math
import re
from collections.abc import Callable, Iterator
from types import MappingProxyType
from typing import Any
from xml.etree.ElementTree import Element

from ritornel.core.formats.opendocument.names import attribute_of, children_of, length_px
from ritornel.core.formats.opendocument.outlines import MOST_WORDS, Outline, Point, cubic, shares, view_box
from ritornel.core.layout.outlines import KAPPA

FORMS: MappingProxyType[str, dict[str, Any]] = MappingProxyType(
    {
        "rectangle": {"form": "rectangle"},
        "ellipse": {"form": "ellipse"},
        "circle": {"form": "ellipse"},
        "ring": {"form": "ring", "hollow": 0.5},
        "star5": {"form": "star", "points": 5, "hollow": 0.382},
        "right-arrow": {"form": "arrow", "hollow": 0.5},
        "left-brace": {"form": "bracket"},
    }
)
"""Custom shapes that are forms of our own, and stay as easy to change."""


def read_custom_shape(element: Element) -> tuple[dict[str, Any], bool]:
    """The fields of the shape for a custom shape, and whether its outline could be followed. Where it could not, the
    shape is a rectangle.
    """
    geometry = next(children_of(element, "draw:enhanced-geometry"), None)
    if geometry is None:
        return {"form": "rectangle"}, False
    kind = attribute_of(geometry, "draw:type")
    if (
        kind in FORMS
        and not attribute_of(geometry, "draw:mirror-horizontal").startswith("t")
        and not attribute_of(geometry, "draw:mirror-vertical").startswith("t")
    ):
        return dict(FORMS[kind]), True
    if kind == "round-rectangle":
        part = (_numbers(attribute_of(geometry, "draw:modifiers")) or [3600.0])[0] / 21600
        sides = [length_px(attribute_of(element, f"svg:{key}")) or 0.0 for key in ("width", "height")]
        return {"form": "rectangle", "corner_px": min(sides) * max(0.0, min(part, 0.5))}, True
    if kind == "round-rectangular-callout":
        tail = _numbers(attribute_of(geometry, "draw:modifiers"))[:2]
        if len(tail) == 2:
            x, y = (max(-20.0, min(value / 21600, 21.0)) for value in tail)
            return {"form": "bubble", "tail_x": x, "tail_y": y, "corner_px": 16.0}, True
    try:
        view = view_box(geometry) or (0.0, 0.0, 21600.0, 21600.0)
        outline = _Enhanced(geometry, view).outline()
    except (ValueError, KeyError, IndexError, ZeroDivisionError, RecursionError, OverflowError):
        return {"form": "rectangle"}, False
    if not outline:
        return {"form": "rectangle"}, False
    path = shares(outline, view)
    if (
        attribute_of(geometry, "draw:mirror-horizontal") == "true"
        or attribute_of(geometry, "draw:mirror-vertical") == "true"
    ):
        path = _mirrored(
            path,
            attribute_of(geometry, "draw:mirror-horizontal") == "true",
            attribute_of(geometry, "draw:mirror-vertical") == "true",
        )
    return {"form": "path", "path": path}, True


def _numbers(words: str) -> list[float]:
    return [float(number) for number in re.findall(r"-?\d*\.?\d+", words)]


def _mirrored(path: str, across: bool, down: bool) -> str:
    words, axis = [], 0
    for word in path.split():
        if word.isalpha():
            words.append(word)
            axis = 0
            continue
        words.append(f"{1 - float(word):.4f}".rstrip("0").rstrip(".") if (across, down)[axis] else word)
        axis = 1 - axis
    return " ".join(words)


_TOKEN = re.compile(r"\s*(?:([A-Za-z]+\d*)|(\?f?\w+)|(\$\d+)|(\d*\.?\d+(?:[eE][+-]?\d+)?)|([-+*/(),]))")
_CALLS: MappingProxyType[str, Callable[..., float]] = MappingProxyType(
    {
        "abs": abs,
        "sqrt": lambda value: math.sqrt(max(value, 0.0)),
        "sin": math.sin,
        "cos": math.cos,
        "tan": math.tan,
        "atan": math.atan,
        "atan2": math.atan2,
        "min": min,
        "max": max,
        "if": lambda test, then, other: then if test > 0 else other,
    }
)
DEEPEST = 60


class _Formula:
    """A formula of a custom shape, evaluated by recursive descent (OpenDocument 1.3, part 3, 19.171).

    It can do only arithmetic.
    """

    def __init__(self, words: str, shape: "_Enhanced", depth: int) -> None:
        self._tokens = [match.group(0).strip() for match in _TOKEN.finditer(words)]
        self._shape, self._depth, self._at = shape, depth, 0

    def value(self) -> float:
        result = self._sum()
        if self._at < len(self._tokens):
            raise ValueError("a formula goes on where it should end")
        return result

    def _next(self) -> str:
        return self._tokens[self._at] if self._at < len(self._tokens) else ""

    def _take(self) -> str:
        self._at += 1
        return self._tokens[self._at - 1]

    def _sum(self) -> float:
        result = self._product()
        while self._next() in ("+", "-"):
            result = result + self._product() if self._take() == "+" else result - self._product()
        return result

    def _product(self) -> float:
        result = self._factor()
        while self._next() in ("*", "/"):
            result = result * self._factor() if self._take() == "*" else result / self._factor()
        return result

    def _factor(self) -> float:
        token = self._take()
        if token == "-":
            return -self._factor()
        if token == "+":
            return self._factor()
        if token == "(":
            result = self._sum()
            self._take()
            return result
        if token in _CALLS and self._next() == "(":
            self._take()
            given = [self._sum()]
            while self._next() == ",":
                self._take()
                given.append(self._sum())
            self._take()
            return float(_CALLS[token](*given))
        return self._shape.value(token, self._depth)


_COUNTS = {"M": 2, "L": 2, "C": 6, "X": 2, "Y": 2, "Q": 4, "U": 6, "T": 6, "A": 8, "B": 8, "W": 8, "V": 8}
_PATH_TOKEN = re.compile(r"[A-Z]|[a-z]+|\?\w+|\$\d+|-?\d*\.?\d+(?:[eE][+-]?\d+)?")
_NAMES = re.compile(r"[A-Z]")
ARC_STEPS = 12


class _Enhanced:
    """The path of a custom shape with its modifiers and equations."""

    def __init__(self, geometry: Element, view: tuple[float, float, float, float]) -> None:
        self._path = attribute_of(geometry, "draw:enhanced-path")
        self._modifiers = _numbers(attribute_of(geometry, "draw:modifiers"))
        self._equations = {
            attribute_of(entry, "draw:name"): attribute_of(entry, "draw:formula")
            for entry in children_of(geometry, "draw:equation")
        }
        left, top, width, height = view
        self._known = {
            "left": left,
            "top": top,
            "right": left + width,
            "bottom": top + height,
            "width": width,
            "height": height,
            "logwidth": width,
            "logheight": height,
            "pi": math.pi,
            "xstretch": 0.0,
            "ystretch": 0.0,
            "hasstroke": 1.0,
            "hasfill": 1.0,
        }
        self._values: dict[str, float] = {}

    def value(self, token: str, depth: int = 0) -> float:
        """The value of a number, a modifier, an equation or a known name."""
        if depth > DEEPEST:
            raise ValueError("equations that lead to each other")
        if token.startswith("$"):
            return self._modifiers[int(token[1:])]
        if token.startswith("?"):
            name = token[1:]
            if name not in self._values:
                self._values[name] = _Formula(self._equations[name], self, depth + 1).value()
            return self._values[name]
        return self._known[token] if token in self._known else float(token)

    def outline(self) -> Outline:
        """All subpaths that are drawn, as path words."""
        words: Outline = []
        at: Point = (0.0, 0.0)
        command, tokens = "", _PATH_TOKEN.findall(self._path)[: MOST_WORDS * 4]
        index, quarter = 0, 0
        while index < len(tokens):
            if _NAMES.match(tokens[index]) and len(tokens[index]) == 1:
                command, index, quarter = tokens[index], index + 1, 0
                if command == "Z":
                    words.append(("Z", ()))
                if command not in _COUNTS:
                    continue
            if command not in _COUNTS:
                raise ValueError(f"“{command}” is not known")
            count = _COUNTS[command]
            numbers = [self.value(token) for token in tokens[index : index + count]]
            if len(numbers) < count:
                raise ValueError("a path that ends too early")
            index += count
            for word in self._words(command, numbers, at, quarter):
                words.append(word)
                at = word[1][-1] if word[1] else at
            quarter += 1
            command = "L" if command == "M" else command
        return words

    def _words(
        self, command: str, given: list[float], at: Point, quarter: int
    ) -> Iterator[tuple[str, tuple[Point, ...]]]:
        pairs = tuple((given[index], given[index + 1]) for index in range(0, len(given), 2))
        match command:
            case "M" | "L":
                yield command, pairs
            case "C":
                yield "C", pairs
            case "Q":
                yield "C", cubic(at, *pairs)
            case "X" | "Y":
                # A quarter of an ellipse that begins along one axis; every further one begins along the other.
                across = (command == "X") == (quarter % 2 == 0)
                yield "C", _quarter(at, pairs[0], across)
            case "U" | "T":
                (cx, cy), (rx, ry), (first, last) = pairs
                yield from _arc(
                    (cx, cy), (rx, ry), math.radians(first), math.radians(last), "M" if command == "U" else "L"
                )
            case _:
                (x1, y1), (x2, y2), start, end = pairs
                middle, radii = ((x1 + x2) / 2, (y1 + y2) / 2), (abs(x2 - x1) / 2 or 1.0, abs(y2 - y1) / 2 or 1.0)
                first, last = (
                    math.atan2((y - middle[1]) / radii[1], (x - middle[0]) / radii[0]) for x, y in (start, end)
                )
                clockwise = command in ("W", "V")
                if (last > first) != clockwise:
                    last += 2 * math.pi if clockwise else -2 * math.pi
                yield from _arc(middle, radii, first, last, "M" if command in ("B", "V") else "L")


def _quarter(start: Point, end: Point, across: bool) -> tuple[Point, ...]:
    (x0, y0), (x1, y1) = start, end
    if across:
        return (x0 + (x1 - x0) * KAPPA, y0), (x1, y1 - (y1 - y0) * KAPPA), end
    return (x0, y0 + (y1 - y0) * KAPPA), (x1 - (x1 - x0) * KAPPA, y1), end


def _arc(
    middle: Point, radii: Point, first: float, last: float, begins: str
) -> Iterator[tuple[str, tuple[Point, ...]]]:
    """An arc as straight pieces of 30 degrees at most, each cut into twelve; on a slide no eye can tell the result from
    a true arc.
    """
    steps = max(2, math.ceil(abs(last - first) / (math.pi / 2) * ARC_STEPS))
    for number in range(steps + 1):
        angle = first + (last - first) * number / steps
        yield (
            ("L" if number else begins),
            ((middle[0] + radii[0] * math.cos(angle), middle[1] + radii[1] * math.sin(angle)),),
        )
