"""A show as a PDF: a slide a page, a beat a page, or each slide with its notes below on paper.

Letters and shapes stay sharp at any size.
"""

from collections.abc import Iterator
from pathlib import Path
from typing import Literal

import msgspec
import skia

from ritornel.core.document.objects import Box, Paragraph, Text, TextRun
from ritornel.core.errors import BadValue
from ritornel.core.layout.lines import break_text
from ritornel.core.layout.marks import TextMark
from ritornel.core.render.film import Report
from ritornel.core.render.painter import MediaPath, Painter, paint_text
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import Performance, StagedSlide, frame_state_at_rest

Kind = Literal["slides", "beats", "notes"]
LONG_SIDE_PT = 960.0
"""How long a page's longer side is, where a page is a slide: 1280 × 720 px are 960 × 540 pt, 13.3 × 7.5 inches."""
PAPER_PT = (595.0, 842.0)
MARGIN_PT = 42.0
NOTES_PT = 12.0
SHARPNESS = 2
"""Pictures and what has no outline are kept at so many pixels a point."""


JPEG_PCT = 90
"""Pictures without transparency are kept as JPEG of this quality."""


class _Page(msgspec.Struct, frozen=True):
    """A page: a slide at the end of a beat, and the lines of notes below it. A page without a slide continues the
    notes.
    """

    index: int
    beat: int | None
    notes: tuple[TextMark, ...] = ()
    notes_top_pt: float = 0.0


def page_size(performance: Performance, kind: Kind) -> tuple[float, float]:
    """The size of a page in pt, a seventy-second of an inch each."""
    if kind == "notes":
        return PAPER_PT
    frame = performance.frame
    scale = LONG_SIDE_PT / max(frame.width_px, frame.height_px)
    return frame.width_px * scale, frame.height_px * scale


def _slide_height_pt(performance: Performance) -> float:
    """The height of a slide above its notes: as wide as the paper allows, at most half as high."""
    frame = performance.frame
    wide = (PAPER_PT[0] - 2 * MARGIN_PT) * frame.height_px / frame.width_px
    return min(wide, PAPER_PT[1] / 2 - MARGIN_PT)


def _note_lines(staged: StagedSlide) -> tuple[TextMark, ...]:
    """The slide's name and notes in lines, with their places from the top of the notes."""
    lines = [line for line in staged.slide.notes.splitlines() if line.strip()]
    title = Paragraph("name", (TextRun(staged.slide.name or "Untitled", weight=600),))
    paragraphs = (title, *(Paragraph(f"n{number}", (TextRun(line),)) for number, line in enumerate(lines)))
    box = Box(0, 0, PAPER_PT[0] - 2 * MARGIN_PT, 1)
    look = {"size_px": NOTES_PT, "colour": "#16262e", "family": "Spectral", "line_spacing": 1.4, "paragraph_gap": 0.4}
    text = Text("notes", "Notes", box, paragraphs=paragraphs, overflow="grow", **look)  # type: ignore[arg-type]
    return tuple(mark for part in break_text(text).parts for mark in part.marks if isinstance(mark, TextMark))


def _with_notes(performance: Performance, index: int) -> Iterator[_Page]:
    """The slide with as many lines as fit below it, and pages with the rest."""
    staged = performance.slides[index]
    left = list(_note_lines(staged))
    beat: int | None = len(staged.schedule.beats) - 1
    top = MARGIN_PT + _slide_height_pt(performance) + 18
    while left or beat is not None:
        room = PAPER_PT[1] - MARGIN_PT - top
        first = left[0].baseline - NOTES_PT * 1.4 if left and beat is None else 0.0
        fits = [mark for mark in left if mark.baseline - first <= room]
        left = left[len(fits) :]
        yield _Page(
            index, beat, tuple(msgspec.structs.replace(mark, baseline=mark.baseline - first) for mark in fits), top
        )
        beat, top = None, MARGIN_PT


def _pages(performance: Performance, kind: Kind) -> list[_Page]:
    if kind == "notes":
        return [page for index in range(len(performance.slides)) for page in _with_notes(performance, index)]
    beats = [range(len(staged.schedule.beats)) for staged in performance.slides]
    return [
        _Page(index, beat)
        for index, numbers in enumerate(beats)
        for beat in (numbers if kind == "beats" else numbers[-1:])
    ]


def write_pdf(performance: Performance, path: Path, kind: Kind, media: MediaPath, report: Report | None = None) -> int:
    """Writes the PDF and returns its number of pages.

    It is written beside `path` and moved there when complete. Raises BadValue for a show without slides or an unknown
    kind, BadMedia for missing media, and every error of `report`.
    """
    if kind not in ("slides", "beats", "notes"):
        raise BadValue(f"A PDF has slides, beats or notes, not “{kind}”.", "kind")
    if not performance.slides:
        raise BadValue(f"“{performance.title}” has no slides to print.", "show")
    unfinished = path.with_name(f".{path.stem}.unfinished{path.suffix}")
    pages = _pages(performance, kind)
    try:
        stream = skia.FILEWStream(str(unfinished))
        about = skia.PDF.Metadata()
        about.fTitle, about.fCreator, about.fRasterDPI, about.fEncodingQuality = (
            performance.title,
            "Ritornel",
            72 * SHARPNESS,
            JPEG_PCT,
        )
        document = skia.PDF.MakeDocument(stream, about)
        width, height = page_size(performance, kind)
        painter = Painter(performance, performance.frame.width_px, performance.frame.height_px, media)
        for number, page in enumerate(pages):
            if report is not None:
                report(Progress(number, len(pages), page.index + 1))
            canvas = document.beginPage(width, height)
            _draw(canvas, painter, page, kind)
            document.endPage()
        document.close()
        stream.flush()
        del document, stream
        unfinished.replace(path)
    finally:
        unfinished.unlink(missing_ok=True)
    if report is not None:
        report(Progress(len(pages), len(pages), len(performance.slides)))
    return len(pages)


def _draw(canvas: skia.Canvas, painter: Painter, page: _Page, kind: Kind) -> None:
    performance = painter.performance
    width, height = page_size(performance, kind)
    frame = performance.frame
    canvas.save()
    if kind == "notes":
        canvas.clear(skia.ColorWHITE)
        high = _slide_height_pt(performance)
        wide = high * frame.width_px / frame.height_px
        left, top = (width - wide) / 2, MARGIN_PT
    else:
        left, top, wide, high = 0.0, 0.0, width, height
    if page.beat is not None:
        canvas.clipRect(skia.Rect.MakeXYWH(left, top, wide, high))
        canvas.translate(left, top)
        canvas.scale(wide / frame.width_px, wide / frame.width_px)
        painter.paint(canvas, frame_state_at_rest(performance, page.index, page.beat))
    canvas.restore()
    if kind != "notes":
        return
    if page.beat is not None:
        canvas.drawRect(
            skia.Rect.MakeXYWH(left, top, wide, high),
            skia.Paint(Style=skia.Paint.kStroke_Style, StrokeWidth=0.5, Color=0xFF9FB0A9),
        )
    canvas.save()
    canvas.translate(MARGIN_PT, page.notes_top_pt)
    for mark in page.notes:
        paint_text(canvas, mark)
    canvas.restore()
