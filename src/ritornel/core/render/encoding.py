"""How pictures and sound of films are encoded, and the sound written along with them."""

import threading
from concurrent.futures import Future, ThreadPoolExecutor
from fractions import Fraction
from typing import Any

import av
import msgspec
import numpy as np
from av.video.reformatter import ColorRange, Colorspace

from ritornel.core.schedule.performance import Performance
from ritornel.core.sound.gain import Samples
from ritornel.core.sound.mastering import Master, master_of, mastered
from ritornel.core.sound.mixing import mixed
from ritornel.core.time.edges import SAMPLE_RATE_HZ, FrameRate, sample_at

BLOCK = 48_000
"""Samples mixed at a time: one second."""
X264 = {"preset": "veryfast", "crf": "20", "x264-params": "subme=1"}
"""One step of motion search below the preset's own: a quarter less work for the same picture (docs/decisions.md)."""
VP9 = {"crf": "30", "b": "0", "deadline": "realtime", "cpu-used": "7", "row-mt": "1"}


class FilmOrder(msgspec.Struct, frozen=True):
    """What is wanted. With `constant_rate` every frame is written, for players that need it; without, a still span is one long frame."""

    width_px: int = 1280
    height_px: int = 720
    rate: FrameRate = Fraction(30)
    constant_rate: bool = False


def picture_stream(container: Any, order: FilmOrder, webm: bool, threads: int) -> Any:
    """The stream of a film's pictures, counted in frames."""
    video = container.add_stream("libvpx-vp9" if webm else "libx264", rate=order.rate, options=VP9 if webm else X264)
    video.width, video.height, video.pix_fmt = order.width_px, order.height_px, "yuv420p"
    video.codec_context.time_base = 1 / order.rate
    video.codec_context.thread_count = threads
    video.codec_context.colorspace, video.codec_context.color_range = Colorspace.ITU709, ColorRange.MPEG
    video.codec_context.color_primaries = video.codec_context.color_trc = 1
    return video


class GivenUp(Exception):
    """Nobody wants the film any more."""


class SoundWriter:
    """Mixes, masters and encodes a show's sound into a container, in order. The loudness of the whole is measured beside other work: SciPy alone takes
    seconds to come in."""

    def __init__(self, performance: Performance, sounds: dict[str, Samples], container: Any, webm: bool, given_up: threading.Event) -> None:
        self._performance, self._sounds, self._container, self._given_up = performance, sounds, container, given_up
        self._stream = container.add_stream("libopus" if webm else "aac", rate=SAMPLE_RATE_HZ, layout="stereo")
        self._stream.bit_rate = 160_000
        self._sample = 0
        self._samples = sample_at(performance.schedule.length_ms)
        self._measuring: Future[Master] | None = None

    def measure(self, beside: ThreadPoolExecutor) -> None:
        """Begins to measure."""
        self._measuring = beside.submit(master_of, self._mix, self._samples)

    @property
    def measured(self) -> bool:
        """Whether what is written need not wait."""
        return self._measuring is not None and self._measuring.done()

    def _mix(self, first: int, count: int) -> Samples:
        if self._given_up.is_set():
            raise GivenUp
        return mixed(self._performance.music, self._sounds, first, count, self._performance.events)

    def write_until(self, end: int) -> None:
        """Writes whole seconds until a sample; at the end, all of it."""
        assert self._measuring is not None
        master = self._measuring.result()
        while self._sample < end and (end - self._sample >= BLOCK or end == self._samples):
            count = min(BLOCK, end - self._sample)
            block = np.clip(mastered(self._mix, master, self._sample, count, self._samples), -1.0, 1.0)
            frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(block.reshape(1, -1)), format="flt", layout="stereo")
            frame.sample_rate, frame.pts, frame.time_base = SAMPLE_RATE_HZ, self._sample, Fraction(1, SAMPLE_RATE_HZ)
            self._container.mux(self._stream.encode(frame))
            self._sample += count

    def finish(self) -> None:
        """Writes what is left."""
        self.write_until(self._samples)
        self._container.mux(self._stream.encode(None))
