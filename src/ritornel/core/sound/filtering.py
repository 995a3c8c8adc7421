"""Filters of sound with NumPy alone: SciPy takes seconds to import while pictures are drawn."""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Real = NDArray[np.float64]
BLOCK = 1 << 16
"""Samples that are transformed at a time."""


def impulse_response(sections: Real, taps: int) -> Real:
    """The answer of a chain of second-order sections to one impulse, in `taps` samples.

    `sections` has a row of six for each: b0, b1, b2, a0 = 1, a1, a2 (direct form II transposed).
    """
    signal = [1.0] + [0.0] * (taps - 1)
    for b0, b1, b2, _, a1, a2 in sections.tolist():
        first = second = 0.0
        for at, value in enumerate(signal):
            out = b0 * value + first
            first, second = b1 * value - a1 * out + second, b2 * value - a2 * out
            signal[at] = out
    return np.array(signal)


@lru_cache(maxsize=8)
def _spectrum(taps: bytes) -> NDArray[np.complex128]:
    return np.fft.rfft(np.frombuffer(taps), BLOCK)


def convolve(samples: Real, taps: Real) -> Real:
    """The valid part of a convolution along the last axis, by overlap-save: `len(taps) - 1` samples fewer than come
    in.
    """
    reach = len(taps) - 1
    count = samples.shape[-1] - reach
    out = np.empty((*samples.shape[:-1], max(count, 0)))
    step = BLOCK - reach
    spectrum = _spectrum(np.ascontiguousarray(taps).tobytes())
    for first in range(0, count, step):
        piece = samples[..., first : first + BLOCK]
        filtered = np.fft.irfft(np.fft.rfft(piece, BLOCK) * spectrum, BLOCK)
        here = min(step, count - first)
        out[..., first : first + here] = filtered[..., reach : reach + here]
    return out


def running_minimum(values: Real, reach: int) -> Real:
    """The least value within `reach` to both sides of each, in three comparisons a value for any reach (van Herk,
    1992).
    """
    width = 2 * reach + 1
    count = len(values)
    padded = np.full(-(-(count + 2 * reach) // width) * width, np.inf)
    padded[reach : reach + count] = values
    blocks = padded.reshape(-1, width)
    before = np.minimum.accumulate(blocks, axis=1).ravel()
    after = np.minimum.accumulate(blocks[:, ::-1], axis=1)[:, ::-1].ravel()
    return np.minimum(after[:count], before[width - 1 : width - 1 + count])
