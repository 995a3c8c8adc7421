"""Long films in segments that are drawn at the same time and joined without encoding anything again. What is finished is kept: a film whose maker was killed
goes on where it was.
"""

import contextlib
import ctypes
import heapq
import multiprocessing
import os
import queue
import shutil
import signal
import sys
import tempfile
import threading
from collections.abc import Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor, wait
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import msgspec

from ritornel.core.document.show import Show
from ritornel.core.errors import RitornelError
from ritornel.core.render.encoding import FilmOrder, SoundWriter, picture_stream
from ritornel.core.render.film import Progress, Report, check_film, moved_there, slide_of, write_film
from ritornel.core.render.frames import Frames, changing_frames, sight_of_frame
from ritornel.core.render.soundtrack import decoded_sounds
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.time.edges import frame_count

LEAST_S = 8
"""A segment is at least so long: each begins with a whole picture, which costs bytes."""
STILL_FRAMES = 6
"""So many frames that look alike make a still point: nobody sees that the picture after them is encoded afresh."""
MOST_SEGMENTS = 64
TELL_EVERY = 4
PLAN = "plan.json"


class Segment(msgspec.Struct, frozen=True):
    """Frames from `first` until before `end`."""

    number: int
    first: int
    end: int


class Scene(msgspec.Struct, frozen=True):
    """What a segment is drawn from: the show, the order, and where each medium lies."""

    show: Show
    order: FilmOrder
    media: Mapping[str, str]

    def path(self, sha256: str) -> Path:
        """Where the medium with this hash lies."""
        return Path(self.media[sha256])


