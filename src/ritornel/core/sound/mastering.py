"""A mix brought to the loudness of publication: -16 LUFS, and no true peak above -1 dBTP.

The limiter's gain at a sample depends only on what is near it, so any block can be made alone, in any order, with the
same result.
"""

import math
from collections.abc import Callable, Iterator

import msgspec
import numpy as np
from numpy.typing import NDArray

from ritornel.core.sound.filtering import convolve, running_minimum
from ritornel.core.sound.gain import Samples, gain_of
from ritornel.core.sound.loudness import LoudnessMeter, oversampled_peaks
from ritornel.core.time.edges import SAMPLE_RATE_HZ

TARGET_LUFS, CEILING_DBTP = -16.0, -1.0
MARGIN_DB = 0.6
"""The limiter works below the ceiling by this much: encoders add a little, and peaks between oversampled points too."""
NEAR = SAMPLE_RATE_HZ // 200
"""Half the limiter's window: 5 ms, in which its gain goes down before a peak and up after it."""
CONTEXT = 2 * NEAR + 64
"""How many samples to both sides of a block its gain depends on, the oversampling filter included."""
MOST_GAIN_DB = 30.0
NEAR_ENOUGH_LU = 0.2
BLOCK = 2 * SAMPLE_RATE_HZ

Mix = Callable[[int, int], Samples]
"""Samples `first` .. `first + count` of a mix, shape (count, 2)."""


class Master(msgspec.Struct, frozen=True):
    """How a mix is published: its gain, whether peaks are limited, and the extra room below the ceiling. Also the
    measured loudness before and the resulting loudness after, in LUFS.
    """

    gain_db: float = 0.0
    limits: bool = False
    room_db: float = 0.0
    measured_lufs: float = -math.inf
    reached_lufs: float = -math.inf


def _blocks(samples: int) -> Iterator[tuple[int, int]]:
    for first in range(0, samples, BLOCK):
        yield first, min(BLOCK, samples - first)


def _limiting_gain(samples: Samples, room_db: float) -> NDArray[np.float32] | None:
    """The gain that keeps every peak under the ceiling; None where no peak is above it.

    Each sample's need is spread to 5 ms around it by a minimum, then smoothed over a window of that length: an average
    of values that are all at most the need at this sample is at most that need too.
    """
    ceiling = gain_of(CEILING_DBTP - MARGIN_DB - room_db)
    peaks = oversampled_peaks(samples, ceiling)
    if not len(peaks) or peaks.max() <= ceiling:
        return None
    window = np.hanning(2 * NEAR + 3)[1:-1]
    least = running_minimum(np.minimum(1.0, ceiling / np.maximum(peaks.astype(np.float64), 1e-9)), NEAR)
    return np.asarray(convolve(np.pad(least, NEAR, mode="edge"), window / window.sum()), dtype=np.float32)


def master_block(mix: Mix, master: Master, first: int, count: int, total: int) -> Samples:
    """Samples `first` .. `first + count` of the published sound, of `total` samples of the mix."""
    gain = np.float32(gain_of(master.gain_db))
    if not master.limits:
        return mix(first, count) * gain
    low, high = max(first - CONTEXT, 0), min(first + count + CONTEXT, total)
    wide = mix(low, high - low) * gain
    limiting = _limiting_gain(wide, master.room_db)
    limited = wide if limiting is None else wide * limiting[:, None]
    return np.asarray(limited[first - low : first - low + count])


def _loudness(mix: Mix, master: Master, total: int) -> float:
    """The loudness of the mastered mix in LUFS."""
    meter = LoudnessMeter()
    for first, count in _blocks(total):
        meter.take(master_block(mix, master, first, count, total))
    return meter.integrated_lufs()


def measure_mix(mix: Mix, total: int) -> tuple[float, float]:
    """The mix's own loudness in LUFS, and its greatest peak between samples."""
    meter, peak = LoudnessMeter(), 0.0
    for first, count in _blocks(total):
        block = mix(first, count)
        meter.take(block)
        peak = max(peak, float(oversampled_peaks(block, peak).max(initial=0.0)))
    return meter.integrated_lufs(), peak


def master_of(mix: Mix, total: int, room_db: float = 0.0) -> Master:
    """How to publish the mix: with the gain that brings it to -16 LUFS, and with a limiter where its peaks would then
    be too high. The loudness that the limiter takes is given back, once and where needed once more; silence stays
    silence. `room_db` stays free below the ceiling for what a codec adds.
    """
    loudness, peak = measure_mix(mix, total)
    if not math.isfinite(loudness):
        return Master()
    gain = min(TARGET_LUFS - loudness, MOST_GAIN_DB)
    if peak * gain_of(gain) <= gain_of(CEILING_DBTP - MARGIN_DB - room_db):
        return Master(gain, False, room_db, loudness, loudness + gain)
    master = Master(gain, True, room_db, loudness)
    for _ in range(3):
        master = msgspec.structs.replace(master, reached_lufs=_loudness(mix, master, total))
        missing = TARGET_LUFS - master.reached_lufs
        if abs(missing) < NEAR_ENOUGH_LU or master.gain_db >= MOST_GAIN_DB:
            break
        master = msgspec.structs.replace(master, gain_db=min(master.gain_db + missing, MOST_GAIN_DB))
    return master
