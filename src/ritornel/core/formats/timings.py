"""Timings as a table (CSV, RFC 4180): a line for each slide with its length, and one for each of its waits with its
hold, in seconds.
"""

import csv
import io
import re

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeBuild, ChangeSlides, Edit, Several
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, OnCue, Show, Slide
from ritornel.core.errors import BadMedia
from ritornel.core.formats.export import Export
from ritornel.core.schedule.show_schedule import ShowSchedule, compile_show
from ritornel.core.time.milliseconds import LONGEST_MS, round_half_up

COLUMNS = ("slide", "name", "wait", "starts_s", "length_s", "hold_s")
LEAVES = "leaves"
"""In the column of waits: the one before the cue that leaves the slide."""
_NUMBER = re.compile(r"[0-9]{1,6}(\.[0-9]{1,6})?")
_WHOLE = re.compile(r"[0-9]{1,6}")


class TimingLine(msgspec.Struct, frozen=True):
    """A line of the table: a slide (`wait` empty) or one of its waits."""

    slide_id: str
    number: int
    name: str
    wait: str
    starts_ms: int
    length_ms: int
    hold_ms: int | None = None


def timing_lines(show: Show, schedule: ShowSchedule) -> tuple[TimingLine, ...]:
    """The table of a show; skipped slides have no time."""
    numbers = show.numbers
    names = {slide.id: slide.name for slide in show.slides}
    found: list[TimingLine] = []
    for times, start in zip(schedule.slides, schedule.starts_ms, strict=True):
        about = (times.slide_id, numbers[times.slide_id], names[times.slide_id])
        found.append(TimingLine(*about, "", start, times.length_ms))
        waits = [(str(number), beat.wait) for number, beat in enumerate(times.beats[1:], 1)] + [
            (LEAVES, times.last_wait)
        ]
        found += [TimingLine(*about, name, start + wait.start_ms, 0, wait.hold_ms) for name, wait in waits if wait]
    return tuple(found)


def write_timings(lines: tuple[TimingLine, ...]) -> str:
    """The table; a slide's length stands on the slide's line, a hold on its wait's line."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for line in lines:
        if line.wait:
            writer.writerow(
                (line.number, line.name, line.wait, _seconds(line.starts_ms), "", _seconds(line.hold_ms or 0))
            )
        else:
            writer.writerow((line.number, line.name, "", _seconds(line.starts_ms), _seconds(line.length_ms), ""))
    return out.getvalue()


def _seconds(ms: int) -> str:
    return f"{ms // 1000}.{ms % 1000:03d}"


def _rows(data: bytes, name: str) -> list[dict[str, str]]:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    first = text.split("\n", 1)[0]
    sign = max(",;\t", key=first.count)
    reader = csv.DictReader(io.StringIO(text, newline=""), delimiter=sign)
    named = {(title or "").strip().lower() for title in reader.fieldnames or ()}
    if not {"slide", "length_s"} <= named and not {"slide", "wait", "hold_s"} <= named:
        raise BadMedia(
            f"“{name}” is no table of timings: its first line has to name the columns "
            f"{', '.join(COLUMNS)}. Nothing was changed."
        )
    comma = sign != ","
    rows = []
    for row in reader:
        clean = {
            (title or "").strip().lower(): (value or "").strip()
            for title, value in row.items()
            if isinstance(value, str) or value is None
        }
        # Where values are not parted by commas, a comma is a decimal one.
        rows.append(
            {
                title: value.replace(",", ".") if comma and title.endswith("_s") else value
                for title, value in clean.items()
            }
        )
    return rows


def _ms(value: str, column: str, line: int, name: str) -> int:
    if not _NUMBER.fullmatch(value) or round_half_up(float(value) * 1000) > LONGEST_MS:
        raise BadMedia(
            f"“{name}”, line {line}: “{value}” in the column {column} is no time in seconds, such as "
            "12.5. Nothing was changed."
        )
    return round_half_up(float(value) * 1000)


def read_timings(show: Show, data: bytes, name: str) -> tuple[Edit, tuple[str, ...]]:
    """The edit that gives slides that advance by themselves their length and waits their hold, and sentences for what
    did not fit. Slides are found by number, or by name where the slide at that number has another name. Raises BadMedia
    with the line that cannot be read.
    """
    edits: list[Edit] = []
    told: list[str] = []
    shown = show.shown
    names = {slide.name: slide for slide in show.slides if slide.name}
    for line, row in enumerate(_rows(data, name), 2):
        if not any(row.values()):
            continue
        number = row.get("slide", "")
        if not _WHOLE.fullmatch(number):
            raise BadMedia(f"“{name}”, line {line}: “{number}” is no number of a slide. Nothing was changed.")
        slide = shown[int(number) - 1] if 1 <= int(number) <= len(shown) else None
        if row.get("name") and (slide is None or slide.name != row["name"]):
            slide = names.get(row["name"], slide)
        if slide is None:
            told.append(f"Line {line}: there is no slide {number}.")
            continue
        wait = row.get("wait", "").lower()
        value = row.get("hold_s" if wait else "length_s", "")
        if not value:
            continue
        ms = _ms(value, "hold_s" if wait else "length_s", line, name)
        edit = _hold(slide, wait, ms) if wait else _length(slide, ms)
        if isinstance(edit, str):
            told.append(f"Line {line}: {edit}")
        elif edit is not None:
            edits.append(edit)
    return Several(f"Timings from {name}"[:200], tuple(edits)), tuple(told)


def _length(slide: Slide, ms: int) -> Edit | None:
    if not isinstance(slide.advance, AdvanceAfter):
        return None  # its length follows from its waits or its voice
    return ChangeSlides((slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=ms))})


def _hold(slide: Slide, wait: str, ms: int) -> Edit | str:
    called = f"“{slide.name or slide.id}”"
    if wait == LEAVES:
        if not isinstance(slide.advance, AdvanceOnCue):
            return f"{called} is not left on a cue."
        return ChangeSlides((slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, hold_ms=ms))})
    openers = [build for build in slide.order if isinstance(build.starts, OnCue)]
    if not _WHOLE.fullmatch(wait) or not 1 <= int(wait) <= len(openers):
        return f"{called} has no wait {wait}."
    build = openers[int(wait) - 1]
    assert isinstance(build.starts, OnCue)
    return ChangeBuild(slide.id, build.id, {"starts": to_builtins(msgspec.structs.replace(build.starts, hold_ms=ms))})


EXPORTS = (
    Export(
        address="timings.csv",
        ending="-timings.csv",
        content_type="text/csv",
        words="Timings",
        about="Lengths and holds as a table (CSV)",
        write=lambda show: write_timings(timing_lines(show, compile_show(show))),
        place=2,
    ),
)
