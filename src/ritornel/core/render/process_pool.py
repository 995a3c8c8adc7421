"""The processes that make the parts of a long film: one for each core that may be used; one of them makes the sound
until that is complete.
"""

import ctypes
import multiprocessing
import os
import queue
import shutil
import signal
import sys
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any

import av
import msgspec

from ritornel.core.document.show import Show
from ritornel.core.errors import RitornelError
from ritornel.core.render.encoding import FilmOrder, PictureTrack
from ritornel.core.render.film import slide_of
from ritornel.core.render.frames import Frames, changing_frames, shows_clips
from ritornel.core.render.pictures import Pictures
from ritornel.core.render.soundtrack import decode_sounds, write_sound
from ritornel.core.schedule.performance import Performance, perform

TELL_EVERY = 4
KEPT_PIXELS = 4_000_000
"""A segment shows few pictures: so many pixels of them are kept beside those that are wanted, 16 MB."""
OWN_PAGES_BYTES = 1 << 20
"""What is at least so large, as pictures and frames are, goes back to the system when it is done with, and does not
stay in a heap with holes.
"""


class FilmSegment(msgspec.Struct, frozen=True):
    """The frames from `first` until before `end`."""

    number: int
    first: int
    end: int


class FilmSource(msgspec.Struct, frozen=True):
    """What a film is made from: the show, the order, and the places of media."""

    show: Show
    order: FilmOrder
    media: Mapping[str, str]

    def path(self, sha256: str) -> Path:
        """The place of the medium with this hash."""
        return Path(self.media[sha256])


class Told(msgspec.Struct, frozen=True):
    """A message from one of the crew: the number of finished frames of a segment and whether it is complete; or,
    without a segment, the share of the sound and whether that is complete; the slide being drawn; what went wrong.
    """

    segment: FilmSegment | None
    frames: int = 0
    whole: bool = False
    slide: int = 0
    share: float = 0.0
    failure: BaseException | None = None


def picture_place(folder: Path, segment: FilmSegment) -> Path:
    """The place of a segment's pictures once they are complete."""
    return folder / f"{segment.number:03d}.mp4"


def sound_place(folder: Path) -> Path:
    """The place of the sound once it is complete."""
    return folder / "sound.mp4"


class Crew:
    """Makes the segments, and with `heard` the sound, in at most `processes` processes at a time.

    The sound begins first: it takes longest and loads the most libraries. When its process has ended, another one draws
    in its place.
    """

    def __init__(
        self, scene: FilmSource, folder: Path, webm: bool, segments: list[FilmSegment], heard: bool, processes: int
    ) -> None:
        # What they need is imported once, in a process they are forked from: its memory is shared.
        self._context = multiprocessing.get_context("forkserver")
        self._context.set_forkserver_preload([__name__])
        self._wanted: Any = self._context.SimpleQueue()
        self._told: Any = self._context.Queue()
        self._given = (scene, folder, webm, self._told)
        self._processes: list[Any] = []
        drawers = min(processes, len(segments))
        if heard:
            self._start(_make_sound)
        for _ in range(min(drawers, processes - heard)):
            self._start(_draw_segments, self._wanted)
        self._draws_later = heard and drawers == processes
        for segment in segments:
            self._wanted.put(segment)
        for _ in range(drawers):
            self._wanted.put(None)

    def _start(self, work: Callable[..., None], *more: Any) -> None:
        process = self._context.Process(target=work, args=(*self._given, *more), daemon=True)
        process.start()
        self._processes.append(process)

    def next(self, wait_s: float) -> Told | None:
        """The next message; None where none came in time. Raises RitornelError where a process died."""
        try:
            told: Told = self._told.get(timeout=wait_s)
        except queue.Empty:
            if any(process.exitcode not in (None, 0) for process in self._processes):
                raise RitornelError(
                    "The film could not be made: one of its makers stopped in the middle, perhaps for want of memory."
                ) from None
            return None
        if told.segment is None and told.whole and self._draws_later:
            self._draws_later = False
            self._start(_draw_segments, self._wanted)
        return told

    def stop(self) -> None:
        """Ends all processes at once."""
        for process in self._processes:
            process.kill()
            process.join()


