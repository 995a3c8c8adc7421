"""The command line: `ritornel new`, `schedule`, `render` and `stills`."""

import argparse
import json
import os
import sys
import tempfile
import time
from collections.abc import Callable
from decimal import Decimal, InvalidOperation
from fractions import Fraction
from pathlib import Path
from typing import Any

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import DriftSlides, apply_edit
from ritornel.core.document.show import Show, Transition
from ritornel.core.errors import BadValue, RitornelError
from ritornel.core.formats.archive import read_archive, write_archive
from ritornel.core.formats.media import Limits
from ritornel.core.formats.pictures import show_from_pictures, with_voices
from ritornel.core.motion.catalogue import transition_named
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.process_pool import FilmSource
from ritornel.core.render.segmented_film import write_segmented_film
from ritornel.core.render.stills import write_stills
from ritornel.core.render.workload import Progress
from ritornel.core.schedule import compile_show, moment_at
from ritornel.core.schedule.clips import compile_clips
from ritornel.core.schedule.music import compile_music
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.voices import compile_voices
from ritornel.core.time.milliseconds import clock_text, parse_clock_ms, round_half_up

MOST_PROCESSES = 4
"""A film's segments are drawn by at most so many at a time."""


def _transition(text: str) -> Transition:
    name, _, length = text.partition(":")
    kind = transition_named(name)
    return Transition(name, parse_clock_ms(length) if length else kind.lasts_ms)


def _size(text: str) -> tuple[int, int]:
    width, _, height = text.lower().partition("x")
    if not (width.isdigit() and height.isdigit()):
        raise BadValue(f"“{text}” is not a size. Write width x height, such as 1280x720.", "size")
    return int(width), int(height)


def _rate(text: str) -> Fraction:
    try:
        return Fraction(Decimal(text)) if "/" not in text else Fraction(text)
    except (InvalidOperation, ValueError, ZeroDivisionError) as error:
        raise BadValue(
            f"“{text}” is not a frame rate. Write frames a second, such as 30 or 30000/1001.", "fps"
        ) from error


def _opened(path: Path, folder: Path) -> tuple[Show, dict[str, Path]]:
    """The show of an archive, its media unpacked into `folder`."""
    if not path.is_file():
        raise BadValue(f"There is no file “{path}”.", "archive")
    kept: dict[str, Path] = {}

    def keep(sha256: str, data: bytes) -> None:
        kept[sha256] = folder / sha256
        kept[sha256].write_bytes(data)

    with path.open("rb") as source:
        return read_archive(source, path.name, keep, Limits()), kept


def _bar(started: float) -> Callable[[Progress], None]:
    drawn = {"at": 0.0}

    def report(progress: Progress) -> None:
        now = time.monotonic()
        if now - drawn["at"] < 0.1 and progress.done < progress.total:
            return
        drawn["at"] = now
        share = progress.done / progress.total
        left = (now - started) / share * (1 - share) if share > 0.01 else 0
        filled = round(share * 30)
        sys.stderr.write(
            f"\r[{'#' * filled}{'.' * (30 - filled)}] {share:4.0%}  slide {progress.slide}  {left:4.0f} s left "
        )
        if progress.done == progress.total:
            sys.stderr.write("\n")
        sys.stderr.flush()

    return report


def _new(given: argparse.Namespace) -> None:
    if not given.pictures.is_dir():
        raise BadValue(f"There is no folder “{given.pictures}”.", "pictures")
    show, sources, refused = show_from_pictures(
        given.pictures,
        given.title or given.pictures.name,
        parse_clock_ms(given.each),
        _transition(given.transition),
        given.music,
        Limits(),
    )
    if given.drift:
        show = apply_edit(show, DriftSlides(tuple(slide.id for slide in show.slides), "in turn")).show
    if given.voices is not None:
        if not given.voices.is_dir():
            raise BadValue(f"There is no folder “{given.voices}”.", "voices")
        show, spoken, told = with_voices(show, given.voices, Limits())
        sources, refused = {**sources, **spoken}, refused + told
    for sentence in refused:
        print(f"Left out: {sentence}", file=sys.stderr)
    out: Path = given.output
    with tempfile.NamedTemporaryFile(dir=out.parent or Path(), delete=False) as handle:
        write_archive(show, handle, lambda sha256: sources[sha256])
    Path(handle.name).replace(out)
    length_ms = compile_show(show).length_ms
    print(f"{out}: {len(show.slides)} slides, {clock_text(length_ms)}")


