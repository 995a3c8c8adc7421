"""Films: only frames that differ from the one before are drawn, and the sound is made at the same time."""

import contextlib
import errno
import os
import queue
import sys
import tempfile
import threading
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor, wait
from fractions import Fraction
from pathlib import Path
from typing import Any

import av

from ritornel.core.errors import BadValue, DiskFull
from ritornel.core.render.encoding import FilmOrder, PictureTrack
from ritornel.core.render.frames import Frames, changing_frames, shows_clips
from ritornel.core.render.muxing import join_film
from ritornel.core.render.painter import MediaPath
from ritornel.core.render.poster import draw_poster
from ritornel.core.render.soundtrack import decode_sounds, write_sound
from ritornel.core.render.workload import FilmProgress, PictureWork, Progress, sound_work_ms
from ritornel.core.schedule.performance import FrameState, Performance
from ritornel.core.time.edges import frame_count

BEHIND = 10
"""How nice the encoder of pictures is. The sound is one long chain of steps; what it waits for, the film waits for."""
LOOK_S = 0.2
"""How often it is looked whether the film is still wanted, while only its sound is made."""
THREADS = 2
"""How many threads encode: always as many, so that a film is the same on every machine."""


Report = Callable[[Progress], None]
"""Called often; it may raise Cancelled, and the film is given up."""


def check_order(order: FilmOrder) -> None:
    """Raises BadValue for an impossible size or rate."""
    for name, value in (("wide", order.width_px), ("high", order.height_px)):
        if not 16 <= value <= 4096 or value % 2:
            raise BadValue(f"A film cannot be {value} px {name}; it takes an even number from 16 to 4096.", "size")
    if not 1 <= order.rate <= 120:
        raise BadValue(f"A film cannot have {order.rate} frames a second; it takes 1 to 120.", "fps")


def check_film(performance: Performance, path: Path, order: FilmOrder) -> None:
    """Raises BadValue for an impossible film."""
    check_order(order)
    if path.suffix not in (".mp4", ".webm"):
        raise BadValue(f"“{path.name}”: a film ends in .mp4 or .webm.", "output")
    if performance.schedule.length_ms == 0:
        raise BadValue(f"“{performance.title}” lasts 0 s: there is nothing to film.", "show")


def slide_of(frame_state: FrameState) -> int:
    """The slide that a frame shows, from 1."""
    return frame_state.layers[-1].index + 1 if frame_state.layers else 0


@contextlib.contextmanager
def write_aside(path: Path) -> Any:
    """A temporary path beside the film's. The file is moved into place when complete, so a film that fails or is
    cancelled leaves nothing. Raises DiskFull.
    """
    unfinished = path.with_name(f".{path.stem}.unfinished{path.suffix}")
    try:
        yield unfinished
        with unfinished.open("rb") as written:
            os.fsync(written.fileno())
        unfinished.replace(path)
    except OSError as error:
        if error.errno in (errno.ENOSPC, errno.EDQUOT):
            raise DiskFull(
                f"The disk is full: “{path.name}” could not be written. Free some space and start it again."
            ) from error
        raise
    finally:
        with contextlib.suppress(OSError):
            unfinished.unlink(missing_ok=True)


def _step_back() -> None:
    """Lowers the priority of this thread and those it starts where processors are scarce."""
    if sys.platform == "linux":
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), BEHIND)


class _PictureWriter(threading.Thread):
    """Encodes on a thread of its own while the next frames are drawn."""

    def __init__(self, path: Path, order: FilmOrder, webm: bool, end: int, clips: bool) -> None:
        super().__init__(name="film pictures", daemon=True)
        self.frames: queue.Queue[Any | None] = queue.Queue(maxsize=3)
        self.failure: BaseException | None = None
        self.given_up = threading.Event()
        self._given = (path, order, webm, end, clips)

    def run(self) -> None:
        path, order, webm, end, clips = self._given
        _step_back()
        try:
            with av.open(str(path), "w", format="mp4") as container:
                track = PictureTrack(container, order, webm, THREADS, end, clips)
                while (frame := self.frames.get()) is not None:
                    if not self.given_up.is_set():
                        track.put(frame)
                # What the encoder still holds of a film that is given up, up to forty frames, is not worth seconds of
                # somebody's waiting.
                if not self.given_up.is_set():
                    track.put(None)
        except BaseException as error:
            self.failure = error
            while self.frames.get() is not None:
                pass