def _prepare() -> None:
    if sys.platform == "linux":
        libc = ctypes.CDLL(None)
        # Whoever began it may be killed; nobody would wait for what it draws (prctl PR_SET_PDEATHSIG).
        libc.prctl(1, signal.SIGKILL)
        if hasattr(libc, "mallopt"):
            # M_MMAP_THRESHOLD of the GNU C library.
            libc.mallopt(-3, OWN_PAGES_BYTES)


def _plain(error: BaseException) -> BaseException:
    """An error that can be sent between processes."""
    return (
        error
        if isinstance(error, RitornelError | OSError)
        else RitornelError(f"The film could not be made ({type(error).__name__}: {error}).")
    )


def _draw_segments(scene: FilmSource, folder: Path, webm: bool, told: Any, wanted: Any) -> None:
    """The work of a drawing process: draws segments until there are no more."""
    _prepare()
    segment: FilmSegment | None = None
    try:
        performance = perform(scene.show)
        frames = Frames(performance, scene.order, scene.path, Pictures(scene.path, kept_pixels=KEPT_PIXELS))
        while (segment := wanted.get()) is not None:
            write_segment(performance, frames, scene.order, segment, folder, webm, told.put)
    except BaseException as error:
        told.put(Told(segment or FilmSegment(0, 0, 0), failure=_plain(error)))


def write_segment(
    performance: Performance,
    frames: Frames,
    order: FilmOrder,
    segment: FilmSegment,
    folder: Path,
    webm: bool,
    tell: Callable[[Told], None],
) -> None:
    """Writes the pictures of one segment, counted from its first. The file is in its place once it is complete."""
    unfinished = folder / f".{segment.number:03d}.{os.getpid()}"
    with av.open(str(unfinished), "w", format="mp4") as container:
        clips = shows_clips(performance, order, segment.first, segment.end)
        track = PictureTrack(container, order, webm, 1, segment.end - segment.first, clips)
        slide = 0
        for count, (number, frame_state, new) in enumerate(
            changing_frames(performance, order, segment.first, segment.end)
        ):
            slide = slide_of(frame_state)
            track.put(frames.frame(number - segment.first, frame_state, new))
            if count % TELL_EVERY == 0:
                tell(Told(segment, number - segment.first, slide=slide))
        track.put(None)
    unfinished.replace(picture_place(folder, segment))
    tell(Told(segment, segment.end - segment.first, True, slide))


def _make_sound(scene: FilmSource, folder: Path, webm: bool, told: Any) -> None:
    """The work of the sound's process: decodes, mixes, measures, masters and encodes everything."""
    _prepare()
    try:
        write_whole_sound(scene, folder, webm, lambda share: told.put(Told(None, share=share)))
        told.put(Told(None, whole=True, share=1.0))
    except BaseException as error:
        told.put(Told(None, failure=_plain(error)))


def write_whole_sound(scene: FilmSource, folder: Path, webm: bool, tell: Callable[[float], None] | None = None) -> None:
    """Writes the whole sound. The file is in its place once it is complete; decoded sounds lie in the folder meanwhile.
    `tell` gets the share that is done.
    """
    performance, unfinished, samples = (
        perform(scene.show),
        folder / f".sound.{os.getpid()}",
        folder / f".samples.{os.getpid()}",
    )
    for left in folder.glob(".samples.*"):
        # Whoever was killed at it may still be about for an instant: what is missing to it troubles nobody.
        shutil.rmtree(left, ignore_errors=True)
    samples.mkdir()
    write_sound(performance, decode_sounds(performance, scene.path, samples), unfinished, webm, tell=tell)
    shutil.rmtree(samples)
    unfinished.replace(sound_place(folder))
