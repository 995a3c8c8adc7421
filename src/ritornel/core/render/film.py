"""Films: only frames that differ from the one before are drawn; the sound is mixed along with them."""

import contextlib
import errno
import os
import queue
import tempfile
import threading
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import av
import msgspec

from ritornel.core.errors import BadValue, DiskFull
from ritornel.core.render.encoding import FilmOrder, SoundWriter, picture_stream
from ritornel.core.render.frames import Frames, changing_frames
from ritornel.core.render.painter import MediaPath
from ritornel.core.render.soundtrack import decoded_sounds
from ritornel.core.schedule.performance import Performance, Sight
from ritornel.core.sound.gain import Samples
from ritornel.core.time.edges import frame_count, frame_time_ms, sample_at

PATIENT = {"max_interleave_delta": "0"}
"""Pictures wait in the container for the sound that belongs between them, however long it is being measured."""


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


def check_film(performance: Performance, path: Path, order: FilmOrder) -> None:
    """Raises BadValue for a film that cannot be."""
    check_order(order)
    if path.suffix not in (".mp4", ".webm"):
        raise BadValue(f"“{path.name}”: a film ends in .mp4 or .webm.", "output")
    if performance.schedule.length_ms == 0:
        raise BadValue(f"“{performance.title}” lasts 0 s: there is nothing to film.", "show")


def slide_of(sight: Sight) -> int:
    """Which slide a frame shows, from 1."""
    return sight.layers[-1].index + 1 if sight.layers else 0


@contextlib.contextmanager
def moved_there(path: Path) -> Any:
    """Where to write a film, beside its place; it is moved there when whole, so one that fails or is given up leaves nothing behind. Raises DiskFull."""
    unfinished = path.with_name(f".{path.stem}.unfinished{path.suffix}")
    try:
        yield unfinished
        with unfinished.open("rb") as written:
            os.fsync(written.fileno())
        unfinished.replace(path)
    except OSError as error:
        if error.errno in (errno.ENOSPC, errno.EDQUOT):
            raise DiskFull(f"The disk is full: “{path.name}” could not be written. Free some space and start it again.") from error
        raise
    finally:
        with contextlib.suppress(OSError):
            unfinished.unlink(missing_ok=True)


class _Writer(threading.Thread):
    """Encodes and writes on a thread of its own, while the next frames are being drawn."""

    def __init__(self, performance: Performance, path: Path, order: FilmOrder, sounds: dict[str, Samples]) -> None:
        super().__init__(name="film writer", daemon=True)
        self.frames: queue.Queue[Any | None] = queue.Queue(maxsize=3)
        self.failure: BaseException | None = None
        self.given_up = threading.Event()
        self._performance, self._path, self._order, self._sounds = performance, path, order, sounds

    def run(self) -> None:
        webm = self._path.suffix.startswith(".webm")
        try:
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

    def _write(self, container: Any, webm: bool, beside: ThreadPoolExecutor) -> None:
        video = picture_stream(container, self._order, webm, 2)
        sound = SoundWriter(self._performance, self._sounds, container, webm, self.given_up) if self._performance.sound_ids() else None
        if sound is not None:
            sound.measure(beside)
        while (frame := self.frames.get()) is not None:
            if self.given_up.is_set():
                continue
            number = frame.pts
            container.mux(video.encode(frame))
            if sound is not None and sound.measured:
                sound.write_until(sample_at(int(frame_time_ms(number, self._order.rate))))
        if self.given_up.is_set():
            # What the encoder still holds, up to forty frames, is not worth seconds of somebody's waiting.
            return
        container.mux(video.encode(None))
        if sound is not None:
            sound.finish()


def write_film(performance: Performance, path: Path, order: FilmOrder, media: MediaPath, report: Report | None = None) -> None:
    """Writes the show as a film; the ending of `path` says which kind, .mp4 or .webm. Its frames are those with 1000 n / F < length.

    Raises BadValue for orders that cannot be, BadMedia for missing media, DiskFull, and what `report` raises.
    """
    check_film(performance, path, order)
    with moved_there(path) as unfinished, tempfile.TemporaryDirectory(prefix="ritornel-") as folder:
        sounds = decoded_sounds(performance, media, Path(folder))
        _film(performance, unfinished, order, media, sounds, report)


def _film(performance: Performance, path: Path, order: FilmOrder, media: MediaPath, sounds: dict[str, Samples], report: Report | None) -> None:
    frames = Frames(performance, order, media)
    total = frame_count(performance.schedule.length_ms, order.rate)
    writer = _Writer(performance, path, order, sounds)
    writer.start()
    try:
        for number, sight, new in changing_frames(performance, order):
            if writer.failure is not None:
                break
            if report is not None:
                report(Progress(number, total, slide_of(sight)))
            writer.frames.put(frames.frame(number, sight, new))
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
