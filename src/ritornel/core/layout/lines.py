"""Breaking paragraphs into lines (UAX #14, by ICU), in visual order (UAX #9), and placing the lines in a box."""

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Any

import msgspec
from icu4py.breakers import LineBreaker

from ritornel.core.document.objects import Box, Paragraph, PlacedObject, Stroke, Table, Text, TextHolder
from ritornel.core.layout.direction import CONTROLS, in_visual_order, levels_of
from ritornel.core.layout.faces import Face, find_missing, rise_of, shape_text, split_by_face
from ritornel.core.layout.marks import Mark, PartDrawing, PathMark, TextMark
from ritornel.core.layout.outlines import rectangle

SMALLEST_PX = 4.0
BULLETS = ("•", "–", "▪")
INDENT = 1.15
"""How far each level of a list is set in, in sizes of the letters."""


_PLACED = frozenset(PlacedObject.__struct_fields__)


class TextStretch(msgspec.Struct, frozen=True):
    """A stretch of a paragraph in one face and one look."""

    text: str
    face: Face
    colour: str | None
    underline: bool = False
    highlight: str | None = None
    link: str | None = None


class BrokenText(msgspec.Struct, frozen=True):
    """A text's paragraphs as drawings, the height of all lines, the size of its letters, and the characters missing
    from every font.
    """

    parts: tuple[PartDrawing, ...]
    needs_height: float
    size_px: float
    missing: tuple[str, ...]


@lru_cache(maxsize=20_000)
def break_units(text: str) -> tuple[str, ...]:
    """The stretches between which a line may break."""
    return tuple(LineBreaker(text, "en")) or (text,)


def _pieces(paragraph: Paragraph, item: Text) -> list[TextStretch]:
    result: list[TextStretch] = []
    for run in paragraph.runs:
        face = Face(item.family, run.weight or item.weight, item.italic if run.italic is None else run.italic)
        underline = item.underline if run.underline is None else run.underline
        colour = run.colour or item.colour
        for text, found in split_by_face(run.text.translate(CONTROLS), face):
            result.append(
                TextStretch(
                    text, found, colour, underline or run.link is not None, run.highlight or item.highlight, run.link
                )
            )
    return result


def _advances(pieces: list[TextStretch], size_px: float) -> list[float]:
    """The advance of each character; the advance of a ligature counts for its first character."""
    result: list[float] = []
    for piece in pieces:
        glyphs = shape_text(piece.text, piece.face, size_px)
        own = [0.0] * len(piece.text)
        for cluster, advance in zip(glyphs.clusters, glyphs.advances, strict=True):
            own[cluster] += advance
        result.extend(own)
    return result


def _line_spans(text: str, advances: list[float], width: float) -> list[tuple[int, int]]:
    """Half-open spans of characters, one a line, greedy.

    White space at a line's end hangs. A word wider than the box breaks anywhere, with at least one character a line.
    """
    spans: list[tuple[int, int]] = []
    start, at, used = 0, 0, 0.0
    limit = width + 0.01  # px: a text measured to just this width must not wrap for a rounding error
    for unit in break_units(text):
        bare = unit.rstrip()
        needs = sum(advances[at : at + len(bare)])
        if used + needs > limit and at > start:
            spans.append((start, at))
            start, used = at, 0.0
        if needs > limit:
            for index in range(at, at + len(bare)):
                if used + advances[index] > limit and index > start:
                    spans.append((start, index))
                    start, used = index, 0.0
                used += advances[index]
            used += sum(advances[at + len(bare) : at + len(unit)])
        else:
            used += sum(advances[at : at + len(unit)])
        at += len(unit)
    spans.append((start, len(text)))
    return spans


def _stretches(
    pieces: list[TextStretch], levels: tuple[int, ...], span: tuple[int, int]
) -> list[tuple[int, TextStretch]]:
    """The runs of a line, cut where the direction changes, each with its level, in reading order."""
    whole = "".join(piece.text for piece in pieces)
    visible_end = span[0] + len(whole[span[0] : span[1]].rstrip())
    result: list[tuple[int, TextStretch]] = []
    at = 0
    for piece in pieces:
        first, last = max(span[0], at), min(visible_end, at + len(piece.text))
        while first < last:
            end = first + 1
            while end < last and levels[end] == levels[first]:
                end += 1
            result.append((levels[first], msgspec.structs.replace(piece, text=whole[first:end])))
            first = end
        at += len(piece.text)
    return result


class _Letters(msgspec.Struct, frozen=True):
    """How letters on a line are drawn, apart from what each run says."""

    size_px: float
    outline: Stroke | None

    def mark(self, piece: TextStretch, x: float, baseline: float, advance: float, rtl: bool) -> TextMark:
        face = piece.face
        stroke, width = (self.outline.colour, self.outline.width_px) if self.outline else (None, 0.0)
        return TextMark(
            text=piece.text,
            family=face.family,
            weight=face.weight,
            italic=face.italic,
            size_px=self.size_px,
            colour=piece.colour,
            x=x,
            baseline=baseline,
            advance=advance,
            stroke=stroke,
            stroke_px=width,
            rtl=rtl,
            link=piece.link,
        )


