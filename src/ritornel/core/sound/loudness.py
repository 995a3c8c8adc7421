"""Loudness and true peak by ITU-R BS.1770-5, measured block by block: memory does not grow with the length of the
sound.
"""

import math
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ritornel.core.sound.filtering import convolve, impulse_response
from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ

STEP = SAMPLE_RATE_HZ // 10
"""Gating blocks of 400 ms overlap by three quarters: they are four steps of a tenth of a second."""
ABSOLUTE_GATE_LUFS, RELATIVE_GATE_LU = -70.0, -10.0
OFFSET_LU = -0.691

# The two stages of the K-weighting at 48 kHz: a shelf for the head, and the RLB high-pass (annex 1, tables 1 and 2).
_K_WEIGHTING = np.array(
    [
        [1.53512485958697, -2.69169618940638, 1.19839281085285, 1.0, -1.69065929318241, 0.73248077421585],
        [1.0, -2.0, 1.0, 1.0, -1.99004745483398, 0.99007225036621],
    ]
)
K_TAPS = 6144
"""The K-weighting as one filter of finite length: what it answers to an impulse has sunk below 1e-12 by then."""
OVERSAMPLING = 4
BETWEEN = 1.6
"""How much higher than the samples around it sound is between them, at most:

4 dB, where programme material stays under 3.
"""
PIECE = 2400


@lru_cache(maxsize=1)
def _k_response() -> NDArray[np.float64]:
    return impulse_response(_K_WEIGHTING, K_TAPS)


def loudness_of(mean_square: float) -> float:
    """The loudness in LUFS of a weighted mean square, summed over both channels; silence is -inf."""
    return OFFSET_LU + 10 * math.log10(mean_square) if mean_square > 0 else -math.inf


class LoudnessMeter:
    """Takes samples of shape (n, 2) at 48 kHz, and gives their integrated loudness."""

    def __init__(self) -> None:
        self._past = np.zeros((2, K_TAPS - 1))
        self._steps: list[float] = []
        self._rest = np.zeros(0)

    def take(self, samples: Samples) -> None:
        """Measures the next samples."""
        heard = np.concatenate([self._past, samples.T.astype(np.float64)], axis=1)
        self._past = heard[:, len(samples) :]
        weighted = convolve(heard, _k_response())
        squares = np.concatenate([self._rest, np.square(weighted).sum(axis=0)])
        count = len(squares) // STEP
        self._steps += squares[: count * STEP].reshape(count, STEP).mean(axis=1).tolist()
        self._rest = squares[count * STEP :]

    def integrated_lufs(self) -> float:
        """The gated loudness of all samples; -inf for silence and for less than 0.4 s."""
        steps = np.array(self._steps)
        if len(steps) < 4:
            return -math.inf
        blocks = np.convolve(steps, np.full(4, 0.25), "valid")
        heard = blocks[blocks > 10 ** ((ABSOLUTE_GATE_LUFS - OFFSET_LU) / 10)]
        if not len(heard):
            return -math.inf
        gate = loudness_of(float(heard.mean())) + RELATIVE_GATE_LU
        heard = heard[heard > 10 ** ((gate - OFFSET_LU) / 10)]
        return loudness_of(float(heard.mean()))


def _phases() -> NDArray[np.float32]:
    """Four times oversampling as four filters of twelve taps, one for each place between two samples: a windowed sinc,
    each phase of gain 1 at 0 Hz.
    """
    taps = 12 * OVERSAMPLING
    at = (np.arange(taps) - (taps - 1) / 2) / OVERSAMPLING
    phases = (np.sinc(at) * np.kaiser(taps, 7.0)).reshape(12, OVERSAMPLING).T
    return np.asarray(phases / phases.sum(axis=1, keepdims=True), dtype=np.float32)


_PHASES = _phases()


def oversampled_peaks(samples: Samples, over: float = 0.0) -> NDArray[np.float32]:
    """The greatest magnitude in both channels at each sample and between it and the next, four times oversampled (annex
    2): shape (n,). Where no value can be above `over`, the samples' own magnitudes are used, which spares most of a
    mix.
    """
    left, right = np.ascontiguousarray(samples.T)
    found = np.maximum(np.abs(left), np.abs(right))
    reach = _PHASES.shape[1]
    for first in range(0, len(found), PIECE):
        if found[first : first + PIECE].max() * BETWEEN <= over:
            continue
        low, high = max(first - reach, 0), min(first + PIECE + reach, len(found))
        count = min(PIECE, len(found) - first)
        skip = 5 + first - low
        for channel in (left[low:high], right[low:high]):
            for phase in _PHASES:
                between = np.abs(np.convolve(channel, phase, "full")[skip : skip + count])
                np.maximum(found[first : first + count], between, out=found[first : first + count])
    return np.asarray(found)


def true_peak_db(samples: Samples) -> float:
    """The true peak in dBTP; -inf for silence."""
    peak = float(oversampled_peaks(samples).max(initial=0.0))
    return 20 * math.log10(peak) if peak > 0 else -math.inf
