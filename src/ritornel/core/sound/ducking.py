"""How music sinks under voices, as breakpoints for browser and film."""

from collections.abc import Iterable

from ritornel.core.time.spans import Span

DOWN_MS, UP_MS = 300, 600
"""It sinks over the 300 ms before a voice, and rises over the 600 ms after it."""
BRIDGED_MS = DOWN_MS + UP_MS
"""Gaps shorter than this are bridged: music would come up only to sink again."""

Point = tuple[int, float]
"""An instant on the show's clock, and a level in dB; between two the line is straight in dB."""


def bridge_gaps(spans: Iterable[Span]) -> list[Span]:
    """The spans with sound, in order; gaps under 900 ms are bridged."""
    result: list[Span] = []
    for span in sorted(
        (span for span in spans if span.end_ms > span.start_ms), key=lambda span: (span.start_ms, span.end_ms)
    ):
        if result and span.start_ms - result[-1].end_ms < BRIDGED_MS:
            result[-1] = Span(result[-1].start_ms, max(result[-1].end_ms, span.end_ms))
        else:
            result.append(span)
    return result


def level_at(points: tuple[Point, ...], at_ms: float) -> float:
    """The level at an instant: before the first breakpoint the first's, after the last the last's; without any, 0."""
    if not points:
        return 0.0
    before = points[0]
    if at_ms <= before[0]:
        return before[1]
    for point in points[1:]:
        if at_ms < point[0]:
            return before[1] + (point[1] - before[1]) * (at_ms - before[0]) / (point[0] - before[0])
        before = point
    return before[1]


def duck_points(sounding: Iterable[Span], start_ms: int, end_ms: int, duck_db: float) -> tuple[Point, ...]:
    """The envelope of music from `start_ms` to `end_ms`, cut at both ends, where it keeps its level.

    A voice from 5 000 to 8 000 under music with 9 dB: (4 700, 0), (5 000, -9), (8 000, -9), (8 600, 0).
    """
    whole: list[Point] = []
    for span in bridge_gaps(sounding):
        for point in (
            (span.start_ms - DOWN_MS, 0.0),
            (span.start_ms, -duck_db),
            (span.end_ms, -duck_db),
            (span.end_ms + UP_MS, 0.0),
        ):
            if not whole or whole[-1] != point:
                whole.append(point)
    points = tuple(whole)
    inside = [point for point in points if start_ms < point[0] < end_ms]
    edges = (start_ms, level_at(points, start_ms)), (end_ms, level_at(points, end_ms))
    if not duck_db or not (inside or edges[0][1] or edges[1][1]):
        return ()
    return (edges[0], *inside, edges[1])
