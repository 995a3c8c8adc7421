"""Long films in segments that are drawn in parallel and joined without encoding again.

Finished segments are kept: a film whose process was killed continues where it stopped.
"""

import shutil
from fractions import Fraction
from pathlib import Path

import msgspec

from ritornel.core.errors import RitornelError
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import Report, check_film, write_aside, write_film
from ritornel.core.render.frames import frame_state_of_frame
from ritornel.core.render.kept_segments import SegmentStore, segment_key, sound_key
from ritornel.core.render.muxing import join_film
from ritornel.core.render.poster import draw_poster
from ritornel.core.render.process_pool import Crew, FilmSegment, FilmSource, picture_place, sound_place
from ritornel.core.render.workload import FilmProgress, PictureWork, sound_work_ms
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.time.edges import frame_count

LEAST_S = 8
"""A segment is at least so long: each begins with a whole picture, which costs bytes."""
STILL_FRAMES = 6
"""So many frames that look alike make a still point: nobody sees that the picture after them is encoded afresh."""
MOST_SEGMENTS = 64
PLAN = "plan.json"


def segments_of(performance: Performance, order: FilmOrder) -> tuple[FilmSegment, ...]:
    """The film's frames divided at still points: where a slide or a beat begins after a rest of six frames, at least
    eight seconds apart.

    A show of three slides of 10 s that stand still at their ends has three segments.
    """
    schedule, total = performance.schedule, frame_count(performance.schedule.length_ms, order.rate)
    staged = zip(schedule.starts_ms, schedule.slides, strict=True)
    begins = sorted(
        {start + at_ms for start, slide in staged for at_ms in (0, *(beat.start_ms for beat in slide.beats))}
    )
    apart = max(round(LEAST_S * order.rate), total // MOST_SEGMENTS, 1)
    cuts = [0]
    for at_ms in begins:
        frame = -(-at_ms * order.rate // 1000)
        if frame - cuts[-1] < apart or total - frame < apart:
            continue
        before = frame_state_of_frame(performance, order, frame - 1)
        if all(frame_state_of_frame(performance, order, frame - back) == before for back in range(2, STILL_FRAMES + 1)):
            cuts.append(int(frame))
    return tuple(
        FilmSegment(number, first, end)
        for number, (first, end) in enumerate(zip(cuts, [*cuts[1:], total], strict=True))
    )


def write_segmented_film(
    scene: FilmSource,
    path: Path,
    folder: Path,
    report: Report | None = None,
    processes: int = 2,
    store: SegmentStore | None = None,
) -> None:
    """Writes a film as `write_film` does, in segments drawn by `processes` processes at a time.

    `folder` keeps finished segments until the film is complete or `report` cancels it; an interrupted film continues
    from there. Segments of an earlier film in the `store` are not made again. Raises what `write_film` raises.
    """
    performance, order = perform(scene.show), scene.order
    check_film(performance, path, order)
    segments = segments_of(performance, order)
    if len(segments) < 2:
        write_film(performance, path, order, scene.path, report)
        return
    plan = msgspec.json.encode([path.suffix, segments])
    if not (folder / PLAN).is_file() or (folder / PLAN).read_bytes() != plan:
        if folder.exists():
            # What lies there was meant for another film.
            shutil.rmtree(folder)
        folder.mkdir(parents=True)
        (folder / PLAN).write_bytes(plan)
    kept = _known(performance, order, segments, folder, path.suffix == ".webm") if store is not None else {}
    try:
        with write_aside(path) as unfinished:
            for place, key in kept.items():
                if store is not None and not place.is_file():
                    store.fetch(key, place)
            progress = _make_parts(scene, performance, segments, folder, path.suffix, report, processes)
            pictures = [(picture_place(folder, segment), Fraction(segment.first) / order.rate) for segment in segments]
            for place, key in kept.items():
                if store is not None:
                    store.keep(key, place)
            sound = sound_place(folder) if performance.sound_ids() else None
            poster = b"" if path.suffix == ".webm" else draw_poster(performance, order, scene.path)
            join_film(pictures, sound, unfinished, performance, order, poster)
    except RitornelError:
        # Nobody wants it any more, or it cannot be made: what was finished is of no use.
        shutil.rmtree(folder, ignore_errors=True)
        raise
    shutil.rmtree(folder, ignore_errors=True)
    if report is not None:
        report(progress.end(len(performance.slides)))


def _known(
    performance: Performance, order: FilmOrder, segments: tuple[FilmSegment, ...], folder: Path, webm: bool
) -> dict[Path, str]:
    """The place of each part once it is finished, with the key that it is stored under."""
    parts = {picture_place(folder, segment): segment_key(performance, order, webm, segment) for segment in segments}
    if performance.sound_ids():
        parts[sound_place(folder)] = sound_key(performance, webm)
    return parts


def _make_parts(
    scene: FilmSource,
    performance: Performance,
    segments: tuple[FilmSegment, ...],
    folder: Path,
    suffix: str,
    report: Report | None,
    processes: int,
) -> FilmProgress:
    open_ones = [segment for segment in segments if not picture_place(folder, segment).is_file()]
    silent = not performance.sound_ids() or sound_place(folder).is_file()
    work, sound_ms = PictureWork(performance, scene.order), sound_work_ms(performance)
    whole = [work.between(segment.first, segment.end) for segment in segments]
    done = [0.0 if segment in open_ones else work_ms for segment, work_ms in zip(segments, whole, strict=True)]
    heard, slide, left = float(silent), 0, len(open_ones) + (not silent)
    progress = FilmProgress(whole, sound_ms, (done, heard * sound_ms), processes)
    if not left:
        return progress
    crew = Crew(scene, folder, suffix == ".webm", open_ones, not silent, processes)
    try:
        while left:
            told = crew.next(0.1)
            if told is not None:
                if told.failure is not None:
                    raise told.failure
                left -= told.whole
                if told.segment is None:
                    heard = told.share
                else:
                    first, slide = told.segment.first, told.slide
                    done[told.segment.number] = work.between(first, first + told.frames)
            if report is not None:
                report(progress.at(done, heard * sound_ms, slide))
    finally:
        crew.stop()
    return progress