def segments_of(performance: Performance, order: FilmOrder) -> tuple[Segment, ...]:
    """The film's frames parted at still points: where a slide or a beat begins after a rest of six frames, at least eight seconds apart.

    A show of three slides of 10 s that stand still at their ends has three segments.
    """
    schedule, total = performance.schedule, frame_count(performance.schedule.length_ms, order.rate)
    staged = zip(schedule.starts_ms, schedule.slides, strict=True)
    begins = sorted({start + at_ms for start, slide in staged for at_ms in (0, *(beat.start_ms for beat in slide.beats))})
    apart = max(round(LEAST_S * order.rate), total // MOST_SEGMENTS, 1)
    cuts = [0]
    for at_ms in begins:
        frame = -(-at_ms * order.rate // 1000)
        if frame - cuts[-1] < apart or total - frame < apart:
            continue
        before = sight_of_frame(performance, order, frame - 1)
        if all(sight_of_frame(performance, order, frame - back) == before for back in range(2, STILL_FRAMES + 1)):
            cuts.append(int(frame))
    return tuple(Segment(number, first, end) for number, (first, end) in enumerate(zip(cuts, [*cuts[1:], total], strict=True)))


def write_parted(scene: Scene, path: Path, folder: Path, report: Report | None = None, processes: int = 2) -> None:
    """Writes a film as `write_film` does, in segments drawn by `processes` processes at a time. `folder` keeps what is finished until the film is whole, or
    `report` says that nobody wants it; a film that was interrupted goes on from there.

    Raises what `write_film` raises.
    """
    performance, order = perform(scene.show), scene.order
    check_film(performance, path, order)
    segments = segments_of(performance, order)
    if len(segments) < 2 or processes < 2:
        write_film(performance, path, order, scene.path, report)
        return
    folder.mkdir(parents=True, exist_ok=True)
    plan = msgspec.json.encode([path.suffix, segments])
    if not (folder / PLAN).is_file() or (folder / PLAN).read_bytes() != plan:
        # What lies there was meant for another film.
        shutil.rmtree(folder)
        folder.mkdir()
        (folder / PLAN).write_bytes(plan)
    try:
        with moved_there(path) as unfinished:
            _make_parts(scene, performance, segments, folder, path.suffix, report, processes)
            _join(segments, folder, path.suffix, order, unfinished, bool(performance.sound_ids()))
    except RitornelError:
        # Nobody wants it any more, or it cannot be made: what was finished is of no use.
        shutil.rmtree(folder, ignore_errors=True)
        raise
    shutil.rmtree(folder, ignore_errors=True)
    total = frame_count(performance.schedule.length_ms, order.rate)
    if report is not None:
        report(Progress(total, total, len(performance.slides)))


def _place(folder: Path, segment: Segment) -> Path:
    return folder / f"{segment.number:03d}.mp4"


class _Crew:
    """The processes that draw segments, and what they tell."""

    def __init__(self, scene: Scene, folder: Path, webm: bool, segments: list[Segment], processes: int) -> None:
        # What they need is imported once, in a process they are forked from: its memory is shared.
        context = multiprocessing.get_context("forkserver")
        context.set_forkserver_preload([__name__])
        self._wanted: Any = context.SimpleQueue()
        self.told: Any = context.Queue()
        given = (scene, folder, webm, self._wanted, self.told)
        self.processes = [context.Process(target=_draw_segments, args=given, daemon=True) for _ in range(min(processes, len(segments)))]
        for process in self.processes:
            process.start()
        for segment in segments:
            self._wanted.put(segment)
        for _ in self.processes:
            self._wanted.put(None)

    def next(self, wait_s: float) -> tuple[Segment, int, int, BaseException | None] | None:
        """A segment, how many of its frames are done, which slide is drawn, and what went wrong; None where nothing was told in time. Raises RitornelError
        where a process is gone."""
        try:
            return self.told.get(timeout=wait_s)  # type: ignore[no-any-return]
        except queue.Empty:
            if any(process.exitcode not in (None, 0) for process in self.processes):
                raise RitornelError("The film could not be made: one of its makers stopped in the middle, perhaps for want of memory.") from None
            return None

    def stop(self) -> None:
        """Ends all of them, wherever they are."""
        for process in self.processes:
            process.kill()
            process.join()


def _make_parts(
    scene: Scene, performance: Performance, segments: tuple[Segment, ...], folder: Path, suffix: str, report: Report | None, processes: int
) -> None:
    total = segments[-1].end
    open_ones = [segment for segment in segments if not _place(folder, segment).is_file()]
    done = {segment.number: segment.end - segment.first for segment in segments if segment not in open_ones}
    given_up = threading.Event()
    with ThreadPoolExecutor(1, "film sound") as beside:
        crew = _Crew(scene, folder, suffix == ".webm", open_ones, processes) if open_ones else None
        sound = beside.submit(_write_sound, scene, performance, folder, suffix == ".webm", given_up)
        try:
            slide, left = 0, len(open_ones)
            while left or not sound.done():
                heard = crew.next(0.1) if crew is not None and left else None
                if heard is None and not left:
                    wait([sound], timeout=0.1)
                if heard is not None:
                    segment, frames, slide, failure = heard
                    if failure is not None:
                        raise failure
                    done[segment.number] = frames
                    left -= _place(folder, segment).is_file() and frames == segment.end - segment.first
                if sound.done():
                    sound.result()
                if report is not None:
                    report(Progress(min(sum(done.values()), total - 1), total, slide))
        finally:
            given_up.set()
            if crew is not None:
                crew.stop()
        sound.result()


def _draw_segments(scene: Scene, folder: Path, webm: bool, wanted: Any, told: Any) -> None:
    """What one process of the crew does: draws segments until there are no more."""
    if sys.platform == "linux":
        # Whoever began it may be killed; nobody would wait for what it draws (prctl PR_SET_PDEATHSIG).
        ctypes.CDLL(None).prctl(1, signal.SIGKILL)
    segment: Segment | None = None
    try:
        performance = perform(scene.show)
        frames = Frames(performance, scene.order, scene.path)
        while (segment := wanted.get()) is not None:
            write_segment(performance, frames, scene.order, segment, folder, webm, told.put)
    except BaseException as error:
        plain = error if isinstance(error, RitornelError | OSError) else RitornelError(f"The film could not be made ({type(error).__name__}: {error}).")
        told.put((segment or Segment(0, 0, 0), 0, 0, plain))


def write_segment(performance: Performance, frames: Frames, order: FilmOrder, segment: Segment, folder: Path, webm: bool, tell: Any) -> None:
    """Writes the pictures of one segment, counted from its first, and tells (segment, frames done, slide, None). It is in its place when it is whole."""
    unfinished = folder / f".{segment.number:03d}.{os.getpid()}"
    with av.open(str(unfinished), "w", format="mp4") as container:
        video = picture_stream(container, order, webm, 1)
        slide = 0
        for count, (number, sight, new) in enumerate(changing_frames(performance, order, segment.first, segment.end)):
            slide = slide_of(sight)
            container.mux(video.encode(frames.frame(number - segment.first, sight, new)))
            if count % TELL_EVERY == 0:
                tell((segment, number - segment.first, slide, None))
        container.mux(video.encode(None))
    unfinished.replace(_place(folder, segment))
    tell((segment, segment.end - segment.first, slide, None))


def _write_sound(scene: Scene, performance: Performance, folder: Path, webm: bool, given_up: threading.Event) -> None:
    """Writes the whole sound, where there is any and it is not there yet."""
    place, unfinished = folder / "sound.mp4", folder / ".sound"
    if not performance.sound_ids() or place.is_file():
        return
    with (
        tempfile.TemporaryDirectory(prefix="ritornel-") as decoded,
        ThreadPoolExecutor(1, "film loudness") as beside,
        av.open(str(unfinished), "w", format="mp4") as container,
    ):
        sound = SoundWriter(performance, decoded_sounds(performance, scene.path, Path(decoded)), container, webm, given_up)
        sound.measure(beside)
        sound.finish()
    unfinished.replace(place)


def _packets(parts: list[tuple[Path, Fraction]], kind: str, stream: Any) -> Iterator[tuple[Fraction, Any]]:
    """The packets of files one after another, each file moved to when it begins, with when each is decoded."""
    last: int | None = None
    for path, begins_s in parts:
        with av.open(str(path)) as source:
            wanted = getattr(source.streams, kind)[0]
            for packet in source.demux(wanted):
                if packet.pts is None or packet.dts is None:
                    continue
                shift = round(begins_s / packet.time_base)
                packet.pts, packet.dts = packet.pts + shift, packet.dts + shift
                # An encoder sets the first decoding times back by its reordering; they may not fall into the segment before.
                if last is not None and packet.dts <= last:
                    packet.dts = last + 1
                last = packet.dts
                packet.stream = stream
                yield packet.dts * packet.time_base, packet


def _join(segments: tuple[Segment, ...], folder: Path, suffix: str, order: FilmOrder, target: Path, heard: bool) -> None:
    """Joins what is finished into the film, packets as they are, in the order in which they are decoded."""
    pictures = [(_place(folder, segment), Fraction(segment.first) / order.rate) for segment in segments]
    with av.open(str(target), "w", format="webm" if suffix == ".webm" else "mp4") as out, contextlib.ExitStack() as opened:
        first = opened.enter_context(av.open(str(pictures[0][0])))
        merged = [_packets(pictures, "video", out.add_stream_from_template(first.streams.video[0]))]
        if heard:
            sound = opened.enter_context(av.open(str(folder / "sound.mp4")))
            merged.append(_packets([(folder / "sound.mp4", Fraction(0))], "audio", out.add_stream_from_template(sound.streams.audio[0])))
        for _, packet in heapq.merge(*merged, key=lambda entry: entry[0]):
            out.mux(packet)
