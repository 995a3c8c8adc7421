"""Easing curves as four numbers, as CSS's cubic-bezier() has them (CSS Easing Functions Level 1)."""

from types import MappingProxyType

from ritornel.core.errors import UnknownName

Curve = tuple[float, float, float, float]
"""x1, y1, x2, y2 of a cubic from (0, 0) to (1, 1), x1 and x2 within 0..1."""

EVEN: Curve = (0.0, 0.0, 1.0, 1.0)
PACES = MappingProxyType(
    {
        "even": EVEN,
        "ease in": (0.5, 0.0, 0.9, 0.5),
        "ease out": (0.1, 0.5, 0.3, 1.0),
        "ease in and out": (0.5, 0.0, 0.3, 1.0),
    }
)


def curve_of(pace: str) -> Curve:
    """The curve with this name. Raises UnknownName."""
    if pace not in PACES:
        raise UnknownName(f"There is no pace “{pace}”; there are {', '.join(PACES)}.")
    return PACES[pace]


CLOSE = 1e-10
MOST_STEPS = 40


def ease(progress: float, curve: Curve) -> float:
    """The eased progress: x(t) = progress is solved by Newton's steps, with halving where a step would leave the
    bracket; then y(t).

    Both painters run exactly these steps, so that they agree to the last bits.
    """
    if progress <= 0.0:
        return 0.0
    if progress >= 1.0:
        return 1.0
    x1, y1, x2, y2 = curve
    if x1 == y1 and x2 == y2:
        return progress
    # The cubic as ((a t + b) t + c) t.
    cx, bx = 3.0 * x1, 3.0 * (x2 - x1) - 3.0 * x1
    ax = 1.0 - cx - bx
    low, high, t = 0.0, 1.0, progress
    for _ in range(MOST_STEPS):
        error = ((ax * t + bx) * t + cx) * t - progress
        if -CLOSE < error < CLOSE:
            break
        if error < 0.0:
            low = t
        else:
            high = t
        slope = (3.0 * ax * t + 2.0 * bx) * t + cx
        t = t - error / slope if slope > 1e-6 else low
        if t <= low or t >= high:
            t = (low + high) / 2.0
    cy, by = 3.0 * y1, 3.0 * (y2 - y1) - 3.0 * y1
    return (((1.0 - cy - by) * t + by) * t + cy) * t