def _schedule(given: argparse.Namespace) -> None:
    with tempfile.TemporaryDirectory() as folder:
        show, _ = _opened(given.archive, Path(folder))
    schedule = compile_show(show)
    voices = compile_voices(show, schedule)
    if given.at is not None:
        time_ms = parse_clock_ms(given.at)
        moment = moment_at(schedule, time_ms)
        slide_id = schedule.slides[moment.index].slide_id if moment.index >= 0 else None
        body: dict[str, Any] = {"at_ms": time_ms, "slide_id": slide_id, **to_builtins(moment)}
    else:
        sounds = {
            "music": to_builtins(compile_music(show, schedule, voices + compile_clips(show, schedule))[0]),
            "voices": to_builtins(voices),
        }
        body = {"mode": given.mode, "title": show.title, **to_builtins(schedule), **sounds}
        if given.mode == "live":
            # Live, a wait lasts until its cue: the times after it are told from the beat's own start.
            for slide in body["slides"]:
                for wait in [*(beat["wait"] for beat in slide["beats"]), slide["last_wait"]]:
                    if wait:
                        wait["hold_ms"], wait["source"] = None, "cue"
                for beat in slide["beats"]:
                    beat["lasts_ms"] = beat.pop("end_ms") - beat.pop("start_ms")
                if slide["goes_on_ms"] is None or len(slide["beats"]) > 1:
                    slide["length_ms"] = None
            for field in ("starts_ms", "content_ms", "length_ms", "music", "voices"):
                body.pop(field)
    print(json.dumps(body, ensure_ascii=False, indent=1))


def _render(given: argparse.Namespace) -> None:
    width, height = _size(given.size)
    order = FilmOrder(width, height, _rate(given.fps), given.constant)
    with tempfile.TemporaryDirectory() as folder:
        show, media = _opened(given.archive, Path(folder))
        started = time.monotonic()
        # In segments, as the web application makes it: the same show and order give the same bytes either way.
        source = FilmSource(show, order, {sha256: str(path) for sha256, path in media.items()})
        processes = min(os.cpu_count() or 1, MOST_PROCESSES)
        write_segmented_film(source, given.output, Path(folder) / "segments", _bar(started), processes)
    print(
        f"{given.output}: {clock_text(compile_show(show).length_ms)}, {given.output.stat().st_size / 1e6:.1f} MB"
        f" in {round_half_up(time.monotonic() - started)} s"
    )


def _stills(given: argparse.Namespace) -> None:
    width, height = _size(given.size)
    with tempfile.TemporaryDirectory() as folder:
        show, media = _opened(given.archive, Path(folder))
        written = write_stills(perform(show), given.output, width, height, lambda sha256: media[sha256])
    print(f"{given.output}: {len(written)} pictures")


def parser() -> argparse.ArgumentParser:
    """The command line's words."""
    top = argparse.ArgumentParser(
        prog="ritornel", description="Make, time and film self-running shows without the web application."
    )
    verbs = top.add_subparsers(required=True, metavar="VERB")
    new = verbs.add_parser(
        "new",
        help="make a show from a folder of pictures",
        description="One slide a picture, in the order of their names.",
    )
    new.add_argument("pictures", type=Path, metavar="PICTURES", help="a folder of PNG, JPEG, WebP or GIF pictures")
    new.add_argument(
        "--each", default="5", metavar="TIME", help="how long each slide lasts: 5, 2.5 or 1:12 (default 5)"
    )
    new.add_argument(
        "--transition",
        default="dissolve:1",
        metavar="NAME:TIME",
        help="cut, dissolve or push, and its length (default dissolve:1)",
    )
    new.add_argument(
        "--drift",
        action="store_true",
        help="let each picture drift slowly while it is shown, one closer, the next to the right ...",
    )
    new.add_argument(
        "--voices",
        type=Path,
        metavar="FOLDER",
        help="numbered sounds: 01 speaks on the first slide, which lasts as long as it does",
    )
    new.add_argument("--music", type=Path, metavar="FILE", help="a sound under the whole show, repeated as needed")
    new.add_argument("--title", help="the show's title (default: the folder's name)")
    new.add_argument(
        "-o", "--output", type=Path, required=True, metavar="FILE", help="the archive to write, such as album.ritornel"
    )
    new.set_defaults(act=_new)
    schedule = verbs.add_parser(
        "schedule", help="print what starts when, as JSON", description="Times in whole milliseconds."
    )
    schedule.add_argument("archive", type=Path)
    schedule.add_argument(
        "--mode",
        choices=("live", "self-running"),
        default="self-running",
        help="with holds, or with waits that last until a cue",
    )
    schedule.add_argument("--at", metavar="TIME", help="only where the self-running show is at this time")
    schedule.set_defaults(act=_schedule)
    render = verbs.add_parser(
        "render", help="make a film", description="MP4 with H.264 and AAC, or WebM with VP9 and Opus."
    )
    render.add_argument("archive", type=Path)
    render.add_argument("-o", "--output", type=Path, required=True, metavar="FILE", help="film.mp4 or film.webm")
    render.add_argument("--size", default="1280x720", help="width x height in px (default 1280x720)")
    render.add_argument("--fps", default="30", help="frames a second (default 30)")
    render.add_argument("--constant", action="store_true", help="write every frame, even where nothing moves")
    render.set_defaults(act=_render)
    stills = verbs.add_parser("stills", help="write a PNG for every beat")
    stills.add_argument("archive", type=Path)
    stills.add_argument("-o", "--output", type=Path, required=True, metavar="FOLDER")
    stills.add_argument("--size", default="1280x720", help="width x height in px (default 1280x720)")
    stills.set_defaults(act=_stills)
    return top


def main(arguments: list[str] | None = None) -> int:
    """Runs a command; 0 when done, 2 with one sentence on standard error when it could not be."""
    given = parser().parse_args(arguments)
    try:
        given.act(given)
    except (RitornelError, OSError) as error:
        print(f"ritornel: {error}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