def _line_marks(
    stretches: list[tuple[int, TextStretch]], letters: _Letters, baseline: float
) -> tuple[list[Mark], float]:
    """The marks of one line from x 0, highlights first and underlines last, and the line's width."""
    under, words, over = [], [], []
    x = 0.0
    size = letters.size_px
    for level, piece in in_visual_order([(level, (level, piece)) for level, piece in stretches]):
        rtl = level % 2 == 1
        advance = shape_text(piece.text, piece.face, size, rtl).advance
        if piece.highlight:
            rise = rise_of(piece.face)
            under.append(
                PathMark(
                    rectangle(x, baseline - rise.ascent * size, advance, (rise.ascent + rise.descent) * size),
                    piece.highlight,
                )
            )
        words.append(letters.mark(piece, x, baseline, advance, rtl))
        if piece.underline:
            ink = piece.colour or (letters.outline.colour if letters.outline else "#000000")
            over.append(PathMark(rectangle(x, baseline + size * 0.11, advance, max(size * 0.055, 0.75)), ink))
        x += advance
    return [*under, *words, *over], x


def move_part(part: PartDrawing, dx: float, dy: float) -> PartDrawing:
    """The drawing of a part, moved by an offset."""
    marks = tuple(_shift(mark, dx, dy) for mark in part.marks)
    return PartDrawing(part.part, part.pivot_x + dx, part.pivot_y + dy, marks, part.height)


def text_of(holder: TextHolder, box: Box, **fields: Any) -> Text:
    """The text of a shape or a cell as a text object in that box, with these fields changed."""
    look = {name: getattr(holder, name) for name in TextHolder.__struct_fields__ if name not in _PLACED}
    return Text("words", "Words", box, **(look | fields))


def _shift(mark: Mark, dx: float, dy: float) -> Mark:
    if isinstance(mark, TextMark):
        return msgspec.structs.replace(mark, x=mark.x + dx, baseline=mark.baseline + dy)
    assert isinstance(mark, PathMark)
    return msgspec.structs.replace(mark, d=move_outline(mark.d, dx, dy))


def move_outline(d: str, dx: float, dy: float) -> str:
    """An outline, moved by an offset."""
    words, result, axis = d.split(), [], 0
    for word in words:
        if word.isalpha():
            result.append(word)
            axis = 0
        else:
            result.append(f"{float(word) + (dy if axis else dx):.3f}".rstrip("0").rstrip("."))
            axis = 1 - axis
    return " ".join(result)


def _numbers(paragraphs: tuple[Paragraph, ...]) -> list[str]:
    """The sign or number before each paragraph; empty for a paragraph in no list.

    Numbers restart after a paragraph that is not numbered at their level, and continue past deeper levels.
    """
    counts = [0] * 6
    signs = []
    for paragraph in paragraphs:
        level = paragraph.level
        if paragraph.list == "none":
            counts = [0] * 6
            signs.append("")
            continue
        counts[level + 1 :] = [0] * (5 - level)
        if paragraph.list == "bullets":
            counts[level] = 0
            signs.append(BULLETS[level % len(BULLETS)])
            continue
        counts[level] += 1
        signs.append(_numeral(counts[level], level))
    return signs


def _numeral(number: int, level: int) -> str:
    """1. at the outer level, then a., then i., and again."""
    if level % 3 == 0:
        return f"{number}."
    if level % 3 == 1:
        text = ""
        while number:
            number, rest = divmod(number - 1, 26)
            text = chr(97 + rest) + text
        return f"{text}."
    text = ""
    for value, roman in (
        (100, "c"),
        (90, "xc"),
        (50, "l"),
        (40, "xl"),
        (10, "x"),
        (9, "ix"),
        (5, "v"),
        (4, "iv"),
        (1, "i"),
    ):
        while number >= value:
            text, number = text + roman, number - value
    return f"{text}."


@lru_cache(maxsize=4000)
def break_text(item: Text) -> BrokenText:
    """The text in lines.

    A line is `line_spacing` times the size high, its baseline where ascent and descent stand centred in it. With
    `overflow` *shrink*, letters get smaller in steps of half a px until all lines fit the box or they are 4 px; whether
    that is readable is checked elsewhere. A paragraph that reads from right to left is mirrored: `left` is then its
    right.
    """
    return _break_at(item, fitting_size(item, lambda size_px: height_at(item, size_px)))


