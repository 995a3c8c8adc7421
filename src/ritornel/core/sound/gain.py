"""Gains and fades."""

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float32]


def gain_of(level_db: float) -> float:
    """The factor for a level in dB: 0 -> 1, -6.02 -> about 0.5."""
    return float(10.0 ** (level_db / 20.0))


def fade_gain(first: int, count: int, start: int, end: int, fade_in: int, fade_out: int) -> Samples:
    """The gain of samples `first` .. `first + count` of a sound from sample `start` to `end`, with equal-power fades at
    both ends: sin(p pi/2), so that the squares of a fade in and a fade out together are always 1.
    """
    at = np.arange(first, first + count, dtype=np.float64)
    gain = np.ones(count, dtype=np.float64)
    if fade_in > 0:
        gain *= np.sin(np.clip((at - start) / fade_in, 0.0, 1.0) * (np.pi / 2))
    if fade_out > 0:
        gain *= np.sin(np.clip((end - at) / fade_out, 0.0, 1.0) * (np.pi / 2))
    gain[(at < start) | (at >= end)] = 0.0
    return gain.astype(np.float32)
