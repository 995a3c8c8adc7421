"""Films: only frames that differ from the one before are drawn; the sound is mixed along with them."""

import contextlib
import errno
import queue
import tempfile
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import msgspec
import numpy as np
import skia
from av.video.frame import PictureType
from av.video.reformatter import ColorRange, Colorspace

from ritornel.core.errors import BadValue, RitornelError
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.render.soundtrack import decoded_sounds
from ritornel.core.schedule.performance import Performance, Sight, sight_at
from ritornel.core.sound.gain import Samples
from ritornel.core.sound.mastering import Master, master_of, mastered
from ritornel.core.sound.mixing import mixed
from ritornel.core.time.edges import SAMPLE_RATE_HZ, FrameRate, frame_count, frame_time_ms, sample_at

BLOCK = 48_000
"""Samples mixed at a time: one second."""
X264 = {"preset": "veryfast", "crf": "20", "x264-params": "subme=1"}
"""One step of motion search below the preset's own: a quarter less work for the same picture (docs/decisions.md)."""
VP9 = {"crf": "30", "b": "0", "deadline": "realtime", "cpu-used": "7", "row-mt": "1"}
PATIENT = {"max_interleave_delta": "0"}
"""Pictures wait in the container for the sound that belongs between them, however long it is being measured."""


class FilmOrder(msgspec.Struct, frozen=True):
    """What is wanted. With `constant_rate` every frame is written, for players that need it; without, a still span is one long frame."""

    width_px: int = 1280
    height_px: int = 720
    rate: FrameRate = Fraction(30)
    constant_rate: bool = False


class Progress(msgspec.Struct, frozen=True):
    """How many of all frames are done, and which slide is being drawn (from 1)."""

    done: int
    total: int
    slide: int


Report = Callable[[Progress], None]
"""Called often; it may raise Cancelled, and the film is given up."""


def check_order(order: FilmOrder) -> None:
    """Raises BadValue for sizes and rates no film can have."""
    for name, value in (("wide", order.width_px), ("high", order.height_px)):
        if not 16 <= value <= 4096 or value % 2:
            raise BadValue(f"A film cannot be {value} px {name}; it takes an even number from 16 to 4096.", "size")
    if not 1 <= order.rate <= 120:
        raise BadValue(f"A film cannot have {order.rate} frames a second; it takes 1 to 120.", "fps")


def changing_frames(performance: Performance, order: FilmOrder) -> Iterator[tuple[int, Sight, bool]]:
    """Frame numbers with what they show, and whether it is new. The last frame always comes, so that the film ends where the show does."""
    total = frame_count(performance.schedule.length_ms, order.rate)
    from_last_slide = performance.schedule.end == "loop"
    before: Sight | None = None
    for number in range(total):
        sight = sight_at(performance, float(frame_time_ms(number, order.rate)), first_pass=not from_last_slide)
        new = sight != before
        if new or order.constant_rate or number == total - 1:
            yield number, sight, new
        before = sight


def _slide_of(sight: Sight) -> int:
    return sight.layers[-1].index + 1 if sight.layers else 0


class _GivenUp(Exception):
    """Nobody wants the film any more."""


