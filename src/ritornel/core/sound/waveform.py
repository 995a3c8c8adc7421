"""The waveform of a sound, for drawing: its peaks in levels of detail, written while the sound is read, so that an hour
can be looked at before it is read completely.
"""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import av
import msgspec
import numpy as np
from numpy.typing import NDArray

from ritornel.core.containers import open_container
from ritornel.core.errors import BadMedia
from ritornel.core.sound.decoding import decode_sound
from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ

LEVELS_PER_S = (2, 25, 200)
"""Peaks a second of each level, coarsest first: one for a whole evening across a screen, one for slides, one for words.

Each divides 48 000.
"""
SKETCH_FROM_MS = 120_000
"""A sound longer than this is sketched before it is read through."""
SKETCH_PLACES = 240
ABOUT = "about.json"
"""The file that says how far the wave has come; it is written again every minute of sound."""


class Wave(msgspec.Struct, frozen=True):
    """The progress of a waveform: `done_ms` of `lasts_ms` are in the levels' files, `2.u8` and so on, a byte for each
    peak, 0..255.

    `heard_ms` is the span with sound, once known. `sketch` are peaks spread evenly over the whole, for what is not read
    yet.
    """

    lasts_ms: int
    done_ms: int = 0
    whole: bool = False
    heard_ms: tuple[int, int] | None = None
    sketch: tuple[int, ...] = ()


QUIET = 0.02
"""What is under this share of the loudest part counts as silence at a sound's ends: 34 dB below it."""
SPARED_MS = 80
"""How much of the silence is left, so that no breath and no last consonant is cut."""


def heard_ms(peaks: list[int], lasts_ms: int, per_s: int = 25) -> tuple[int, int]:
    """The span in which a sound is heard, without the silence at its ends except for 80 ms; all of a sound that is
    silent throughout.
    """
    least = max(max(peaks, default=0) * QUIET, 1)
    loud = [number for number, peak in enumerate(peaks) if peak > least]
    if not loud:
        return 0, lasts_ms
    first, last = loud[0] * 1000 // per_s, (loud[-1] + 1) * 1000 // per_s
    return max(first - SPARED_MS, 0), min(last + SPARED_MS, lasts_ms)


def _bytes_of(samples: Samples) -> NDArray[np.uint8]:
    return np.asarray(np.clip(np.maximum(*np.abs(samples).T) * 255, 0, 255).round(), dtype=np.uint8)


class PeakMeter:
    """Takes samples of shape (n, 2) at 48 kHz, in pieces of any length, and gives the peaks of one level."""

    def __init__(self, per_s: int) -> None:
        self._size = SAMPLE_RATE_HZ // per_s
        self._rest = np.zeros(0, dtype=np.uint8)

    def take(self, magnitudes: NDArray[np.uint8]) -> bytes:
        """The peaks that the next samples complete, as magnitudes 0..255."""
        all_ = np.concatenate([self._rest, magnitudes])
        count = len(all_) // self._size
        self._rest = all_[count * self._size :]
        return bytes(all_[: count * self._size].reshape(count, self._size).max(axis=1, initial=0)) if count else b""

    def end(self) -> bytes:
        """The peak of the rest, where there is any."""
        return bytes([int(self._rest.max())]) if len(self._rest) else b""


def _magnitude(samples: NDArray[Any]) -> float:
    """The greatest magnitude of samples of any format, 1 being full scale."""
    if samples.dtype.kind == "u":
        return float(np.abs(samples.astype(np.float64) - 128).max(initial=0.0)) / 128
    whole = float(np.iinfo(samples.dtype).max) if samples.dtype.kind == "i" else 1.0
    return float(np.abs(samples.astype(np.float64)).max(initial=0.0)) / whole


def sketch_of(path: Path, lasts_ms: int, places: int = SKETCH_PLACES) -> tuple[int, ...]:
    """Peaks at `places` instants spread evenly over a sound, found by seeking: an hour takes a second.

    Empty for a file without seeking.
    """
    found: list[int] = []
    try:
        with open_container(path) as container:
            stream = container.streams.audio[0]
            for place in range(places):
                container.seek(round(lasts_ms * 1000 * (place + 0.5) / places))
                frame = next(iter(container.decode(stream)), None)
                if frame is None:
                    return ()
                found.append(round(min(_magnitude(frame.to_ndarray()), 1.0) * 255))
    except (av.FFmpegError, IndexError):
        return ()
    return tuple(found)


def _minutes(path: Path) -> Iterator[Samples]:
    """The sound in pieces of about a minute."""
    parts: list[Samples] = []
    held = 0
    for part in decode_sound(path):
        parts.append(part)
        held += len(part)
        if held >= SAMPLE_RATE_HZ * 60:
            yield np.concatenate(parts)
            parts, held = [], 0
    if parts:
        yield np.concatenate(parts)


def write_wave(path: Path, lasts_ms: int, folder: Path) -> None:
    """Writes the waveform of the sound at `path` into `folder`: its levels grow while it is read, and its `about.json`
    says how far. `lasts_ms` is its stated length. Raises BadMedia for a file without sound.
    """
    folder.mkdir(parents=True, exist_ok=True)
    meters = {per_s: PeakMeter(per_s) for per_s in LEVELS_PER_S}
    files = {per_s: (folder / f"{per_s}.u8").open("wb") for per_s in LEVELS_PER_S}
    about = Wave(lasts_ms, sketch=sketch_of(path, lasts_ms) if lasts_ms > SKETCH_FROM_MS else ())
    samples = 0
    try:
        _tell(folder, about)
        for piece in _minutes(path):
            magnitudes = _bytes_of(piece)
            samples += len(piece)
            for per_s, file in files.items():
                file.write(meters[per_s].take(magnitudes))
                file.flush()
            _tell(folder, msgspec.structs.replace(about, done_ms=samples * 1000 // SAMPLE_RATE_HZ))
        for per_s, file in files.items():
            file.write(meters[per_s].end())
    finally:
        for file in files.values():
            file.close()
    if not samples:
        raise BadMedia(f"“{path.name}” has no sound in it.")
    lasts_ms = samples * 1000 // SAMPLE_RATE_HZ
    middle = list((folder / f"{LEVELS_PER_S[1]}.u8").read_bytes())
    _tell(folder, Wave(lasts_ms, lasts_ms, True, heard_ms(middle, lasts_ms, LEVELS_PER_S[1])))


def _tell(folder: Path, about: Wave) -> None:
    unfinished = folder / f"{ABOUT}.part"
    unfinished.write_bytes(msgspec.json.encode(about))
    unfinished.replace(folder / ABOUT)
