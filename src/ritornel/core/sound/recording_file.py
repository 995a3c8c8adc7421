"""The sound of a recording while it grows: one file of 16-bit samples at 48 kHz, mono, little-endian, written piece by
piece, with its peaks in a file beside it.
"""

from collections.abc import Iterator
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ritornel.core.errors import BadValue
from ritornel.core.sound.flac import write_flac
from ritornel.core.time.edges import SAMPLE_RATE_HZ, sample_at

SAMPLE_BYTES = 2
PEAKS_PER_S = 25
PEAK_SAMPLES = SAMPLE_RATE_HZ // PEAKS_PER_S
AT_ONCE = 48_000 * 10
_FORM = np.dtype("<i2")


def recorded_ms(size_bytes: int) -> int:
    """The recorded time in a file of this size, cut to whole ms: 96 000 bytes are a second."""
    return size_bytes // SAMPLE_BYTES * 1000 // SAMPLE_RATE_HZ


def _samples(path: Path, first: int, count: int) -> Iterator[NDArray[np.int16]]:
    with path.open("rb") as source:
        source.seek(first * SAMPLE_BYTES)
        while count > 0:
            data = source.read(min(count, AT_ONCE) * SAMPLE_BYTES)
            if len(data) < SAMPLE_BYTES:
                return
            part = np.frombuffer(data[: len(data) // SAMPLE_BYTES * SAMPLE_BYTES], dtype=_FORM).astype(np.int16)
            count -= len(part)
            yield part


def write_piece(path: Path, from_ms: int, lasts_ms: int, target: Path) -> None:
    """Writes a stretch of a recording as FLAC. Raises BadValue where none of it was recorded."""
    first = sample_at(from_ms)
    if lasts_ms < 1 or path.stat().st_size < (first + 1) * SAMPLE_BYTES:
        raise BadValue("Nothing was recorded of this piece.", "piece")
    write_flac(_samples(path, first, sample_at(from_ms + lasts_ms) - first), "mono", target)


def peaks_from(path: Path, first: int) -> bytes:
    """The peaks of the recording from peak number `first` on, 25 a second, a byte each; an incomplete last peak is left
    out.
    """
    peaks = bytearray()
    rest = np.zeros(0, dtype=np.int16)
    for part in _samples(path, first * PEAK_SAMPLES, path.stat().st_size // SAMPLE_BYTES):
        part = np.concatenate([rest, part])
        count = len(part) // PEAK_SAMPLES
        rest = part[count * PEAK_SAMPLES :]
        loudest = (
            np.abs(part[: count * PEAK_SAMPLES].astype(np.int32)).reshape(count, PEAK_SAMPLES).max(axis=1, initial=0)
        )
        peaks += np.minimum(loudest * 255 // 32767, 255).astype(np.uint8).tobytes()
    return bytes(peaks)
