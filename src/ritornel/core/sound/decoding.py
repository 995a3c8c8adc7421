"""Sound files as samples."""

from collections.abc import Iterator
from pathlib import Path
from typing import cast

import av
import numpy as np
from av.audio.resampler import AudioResampler

from ritornel.core.containers import open_container
from ritornel.core.errors import BadMedia
from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ


def _pairs(part: av.AudioFrame) -> Samples:
    return cast(Samples, part.to_ndarray().reshape(-1, 2))


def decode_sound(path: Path) -> Iterator[Samples]:
    """The samples of a sound, 48 kHz stereo, in pieces of shape (n, 2).

    Raises BadMedia where the file holds no readable sound; a truncated file is as long as what can be read of it.
    """
    heard = False
    try:
        with open_container(path) as container:
            if not container.streams.audio:
                raise BadMedia(f"“{path.name}” has no sound in it.")
            resampler = AudioResampler(format="flt", layout="stereo", rate=SAMPLE_RATE_HZ)
            for frame in container.decode(container.streams.audio[0]):
                for part in resampler.resample(frame):
                    heard = True
                    yield _pairs(part)
            for part in resampler.resample(None):
                yield _pairs(part)
    except av.FFmpegError as error:
        if not heard:
            raise BadMedia(f"“{path.name}” cannot be read as sound.") from error


def keep_in_file(samples: Iterator[Samples], raw: Path, name: str) -> Samples:
    """All samples, 48 kHz stereo, as an array of shape (samples, 2) in the file `raw` and not in memory.

    Raises BadMedia, naming the sound, where there are none.
    """
    with raw.open("wb") as out:
        for part in samples:
            out.write(part.tobytes())
    if raw.stat().st_size == 0:
        raise BadMedia(f"“{name}” has no sound in it.")
    return np.memmap(raw, dtype=np.float32, mode="r").reshape(-1, 2)
