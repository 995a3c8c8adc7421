"""Sound at another speed with the same pitch."""

import itertools
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import av
import numpy as np

from ritornel.core.sound.decoding import decode_sound
from ritornel.core.sound.flac import whole_samples, write_flac
from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ

_KEY = re.compile(r"^(.+)@(\d+)$")


def sound_key(asset_id: str, rate_pct: int) -> str:
    """The key for the sound of an asset at a speed: `pendulum@150`; at 100 % it is the asset's id."""
    return asset_id if rate_pct == 100 else f"{asset_id}@{rate_pct}"


def asset_and_rate(key: str) -> tuple[str, int]:
    """The asset and the speed in per cent of a key."""
    found = _KEY.match(key)
    return (found[1], int(found[2])) if found else (key, 100)


def _factors(rate_pct: int) -> list[float]:
    """The speed as factors of at least a half, which is what the filter takes: 25 % are 0.5 twice."""
    factors, left = [], rate_pct / 100
    while left < 0.5:
        factors.append(0.5)
        left /= 0.5
    return [*factors, left]


def at_tempo(samples: Iterator[Samples], rate_pct: int) -> Iterator[Samples]:
    """The samples, 48 kHz stereo, at a speed of 25 to 400 per cent, with the same pitch (FFmpeg's `atempo`, a WSOLA:
    Verhelst and Roelands 1993).
    """
    if rate_pct == 100:
        yield from samples
        return
    graph = av.filter.Graph()
    chain: list[Any] = [graph.add_abuffer(sample_rate=SAMPLE_RATE_HZ, format="flt", layout="stereo")]
    chain += [graph.add("atempo", f"{factor:.6f}") for factor in _factors(rate_pct)]
    chain += [graph.add("aformat", "sample_fmts=flt:channel_layouts=stereo"), graph.add("abuffersink")]
    for one, other in itertools.pairwise(chain):
        one.link_to(other)
    graph.configure()

    def pulled() -> Iterator[Samples]:
        while True:
            try:
                frame: Any = graph.pull()
            except (av.BlockingIOError, av.EOFError):
                return
            yield frame.to_ndarray().reshape(-1, 2)

    at = 0
    for part in samples:
        frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(part.reshape(1, -1)), format="flt", layout="stereo")
        frame.sample_rate, frame.pts = SAMPLE_RATE_HZ, at
        at += len(part)
        graph.push(frame)
        yield from pulled()
    graph.push(None)
    yield from pulled()


def write_at_tempo(path: Path, rate_pct: int, target: Path) -> None:
    """Writes the sound at `path`, at that speed, as FLAC to `target`. Raises BadMedia where there is no sound."""
    write_flac((whole_samples(part) for part in at_tempo(decode_sound(path), rate_pct)), "stereo", target)
