"""Peaks of a sound, for drawing its wave."""

import numpy as np

from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ

PER_S = 25


def peaks_of(samples: Samples, per_s: int = PER_S) -> list[int]:
    """The loudest sample of each 1/25 s, 0..255, of samples of shape (n, channels). A last part that is shorter counts too.

    Read in pieces of about a minute, so that an hour of sound never lies in memory at once.
    """
    size = SAMPLE_RATE_HZ // per_s
    result: list[int] = []
    for first in range(0, len(samples), size * per_s * 60):
        part = np.abs(np.asarray(samples[first : first + size * per_s * 60])).max(axis=1)
        padded = np.concatenate([part, np.zeros(-len(part) % size, dtype=part.dtype)])
        result.extend(int(value) for value in np.clip(padded.reshape(-1, size).max(axis=1) * 255, 0, 255).round())
    return result


QUIET = 0.02
"""What is under this share of the loudest part counts as silence at a sound's ends: 34 dB below it."""
SPARED_MS = 80
"""How much of the silence is left, so that no breath and no last consonant is cut."""


def heard_ms(peaks: list[int], lasts_ms: int, per_s: int = PER_S) -> tuple[int, int]:
    """From when to when a sound is heard, the silence at its ends left out but for 80 ms; all of one that is silent throughout."""
    loud = [number for number, peak in enumerate(peaks) if peak > max(max(peaks, default=0) * QUIET, 1)]
    if not loud:
        return 0, lasts_ms
    first, last = loud[0] * 1000 // per_s, (loud[-1] + 1) * 1000 // per_s
    return max(first - SPARED_MS, 0), min(last + SPARED_MS, lasts_ms)
