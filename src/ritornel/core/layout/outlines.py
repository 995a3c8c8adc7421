"""Forms as outlines in SVG's path syntax, in the coordinates of their box."""

import math

from ritornel.core.document.objects import Shape

KAPPA = 0.5522847498307936
"""How far a cubic's handles reach along a quarter circle: 4/3 (sqrt 2 - 1)."""


def _n(value: float) -> str:
    return f"{value:.3f}".rstrip("0").rstrip(".") or "0"


def _move(x: float, y: float) -> str:
    return f"M {_n(x)} {_n(y)}"


def _line(x: float, y: float) -> str:
    return f"L {_n(x)} {_n(y)}"


def _cubic(*points: float) -> str:
    return "C " + " ".join(_n(point) for point in points)


def close_polygon(points: list[tuple[float, float]]) -> str:
    """A polygon through the points."""
    return " ".join([_move(*points[0]), *(_line(*point) for point in points[1:]), "Z"])


def ellipse(cx: float, cy: float, rx: float, ry: float, clockwise: bool = True) -> str:
    """A whole ellipse in four cubics; an anticlockwise one cuts a hole into one around it."""
    s = 1.0 if clockwise else -1.0
    kx, ky = rx * KAPPA, ry * KAPPA * s
    ry *= s
    return " ".join(
        [
            _move(cx + rx, cy),
            _cubic(cx + rx, cy + ky, cx + kx, cy + ry, cx, cy + ry),
            _cubic(cx - kx, cy + ry, cx - rx, cy + ky, cx - rx, cy),
            _cubic(cx - rx, cy - ky, cx - kx, cy - ry, cx, cy - ry),
            _cubic(cx + kx, cy - ry, cx + rx, cy - ky, cx + rx, cy),
            "Z",
        ]
    )


def rectangle(x: float, y: float, width: float, height: float, corner_px: float = 0.0) -> str:
    """A rectangle; its corners are rounded by at most half its shorter side."""
    r = min(corner_px, width / 2, height / 2)
    if r <= 0:
        return close_polygon([(x, y), (x + width, y), (x + width, y + height), (x, y + height)])
    k = r * (1 - KAPPA)
    right, bottom = x + width, y + height
    return " ".join(
        [
            _move(x + r, y),
            _line(right - r, y),
            _cubic(right - k, y, right, y + k, right, y + r),
            _line(right, bottom - r),
            _cubic(right, bottom - k, right - k, bottom, right - r, bottom),
            _line(x + r, bottom),
            _cubic(x + k, bottom, x, bottom - k, x, bottom - r),
            _line(x, y + r),
            _cubic(x, y + k, x + k, y, x + r, y),
            "Z",
        ]
    )


def _around(shape: Shape, shares: list[float]) -> list[tuple[float, float]]:
    """Points at equal steps clockwise from the top, each at a share of the radius."""
    rx, ry = shape.box.width / 2, shape.box.height / 2
    step = 2 * math.pi / len(shares)
    return [
        (rx + rx * share * math.sin(i * step), ry - ry * share * math.cos(i * step)) for i, share in enumerate(shares)
    ]


def _arch(shape: Shape) -> str:
    """Half a ring, open below: the outer half ellipse fills the box."""
    w, h, hollow = shape.box.width, shape.box.height, shape.hollow
    rx, inner_x, inner_y = w / 2, w / 2 * hollow, h * hollow
    left, right, top = rx - inner_x, rx + inner_x, h - inner_y
    return " ".join(
        [
            _move(0, h),
            _cubic(0, h - h * KAPPA, rx - rx * KAPPA, 0, rx, 0),
            _cubic(rx + rx * KAPPA, 0, w, h - h * KAPPA, w, h),
            _line(right, h),
            _cubic(right, h - inner_y * KAPPA, rx + inner_x * KAPPA, top, rx, top),
            _cubic(rx - inner_x * KAPPA, top, left, h - inner_y * KAPPA, left, h),
            "Z",
        ]
    )