def fitting_size(item: Text | Table, height: Callable[[float], float]) -> float:
    """The size of the letters: their own; or, where they *shrink* and are higher than their box, the largest at which
    they fit, in steps of half a px and at least 4 px. `height` gives the height of all lines at a size.
    """
    box_px = item.box.height + 0.01
    if item.overflow != "shrink" or height(item.size_px) <= box_px:
        return item.size_px
    low, high = math.floor(SMALLEST_PX * 2), math.floor(item.size_px * 2)
    while low < high:
        middle = (low + high + 1) // 2
        if height(middle / 2) <= box_px:
            low = middle
        else:
            high = middle - 1
    return low / 2


@lru_cache(maxsize=20_000)
def _unit_advances(
    paragraph: Paragraph, family: str, weight: int, italic: bool
) -> tuple[str, tuple[float, ...], float]:
    """A paragraph's words, the advance of each character in letters of 1 px, and their sum. Advances are proportional
    to the size: letters are not hinted to pixels.
    """
    pieces = _pieces(paragraph, Text("words", "Words", Box(0, 0, 0, 0), family=family, weight=weight, italic=italic))  # type: ignore[arg-type]
    advances = tuple(_advances(pieces, 1.0))
    return "".join(piece.text for piece in pieces), advances, sum(advances)


def line_count(paragraph: Paragraph, item: TextHolder, size_px: float, width_px: float) -> int:
    """How many lines a paragraph takes in letters of a size and a width, without shaping them again."""
    text, advances, whole = _unit_advances(paragraph, item.family, item.weight, item.italic)
    if whole * size_px <= width_px:
        return 1
    return len(_line_spans(text, [advance * size_px for advance in advances], width_px))


def height_at(item: Text, size_px: float) -> float:
    """The height of all lines of a text in letters of a size."""
    lines = 0
    for paragraph, sign in zip(item.paragraphs, _numbers(item.paragraphs), strict=True):
        indent = INDENT * size_px * (paragraph.level + bool(sign))
        lines += line_count(paragraph, item, size_px, max(item.box.width - indent, size_px))
    gaps = max(len(item.paragraphs) - 1, 0) * item.paragraph_gap
    return lines * size_px * item.line_spacing + gaps * size_px


def _break_at(item: Text, size: float) -> BrokenText:
    rise = rise_of(Face(item.family, item.weight, item.italic))
    line_px = size * item.line_spacing
    drop = (line_px - (rise.ascent + rise.descent) * size) / 2 + rise.ascent * size
    gap = item.paragraph_gap * size
    share = {"left": 0.0, "centre": 0.5, "right": 1.0}[item.align]
    letters = _Letters(size, item.outline)

    laid: list[tuple[Paragraph, float, list[Mark], float]] = []
    missing: set[str] = set()
    y = 0.0
    for number, (paragraph, sign) in enumerate(zip(item.paragraphs, _numbers(item.paragraphs), strict=True)):
        y += gap if number else 0.0
        top = y
        pieces = _pieces(paragraph, item)
        text = "".join(piece.text for piece in pieces)
        base, levels = levels_of(text)
        missing |= find_missing(paragraph.text, Face(item.family, item.weight, item.italic))
        indent = INDENT * size * (paragraph.level + bool(sign))
        width = max(item.box.width - indent, size)
        side = 1 - share if base else share
        marks: list[Mark] = []
        for at, span in enumerate(_line_spans(text, _advances(pieces, size), width)):
            line, used = _line_marks(_stretches(pieces, levels, span), letters, y + drop)
            shift = (width - used) * side + (0.0 if base else indent)
            marks.extend(_shift(mark, shift, 0) for mark in line)
            if at == 0 and sign:
                marks.extend(_sign_marks(sign, item, letters, y + drop, shift, used, bool(base), text == ""))
            y += line_px
        laid.append((paragraph, top, marks, y))
    offset = (0.5 if item.growing else {"top": 0.0, "middle": 0.5, "bottom": 1.0}[item.stand]) * (
        0 if item.overflow == "grow" else item.box.height - y
    )
    parts = tuple(
        PartDrawing(
            paragraph.id,
            item.box.width / 2,
            offset + (top + end) / 2,
            tuple(_shift(mark, 0, offset) for mark in marks) if offset else tuple(marks),
            end - top,
        )
        for paragraph, top, marks, end in laid
    )
    return BrokenText(parts, y, size, tuple(sorted(missing)))


def _sign_marks(
    sign: str, item: Text, letters: _Letters, baseline: float, shift: float, used: float, rtl: bool, empty: bool
) -> list[Mark]:
    """The list's sign in front of a first line; an empty line has none."""
    if empty:
        return []
    face = Face(item.family, item.weight, item.italic)
    marks: list[Mark] = []
    x = 0.0
    for text, found in split_by_face(sign, face):
        advance = shape_text(text, found, letters.size_px).advance
        marks.append(letters.mark(TextStretch(text, found, item.colour), x, baseline, advance, False))
        x += advance
    start = (
        shift + used + letters.size_px * 0.35
        if rtl
        else shift - max(INDENT * letters.size_px, x + letters.size_px * 0.3)
    )
    return [_shift(mark, start, 0) for mark in marks]
