"""The sound of a whole show: its files decoded, mixed, measured, mastered and written."""

import itertools
import math
import os
import threading
from collections.abc import Callable, Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import msgspec
import numpy as np

from ritornel.core.containers import open_container
from ritornel.core.document.decoding import from_json
from ritornel.core.document.show import Show
from ritornel.core.errors import BadMedia
from ritornel.core.render.painter import MediaPath
from ritornel.core.schedule.measurements import ShowLoudness
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.sound.decoding import decode_sound, keep_in_file
from ritornel.core.sound.gain import Samples
from ritornel.core.sound.loudness import oversampled_peaks
from ritornel.core.sound.mastering import CEILING_DBTP, Master, Mix, master_block, master_of, measure_mix
from ritornel.core.sound.mixing import mix_block
from ritornel.core.sound.tempo import asset_and_rate, at_tempo
from ritornel.core.time.edges import SAMPLE_RATE_HZ, sample_at

BLOCK = 48_000
"""Samples encoded at a time: one second."""
TRIES = 3
"""How often a sound is encoded again, each time with more room under the ceiling, where its codec made peaks that are
too high.
"""
ROOM_DB = 0.15
"""So much more room than was missing: with another encoding the peaks lie elsewhere."""


MEASURED_SHARE, ENCODED_SHARE = 0.25, 0.66
"""Which share of the work mixing with measuring is, and encoding; the rest is looking at what was written."""


class GivenUp(Exception):
    """The film was cancelled."""


class KeptMix:
    """A mix that is made once: blocks mixed in order go to a file, and are read from there when they are requested
    again.
    """

    def __init__(self, mix: Mix, path: Path) -> None:
        self._mix, self._file = mix, path.open("w+b")
        path.unlink()
        self._until = 0

    def __call__(self, first: int, count: int) -> Samples:
        if first + count <= self._until:
            content = os.pread(self._file.fileno(), count * 8, first * 8)
            return np.frombuffer(content, dtype=np.float32).reshape(-1, 2)
        block = np.ascontiguousarray(self._mix(first, count), dtype=np.float32)
        if first == self._until:
            os.pwrite(self._file.fileno(), block.tobytes(), first * 8)
            self._until += count
        return block

    def close(self) -> None:
        """Removes the file."""
        self._file.close()


def decode_sounds(performance: Performance, media: MediaPath, folder: Path) -> dict[str, Samples]:
    """The samples of all sounds by their keys, each in a file of `folder`.

    Raises BadMedia for a missing sound.
    """
    sounds = {}
    for number, key in enumerate(performance.sound_ids()):
        asset_id, rate_pct = asset_and_rate(key)
        asset = performance.assets[asset_id]
        source = media(asset.sha256)
        if not source.is_file():
            raise BadMedia(f"The sound “{asset.name}” is missing, so the show cannot be mixed.")
        sounds[key] = keep_in_file(at_tempo(decode_sound(source), rate_pct), folder / f"{number}.raw", asset.name)
    return sounds


def loudness_of_show(performance: Performance, media: MediaPath, folder: Path) -> ShowLoudness:
    """The show's loudness, its sounds decoded into `folder`. Raises BadMedia."""
    sounds = decode_sounds(performance, media, folder)
    total = sample_at(performance.schedule.length_ms)

    def mix(first: int, count: int) -> Samples:
        return mix_block(performance.music, sounds, first, count, performance.events)

    lufs, peak = measure_mix(mix, total)
    if not sounds or not math.isfinite(lufs):
        return ShowLoudness(None, None, None)
    master = master_of(mix, total)
    return ShowLoudness(round(lufs, 1), round(20 * math.log10(peak), 1), round(master.reached_lufs, 1), master.limits)


def write_loudness(document: bytes, media: dict[str, Path], folder: Path, target: Path) -> None:
    """Writes the loudness of a show, given as JSON, as JSON; `media` are its files by hash."""
    performance = perform(from_json(document, Show, "The show"))
    target.write_bytes(
        msgspec.json.encode(loudness_of_show(performance, lambda sha256: media.get(sha256, folder / "missing"), folder))
    )


def write_sound(
    performance: Performance,
    sounds: dict[str, Samples],
    path: Path,
    webm: bool,
    given_up: threading.Event | None = None,
    tell: Callable[[float], None] | None = None,
) -> None:
    """Writes the sound of a self-running show at -16 LUFS: AAC, or Opus for WebM. The written file is decoded and
    measured; where the codec made a true peak above -1 dBTP, it is written again with a lower ceiling. Raises GivenUp
    once `given_up` is set. `tell` gets the share of the work that is done.
    """
    tell = tell or (lambda share: None)
    total = sample_at(performance.schedule.length_ms)

    def mix(first: int, count: int) -> Samples:
        if given_up is not None and given_up.is_set():
            raise GivenUp
        tell(MEASURED_SHARE * first / total)
        return mix_block(performance.music, sounds, first, count, performance.events)

    kept = KeptMix(mix, path.with_name(f"{path.name}.mix"))
    try:
        room_db = 0.0
        for _ in range(TRIES):
            master = master_of(kept, total, room_db)
            _encode(kept, master, total, path, webm, tell)
            tell(MEASURED_SHARE + ENCODED_SHARE)
            missing_db = peak_db_of(path) - CEILING_DBTP
            if missing_db <= 0:
                break
            room_db += missing_db + ROOM_DB
    finally:
        kept.close()


def _encode(mix: Mix, master: Master, total: int, path: Path, webm: bool, tell: Callable[[float], None]) -> None:
    with av.open(str(path), "w", format="mp4") as container:
        stream: Any = container.add_stream("libopus" if webm else "aac", rate=SAMPLE_RATE_HZ, layout="stereo")
        stream.bit_rate = 160_000
        for first in range(0, total, BLOCK):
            count = min(BLOCK, total - first)
            tell(MEASURED_SHARE + ENCODED_SHARE * first / total)
            block = np.clip(master_block(mix, master, first, count, total), -1.0, 1.0)
            frame = av.AudioFrame.from_ndarray(
                np.ascontiguousarray(block.reshape(1, -1)), format="flt", layout="stereo"
            )
            frame.sample_rate, frame.pts, frame.time_base = SAMPLE_RATE_HZ, first, Fraction(1, SAMPLE_RATE_HZ)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))


def peak_db_of(path: Path) -> float:
    """The true peak in dBTP of a written file's sound, decoded as a player decodes it; -inf for silence.

    It is exact where it is above the ceiling.
    """
    peak, tail = 0.0, np.zeros((0, 2), dtype=np.float32)
    with open_container(path) as container:
        for samples in _blocks_of(container):
            block = np.concatenate([tail, samples])
            peak = max(peak, float(oversampled_peaks(block, max(peak, _CEILING)).max(initial=0.0)))
            tail = block[-64:]
    return 20 * math.log10(peak) if peak > 0 else -math.inf


_CEILING = 10 ** (CEILING_DBTP / 20)


def _blocks_of(container: Any) -> Iterator[Samples]:
    resampler = av.AudioResampler(format="flt", layout="stereo", rate=SAMPLE_RATE_HZ)
    waiting: list[Samples] = []
    for frame in itertools.chain(container.decode(audio=0), (None,)):
        for made in resampler.resample(frame):
            waiting.append(np.asarray(made.to_ndarray(), dtype=np.float32).reshape(-1, 2))
        if frame is None or sum(map(len, waiting)) >= BLOCK:
            if waiting:
                yield np.concatenate(waiting)
            waiting = []