SPOKES, SPOKE, HUB, ARC_STEPS = 6, 0.045, 0.22, 8
"""A wheel's spokes, half a spoke's width and the hub's radius as shares of the wheel's, and how many lines stand for an
arc.
"""


def _windows(shape: Shape) -> str:
    """The openings between a wheel's spokes, anticlockwise, so that they cut holes. None where the rim reaches the
    hub.
    """
    rx, ry, rim = shape.box.width / 2, shape.box.height / 2, shape.hollow
    if rim <= HUB + 0.04:
        return ""
    step = 2 * math.pi / SPOKES
    result = []
    for spoke in range(SPOKES):
        points: list[tuple[float, float]] = []
        for radius, way in ((rim, -1), (HUB, 1)):
            first, last = spoke * step + math.asin(SPOKE / radius), (spoke + 1) * step - math.asin(SPOKE / radius)
            angles = [first + (last - first) * n / ARC_STEPS for n in range(ARC_STEPS + 1)][::way]
            points += [(rx + rx * radius * math.sin(angle), ry - ry * radius * math.cos(angle)) for angle in angles]
        result.append(close_polygon(points))
    return " ".join(result)


def _arrow(shape: Shape) -> str:
    """A block arrow to the right; its head is as long as the box is high, at most half the box."""
    w, h = shape.box.width, shape.box.height
    neck = w - min(h, w / 2)
    top, bottom = h * (1 - shape.hollow) / 2, h * (1 + shape.hollow) / 2
    return close_polygon([(0, top), (neck, top), (neck, 0), (w, h / 2), (neck, h), (neck, bottom), (0, bottom)])


def _bracket(shape: Shape) -> str:
    """A brace that opens to the right, its point at the middle of the left side."""
    w, h = shape.box.width, shape.box.height
    x, r = w / 2, min(w / 2, h / 4)
    k = r * (1 - KAPPA)
    return " ".join(
        [
            _move(w, 0),
            _cubic(w - (w - x) * KAPPA, 0, x, k, x, r),
            _line(x, h / 2 - r),
            _cubic(x, h / 2 - k, x * KAPPA, h / 2, 0, h / 2),
            _cubic(x * KAPPA, h / 2, x, h / 2 + k, x, h / 2 + r),
            _line(x, h - r),
            _cubic(x, h - k, w - (w - x) * KAPPA, h, w, h),
        ]
    )


TAIL = 0.16
"""Half the width of a bubble's tail where it leaves the bubble, as a share of the side it leaves from, at most 40
px.
"""


def _bubble(shape: Shape) -> str:
    """A rounded box with a tail to (tail_x, tail_y).

    It leaves the side that faces its end; an end inside the box gives no tail.
    """
    w, h = shape.box.width, shape.box.height
    r = min(shape.corner_px, w / 2, h / 2)
    k = r * (1 - KAPPA)
    tx, ty = shape.tail_x * w, shape.tail_y * h
    over = {"top": -ty, "bottom": ty - h, "left": -tx, "right": tx - w}
    side = max(over, key=lambda name: over[name])
    if over[side] <= 0:
        return rectangle(0, 0, w, h, r)

    def tail(length: float, towards: float) -> tuple[float, float]:
        half = min(length * TAIL, 40.0, max(length / 2 - r, 0.0))
        middle = max(r + half, min(towards, length - r - half))
        return middle - half, middle + half

    words = [_move(r, 0)]
    if side == "top":
        first, last = tail(w, tx)
        words += [_line(first, 0), _line(tx, ty), _line(last, 0)]
    words += [_line(w - r, 0), _cubic(w - k, 0, w, k, w, r)]
    if side == "right":
        first, last = tail(h, ty)
        words += [_line(w, first), _line(tx, ty), _line(w, last)]
    words += [_line(w, h - r), _cubic(w, h - k, w - k, h, w - r, h)]
    if side == "bottom":
        first, last = tail(w, tx)
        words += [_line(last, h), _line(tx, ty), _line(first, h)]
    words += [_line(r, h), _cubic(k, h, 0, h - k, 0, h - r)]
    if side == "left":
        first, last = tail(h, ty)
        words += [_line(0, last), _line(tx, ty), _line(0, first)]
    return " ".join([*words, _line(0, r), _cubic(0, k, k, 0, r, 0), "Z"])


