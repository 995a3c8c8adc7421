"""What a time that is dragged on the score snaps to (static/ritornel/score/snapping.js, checked against
tests/vectors/events.json).
"""

from collections.abc import Sequence


def nearest_ms(at_ms: float, events_ms: Sequence[int], reach_ms: float) -> int | None:
    """The event nearest to the instant, at most `reach_ms` away; the earlier of two equally near ones; None where there
    is none.
    """
    best: int | None = None
    for event in events_ms:
        way = abs(event - at_ms)
        if way <= reach_ms and (best is None or way < abs(best - at_ms) or (way == abs(best - at_ms) and event < best)):
            best = event
    return best
