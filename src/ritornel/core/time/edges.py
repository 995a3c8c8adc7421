"""The edge of the core, where milliseconds become frames and samples."""

import math
from fractions import Fraction

from ritornel.core.errors import BadValue
from ritornel.core.time.milliseconds import round_half_up

SAMPLE_RATE_HZ = 48_000
FrameRate = Fraction
"""Frames a second, exact: 30 is Fraction(30), 29.97 is Fraction(30000, 1001)."""


def frame_time_ms(frame: int, rate: FrameRate) -> Fraction:
    """The exact instant that frame number `frame` shows: 1000 n / F."""
    return Fraction(1000 * frame) / rate


def frame_count(length_ms: int, rate: FrameRate) -> int:
    """How many frames a film of this length has: those with 1000 n / F < length.

    32 400 ms at 30 a second are 972 frames; 32 401 ms are 973. Raises BadValue for a rate that is not positive.
    """
    if rate <= 0:
        raise BadValue(f"A film cannot have {rate} frames a second; it needs more than 0.")
    return math.ceil(Fraction(length_ms) * rate / 1000)


def sample_at(time_ms: int) -> int:
    """The sample at which an event at `time_ms` starts: round(t * 48), at 48 000 samples a second."""
    return round_half_up(Fraction(time_ms * SAMPLE_RATE_HZ, 1000))