def _drawn(shape: Shape) -> str:
    """The outline in px, from its shares of the box."""
    result, axis = [], 0
    for word in shape.path.split():
        if word.isalpha():
            result.append(word)
            axis = 0
        else:
            result.append(_n(float(word) * (shape.box.height if axis else shape.box.width)))
            axis = 1 - axis
    return " ".join(result)


HEAD = 4.2
"""How long the head of a line is, in widths of the line; it is as wide as 0.9 of that, and at least 9 px long."""


def line_with_heads(shape: Shape) -> tuple[str, str]:
    """A line through the middle of the box that ends inside its heads, and the outline of the heads."""
    w, cy = shape.box.width, shape.box.height / 2
    length = min(max((shape.stroke.width_px if shape.stroke else 2.0) * HEAD, 9.0), w)
    half = length * 0.45
    start, end, heads = 0.0, w, []
    if shape.heads in ("end", "both"):
        heads.append(close_polygon([(w, cy), (w - length, cy + half), (w - length, cy - half)]))
        end = w - length * 0.8
    if shape.heads in ("start", "both"):
        heads.append(close_polygon([(0, cy), (length, cy - half), (length, cy + half)]))
        start = length * 0.8
    return f"{_move(start, cy)} {_line(max(end, start), cy)}", " ".join(heads)


def words_box(shape: Shape) -> tuple[float, float, float, float]:
    """The box for text inside a shape (x, y, width, height in its box): 12 px from its edge, or as its form needs."""
    w, h = shape.box.width, shape.box.height
    inset_x = inset_y = min(12.0, w / 4, h / 4)
    if shape.form in ("ellipse", "ring", "wheel", "polygon", "star"):
        # The largest box of the same proportion inside an ellipse takes 1 - 1/sqrt 2 of each side.
        inset_x, inset_y = w * (1 - math.sqrt(0.5)) / 2, h * (1 - math.sqrt(0.5)) / 2
    return inset_x, inset_y, max(w - 2 * inset_x, 1.0), max(h - 2 * inset_y, 1.0)


def outline_of(shape: Shape) -> str:
    """The shape's outline.

    A wheel has square teeth, 10 % of its radius deep, and six spokes within a rim whose inner radius is `hollow`.
    """
    w, h = shape.box.width, shape.box.height
    cx, cy = w / 2, h / 2
    match shape.form:
        case "rectangle":
            return rectangle(0, 0, w, h, shape.corner_px)
        case "ellipse":
            return ellipse(cx, cy, cx, cy)
        case "line":
            return line_with_heads(shape)[0]
        case "arrow":
            return _arrow(shape)
        case "bracket":
            return _bracket(shape)
        case "bubble":
            return _bubble(shape)
        case "path":
            return _drawn(shape)
        case "polygon":
            return close_polygon(_around(shape, [1.0] * shape.points))
        case "star":
            return close_polygon(_around(shape, [1.0, shape.hollow] * shape.points))
        case "ring":
            return (
                ellipse(cx, cy, cx, cy) + " " + ellipse(cx, cy, cx * shape.hollow, cy * shape.hollow, clockwise=False)
            )
        case "arch":
            return _arch(shape)
        case "wheel":
            teeth = close_polygon(_around(shape, [1.0, 1.0, 0.9, 0.9] * shape.points))
            return f"{teeth} {_windows(shape)}".strip()
