"""Sound files as samples."""

from pathlib import Path

import av
import numpy as np
from av.audio.resampler import AudioResampler

from ritornel.core.errors import BadMedia
from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ


def decode_to_file(path: Path, raw: Path) -> Samples:
    """All samples of a sound, 48 kHz stereo, as an array of shape (samples, 2) that lives in the file `raw` and not in memory.

    Raises BadMedia where the file holds no sound that can be read.
    """
    try:
        with av.open(str(path)) as container, raw.open("wb") as out:
            if not container.streams.audio:
                raise BadMedia(f"“{path.name}” has no sound in it.")
            resampler = AudioResampler(format="flt", layout="stereo", rate=SAMPLE_RATE_HZ)
            for frame in container.decode(container.streams.audio[0]):
                for part in resampler.resample(frame):
                    out.write(part.to_ndarray().tobytes())
            for part in resampler.resample(None):
                out.write(part.to_ndarray().tobytes())
    except av.FFmpegError as error:
        raise BadMedia(f"“{path.name}” cannot be read as sound.") from error
    if raw.stat().st_size == 0:
        raise BadMedia(f"“{path.name}” has no sound in it.")
    return np.memmap(raw, dtype=np.float32, mode="r").reshape(-1, 2)
