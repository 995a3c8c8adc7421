"""How the view gets from one part of a large slide to another: out, across and in again, on the path that looks
shortest.

Source: J. J. van Wijk and W. A. A. Nuij, “Smooth and efficient zooming and panning”, IEEE InfoVis 2003; the equation
numbers are from there.
"""

import math

from ritornel.core.document.framings import View, moves_view, view_named
from ritornel.core.document.show import Frame, Slide

RHO = 1.4
"""How much it zooms out before it pans; their user study found about 1.4 to please most."""
MS_A_LENGTH = 1500.0
"""How long a path of length 1 takes; at that length the view grows by e^1.4, or moves by about its own width."""
LEAST_MS = 400


def _path(first: View, last: View) -> tuple[float, float, float]:
    """The distance of the middles, and r0 and r1 of equation 9. Where only the size changes, r0 is nan and r1 their
    difference.
    """
    u1 = math.hypot(last.x - first.x, last.y - first.y)
    w0, w1 = first.width_px, last.width_px
    if u1 < 1e-6 * max(w0, w1):
        return 0.0, math.nan, math.log(w1 / w0)
    b0 = (w1 * w1 - w0 * w0 + RHO**4 * u1 * u1) / (2 * w0 * RHO**2 * u1)
    b1 = (w1 * w1 - w0 * w0 - RHO**4 * u1 * u1) / (2 * w1 * RHO**2 * u1)
    return u1, -math.asinh(b0), -math.asinh(b1)


def path_length(first: View, last: View) -> float:
    """S of equation 9, in their units."""
    _, r0, r1 = _path(first, last)
    return abs(r1) / RHO if math.isnan(r0) else (r1 - r0) / RHO


def flight_ms(first: View, last: View) -> int:
    """How long the flight takes: by its path, and a third of a second for every right angle of a turn; 0 where nothing
    changes.

    From the whole of a slide, 2560 px, to a part of it 640 px wide with the same middle: S = ln 4 / 1.4 = 0.990, so
    1485 ms.
    """
    length = path_length(first, last)
    turn = abs(turn_between(first, last))
    if length < 1e-9 and turn < 1e-9:
        return 0
    return max(math.floor(max(length * MS_A_LENGTH, turn / 90 * 1000 / 3) + 0.5), LEAST_MS)


def turn_between(first: View, last: View) -> float:
    """The shortest turn from one view to the other, in degrees."""
    return (last.turn_deg - first.turn_deg + 180) % 360 - 180


def view_on_path(first: View, last: View, progress: float) -> View:
    """The view after this share of the path: equations 7 and 8 at s = progress S."""
    if progress <= 0:
        return first
    if progress >= 1:
        return last
    u1, r0, r1 = _path(first, last)
    turn = first.turn_deg + turn_between(first, last) * progress
    if math.isnan(r0):
        return View(
            first.x + (last.x - first.x) * progress,
            first.y + (last.y - first.y) * progress,
            first.width_px * math.exp(r1 * progress),
            turn,
        )
    at = (r1 - r0) * progress + r0
    share = first.width_px / (RHO**2 * u1) * (math.cosh(r0) * math.tanh(at) - math.sinh(r0))
    width = first.width_px * math.cosh(r0) / math.cosh(at)
    return View(first.x + (last.x - first.x) * share, first.y + (last.y - first.y) * share, width, turn)


def flight_lengths(slide: Slide, frame: Frame) -> dict[str, int]:
    """The length of each move of the view that follows from its path, in ms by build id; moves with a set length are
    left out.
    """
    now = view_named(slide, slide.opens_on, frame)
    lengths = {}
    for build in slide.order:
        if not moves_view(build):
            continue
        target = view_named(slide, build.object_id, frame)
        if build.settings.get("length") != "set":
            lengths[build.id] = flight_ms(now, target)
        now = target
    return lengths
