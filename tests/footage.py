"""Clips made for tests: the grey of a picture tells which frame it is, but for whole rounds of 19, even after two
encodings.
"""

import io
from fractions import Fraction
from typing import Any

import av
import numpy as np

WIDTH, HEIGHT = 64, 48


ROUND = 19


def grey_of(number: int) -> int:
    return 16 + 12 * (number % ROUND)


def number_of(frame: Any) -> int:
    """The number of the frame that is seen, within its round."""
    return round((float(frame.to_ndarray(format="rgb24").mean()) - 16) / 12)


def footage(
    frames: int = 90,
    rate: int = 30,
    codec: str = "libx264",
    sound: bool = True,
    times: list[int] | None = None,
    **more: Any,
) -> bytes:
    """The bytes of a clip, WebM for libvpx, else MP4.

    `times` are the frames' own times in 1/1000 s, for a rate that varies.
    """
    out = io.BytesIO()
    width, height = more.get("width", WIDTH), more.get("height", HEIGHT)
    with av.open(out, "w", format="webm" if "vpx" in codec else "mp4") as container:
        stream = container.add_stream(codec, rate=rate, options={"crf": "10", "g": "12"})
        stream.width, stream.height, stream.pix_fmt = width, height, more.get("pix_fmt", "yuv420p")
        if times:
            stream.time_base = stream.codec_context.time_base = Fraction(1, 1000)
        audio = (
            container.add_stream("libopus" if "vpx" in codec else "aac", rate=48_000, layout="stereo")
            if sound
            else None
        )
        for number in range(frames):
            picture = np.full((height, width, 3), grey_of(number), dtype=np.uint8)
            frame = av.VideoFrame.from_ndarray(picture, format="rgb24").reformat(format=stream.pix_fmt)
            frame.pts = times[number] if times else number
            frame.time_base = Fraction(1, 1000) if times else Fraction(1, rate)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
        if audio is not None:
            count = 48_000 * frames // rate
            wave = (0.25 * np.sin(np.arange(count) * 2 * np.pi * 440 / 48_000)).astype(np.float32)
            for first in range(0, count, 960):
                block = np.ascontiguousarray(np.repeat(wave[first : first + 960, None], 2, axis=1).reshape(1, -1))
                sounding = av.AudioFrame.from_ndarray(block, format="flt", layout="stereo")
                sounding.sample_rate, sounding.pts, sounding.time_base = 48_000, first, Fraction(1, 48_000)
                container.mux(audio.encode(sounding))
            container.mux(audio.encode(None))
    return out.getvalue()
