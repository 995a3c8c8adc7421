"""Sound as FLAC, which is lossless."""

from collections.abc import Iterable
from pathlib import Path
from typing import Literal

import av
import numpy as np
from numpy.typing import NDArray

from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import SAMPLE_RATE_HZ


def whole_samples(samples: Samples) -> NDArray[np.int16]:
    """Samples -1..1 as whole numbers of 16 bits, rounded; values above full scale are clipped."""
    return np.asarray(np.clip(np.round(samples * 32767), -32768, 32767), dtype=np.int16)


def write_flac(parts: Iterable[NDArray[np.int16]], layout: Literal["mono", "stereo"], target: Path) -> None:
    """Writes 16-bit samples at 48 kHz, of shape (n, channels) or (n,), part by part: an hour is never in memory at
    once.
    """
    with av.open(str(target), "w", format="flac") as container:
        stream = container.add_stream("flac", rate=SAMPLE_RATE_HZ, layout=layout)
        stream.format = "s16"
        at = 0
        for part in parts:
            frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(part.reshape(1, -1)), format="s16", layout=layout)
            frame.sample_rate, frame.pts = SAMPLE_RATE_HZ, at
            at += len(part)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
