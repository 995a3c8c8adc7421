"""Time as the bottom layer: whole milliseconds inside, frames and samples only at the edge."""

from ritornel.core.time.edges import SAMPLE_RATE_HZ, FrameRate, frame_count, frame_time_ms, sample_at
from ritornel.core.time.milliseconds import clock_text, parse_clock_ms, round_half_up, seconds_text, time_text
from ritornel.core.time.spans import Span

__all__ = [
    "SAMPLE_RATE_HZ",
    "FrameRate",
    "Span",
    "clock_text",
    "frame_count",
    "frame_time_ms",
    "parse_clock_ms",
    "round_half_up",
    "sample_at",
    "seconds_text",
    "time_text",
]