class _Writer(threading.Thread):
    """Encodes and writes on a thread of its own, while the next frames are being drawn."""

    def __init__(self, performance: Performance, path: Path, order: FilmOrder, sounds: dict[str, Samples]) -> None:
        super().__init__(name="film writer", daemon=True)
        self.frames: queue.Queue[tuple[int, Any] | None] = queue.Queue(maxsize=3)
        self.failure: BaseException | None = None
        self.given_up = threading.Event()
        self._performance, self._path, self._order, self._sounds = performance, path, order, sounds
        self._sample = 0
        self._samples = sample_at(performance.schedule.length_ms)

    def run(self) -> None:
        webm = self._path.suffix.startswith(".webm")
        try:
            # The loudness of the whole is measured beside the drawing of the first pictures: SciPy alone takes seconds to come in.
            with (
                ThreadPoolExecutor(1, "film sound") as beside,
                av.open(str(self._path), "w", format="webm" if webm else "mp4", options=PATIENT) as container,
            ):
                try:
                    self._write(container, webm, beside)
                finally:
                    self.given_up.set()  # after a failure nothing is measured on
        except BaseException as error:
            self.failure = error
            while self.frames.get() is not None:
                pass

    def _mix(self, first: int, count: int) -> Samples:
        if self.given_up.is_set():
            raise _GivenUp
        return mixed(self._performance.music, self._sounds, first, count, self._performance.events)

    def _write(self, container: Any, webm: bool, beside: ThreadPoolExecutor) -> None:
        order = self._order
        video = container.add_stream("libvpx-vp9" if webm else "libx264", rate=order.rate, options=VP9 if webm else X264)
        video.width, video.height, video.pix_fmt = order.width_px, order.height_px, "yuv420p"
        video.codec_context.time_base = 1 / order.rate
        video.codec_context.thread_count = 2
        video.codec_context.colorspace, video.codec_context.color_range = Colorspace.ITU709, ColorRange.MPEG
        video.codec_context.color_primaries = video.codec_context.color_trc = 1
        audio, measuring = None, None
        if self._performance.sound_ids():
            audio = container.add_stream("libopus" if webm else "aac", rate=SAMPLE_RATE_HZ, layout="stereo")
            audio.bit_rate = 160_000
            measuring = beside.submit(master_of, self._mix, self._samples)
        while (entry := self.frames.get()) is not None:
            if self.given_up.is_set():
                continue
            number, frame = entry
            frame.pts, frame.time_base = number, 1 / order.rate
            # The encoder chooses its own picture types; a frame made by another encoder's settings must not force one.
            frame.pict_type = PictureType.NONE
            container.mux(video.encode(frame))
            if measuring is not None and measuring.done():
                self._sound_until(container, audio, measuring, sample_at(int(frame_time_ms(number, order.rate))))
        if self.given_up.is_set():
            # What the encoder still holds, up to forty frames, is not worth seconds of somebody's waiting.
            return
        container.mux(video.encode(None))
        if audio is not None and measuring is not None:
            self._sound_until(container, audio, measuring, self._samples)
            container.mux(audio.encode(None))

    def _sound_until(self, container: Any, audio: Any, measuring: Future[Master], end: int) -> None:
        master = measuring.result()
        while self._sample < end and (end - self._sample >= BLOCK or end == self._samples):
            count = min(BLOCK, end - self._sample)
            block = np.clip(mastered(self._mix, master, self._sample, count, self._samples), -1.0, 1.0)
            frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(block.reshape(1, -1)), format="flt", layout="stereo")
            frame.sample_rate, frame.pts, frame.time_base = SAMPLE_RATE_HZ, self._sample, Fraction(1, SAMPLE_RATE_HZ)
            container.mux(audio.encode(frame))
            self._sample += count


def write_film(performance: Performance, path: Path, order: FilmOrder, media: MediaPath, report: Report | None = None) -> None:
    """Writes the show as a film; the ending of `path` says which kind, .mp4 or .webm. Its frames are those with 1000 n / F < length.

    It is written beside `path` and moved there when whole, so a film that fails or is given up leaves nothing behind.
    Raises BadValue for orders that cannot be, BadMedia for missing media, RitornelError for a full disk, and what `report` raises.
    """
    check_order(order)
    if path.suffix not in (".mp4", ".webm"):
        raise BadValue(f"“{path.name}”: a film ends in .mp4 or .webm.", "output")
    if performance.schedule.length_ms == 0:
        raise BadValue(f"“{performance.title}” lasts 0 s: there is nothing to film.", "show")
    unfinished = path.with_name(f".{path.stem}.unfinished{path.suffix}")
    try:
        with tempfile.TemporaryDirectory(prefix="ritornel-") as folder:
            sounds = decoded_sounds(performance, media, Path(folder))
            _film(performance, unfinished, order, media, sounds, report)
        unfinished.replace(path)
    except OSError as error:
        if error.errno == errno.ENOSPC:
            raise RitornelError(f"The disk is full: “{path.name}” could not be written. Free some space and start it again.") from error
        raise
    finally:
        with contextlib.suppress(OSError):
            unfinished.unlink(missing_ok=True)


def _film(performance: Performance, path: Path, order: FilmOrder, media: MediaPath, sounds: dict[str, Samples], report: Report | None) -> None:
    painter = Painter(performance, order.width_px, order.height_px, media)
    pixels = np.zeros((order.height_px, order.width_px, 4), dtype=np.uint8)
    info = skia.ImageInfo.Make(order.width_px, order.height_px, skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType)
    surface = skia.Surface.MakeRasterDirect(info, pixels, order.width_px * 4)
    total = frame_count(performance.schedule.length_ms, order.rate)
    writer = _Writer(performance, path, order, sounds)
    writer.start()
    frame = None
    try:
        for number, sight, new in changing_frames(performance, order):
            if writer.failure is not None:
                break
            if report is not None:
                report(Progress(number, total, _slide_of(sight)))
            if new or frame is None:
                frame = painter.through(sight)
                if frame is None:
                    with surface as canvas:
                        painter.paint(canvas, sight)
                    frame = av.VideoFrame.from_ndarray(pixels, format="bgra").reformat(
                        format="yuv420p", dst_colorspace=Colorspace.ITU709, dst_color_range=ColorRange.MPEG
                    )
                writer.frames.put((number, frame))
            else:
                again = av.VideoFrame(order.width_px, order.height_px, "yuv420p")
                for plane, source in zip(again.planes, frame.planes, strict=True):
                    plane.update(bytes(source))
                writer.frames.put((number, again))
    except BaseException:
        writer.given_up.set()
        raise
    finally:
        writer.frames.put(None)
        writer.join()
    if writer.failure is not None:
        raise writer.failure
    if report is not None:
        report(Progress(total, total, len(performance.slides)))