def write_film(
    performance: Performance, path: Path, order: FilmOrder, media: MediaPath, report: Report | None = None
) -> None:
    """Writes the show as a film; the ending of `path` gives the kind, .mp4 or .webm.

    Its frames are those with 1000 n / F < length; each lasts until the next, the last until the length. Pictures and
    sound are made at the same time and joined when both are complete. Raises BadValue for impossible orders, BadMedia
    for missing media, DiskFull, and every error of `report`.
    """
    check_film(performance, path, order)
    webm = path.suffix == ".webm"
    with (
        write_aside(path) as unfinished,
        tempfile.TemporaryDirectory(prefix="ritornel-") as name,
        ThreadPoolExecutor(1, "film sound") as beside,
    ):
        folder = Path(name)
        pictures, sound, given_up = folder / "pictures.mp4", folder / "sound.mp4", threading.Event()
        counted = _Counted(performance, order, report)

        def write_track() -> None:
            sounds = decode_sounds(performance, media, folder)
            write_sound(performance, sounds, sound, webm, given_up, counted.hear)

        sounding = beside.submit(write_track) if performance.sound_ids() else None
        try:
            _draw(performance, pictures, order, media, counted, webm, sounding)
            while sounding is not None and not wait([sounding], LOOK_S).done:
                counted.tell()
            if sounding is not None:
                sounding.result()
        except BaseException:
            given_up.set()
            raise
        poster = b"" if webm else draw_poster(performance, order, media)
        heard = sound if sounding is not None else None
        join_film([(pictures, Fraction(0))], heard, unfinished, performance, order, poster)
    counted.end()


class _Counted:
    """Counts what is done of a film that is made in one piece, and reports it."""

    def __init__(self, performance: Performance, order: FilmOrder, report: Report | None) -> None:
        self._work, self._report, self._slides = PictureWork(performance, order), report, len(performance.slides)
        self._sound_ms = sound_work_ms(performance)
        total = frame_count(performance.schedule.length_ms, order.rate)
        self._progress = FilmProgress([self._work.between(0, total)], self._sound_ms, ([0.0], 0.0), starting_ms=0.0)
        self._pictures_ms, self._heard, self._slide = 0.0, 0.0, 0

    def hear(self, share: float) -> None:
        """Notes the share of the sound that is done; called on the sound's own thread."""
        self._heard = share

    def see(self, number: int, slide: int) -> None:
        """Notes that the frames before this one are drawn. Raises every error of the report."""
        self._pictures_ms, self._slide = self._work.between(0, number), slide
        self.tell()

    def tell(self) -> None:
        """Reports. Raises every error of the report."""
        if self._report is not None:
            self._report(self._progress.at([self._pictures_ms], self._heard * self._sound_ms, self._slide))

    def end(self) -> None:
        """Reports that the film is complete."""
        if self._report is not None:
            self._report(self._progress.end(self._slides))


def _draw(
    performance: Performance,
    path: Path,
    order: FilmOrder,
    media: MediaPath,
    counted: _Counted,
    webm: bool,
    sounding: Future[None] | None,
) -> None:
    """Draws all pictures, and stops as soon as the sound fails."""
    frames = Frames(performance, order, media)
    total = frame_count(performance.schedule.length_ms, order.rate)
    writer = _PictureWriter(path, order, webm, total, shows_clips(performance, order))
    writer.start()
    try:
        for number, frame_state, new in changing_frames(performance, order):
            if writer.failure is not None:
                break
            if sounding is not None and sounding.done():
                sounding.result()
            counted.see(number, slide_of(frame_state))
            writer.frames.put(frames.frame(number, frame_state, new))
    except BaseException:
        writer.given_up.set()
        raise
    finally:
        writer.frames.put(None)
        writer.join()
    if writer.failure is not None:
        raise writer.failure
