"""Tables of a page, written and read: rows and columns, the heading, backgrounds and the lines between rows."""

from collections.abc import Callable, Iterator
from typing import Any
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.document.cells import cells_of, columns_of
from ritornel.core.document.objects import MOST_COLUMNS, Paragraph, Plain, Stroke, Table, TableColumn
from ritornel.core.formats.opendocument.fills import fill_of
from ritornel.core.formats.opendocument.names import attribute_of, children_of, colour, full, length_px, points
from ritornel.core.formats.opendocument.read_text import ALIGN, ReadParagraph, StyledText, Words
from ritornel.core.formats.opendocument.styles import Properties, StyleProperties, Styles
from ritornel.core.formats.opendocument.written_styles import Dress, el, ink, letters, paragraphs
from ritornel.core.layout.tables import INSET_X, INSET_Y, column_spans, set_table

MOST_ROWS = 200
"""How many rows of a table are read."""

WriteLine = Callable[[Paragraph, str], Element]
"""Writes a paragraph in a style of paragraphs."""


def write_table(item: Table, dress: Dress, write_line: WriteLine) -> Element:
    """The table of a frame, in letters of the drawn size, since a table there cannot shrink them.

    The id of a row that timing names stands on the text of its first cell.
    """
    item = msgspec.structs.replace(item, size_px=set_table(item).size_px)
    columns = [
        el(
            "table:table-column",
            {"table:style-name": dress.style("table-column", {"table-column": {"style:column-width": points(width)}})},
        )
        for _, width in column_spans(item)
    ]
    rows = [_row(item, number, row, dress, write_line) for number, row in enumerate(item.paragraphs)]
    headed = [el("table:table-header-rows", {}, rows.pop(0))] if item.heading and rows else []
    named = {"table:use-first-row-styles": "true"} if headed else {}
    return el("table:table", named, *columns, *headed, *rows)


def _row(item: Table, number: int, row: Paragraph, dress: Dress, write_line: WriteLine) -> Element:
    headed = item.heading and number == 0
    fill = item.heading_fill if headed else item.band_fill if (number - item.heading) % 2 else None
    last = number == len(item.paragraphs) - 1
    rule = _border(item.stroke) if item.stroke and not last else "none"
    look = {
        "graphic": {
            **dress.fill(Plain(fill) if fill else None),
            "draw:textarea-vertical-align": item.stand,
            "fo:padding-left": points(INSET_X * item.size_px),
            "fo:padding-right": points(INSET_X * item.size_px),
            "fo:padding-top": points(INSET_Y * item.size_px),
            "fo:padding-bottom": points(INSET_Y * item.size_px),
        },
        "paragraph": {"fo:border": "none", "fo:border-bottom": rule},
    }
    style = dress.style("table-cell", look)
    words = msgspec.structs.replace(item, weight=700) if headed else item
    cells = cells_of(row)
    made = []
    for at, column in enumerate(columns_of(item)):
        aligned = msgspec.structs.replace(words, align=column.align or item.align, paragraph_gap=0.0)
        lines = dress.style("paragraph", {"paragraph": paragraphs(aligned), "text": letters(aligned)})
        # An id stands once: on the first cell.
        cell = Paragraph(row.id if at == 0 else "-", cells[at] if at < len(cells) else ())
        made.append(el("table:table-cell", {"table:style-name": style}, write_line(cell, lines)))
    return el("table:table-row", {}, *made)


def _border(stroke: Stroke) -> str:
    return f"{points(stroke.width_px)} {stroke.dash} {ink(stroke.colour)[0]}"


def _border_of(look: Properties, scale: float) -> Stroke | None:
    """The line under a row: `1.5pt solid #c9bfa5`; None for a line that is invisible or cannot be read."""
    words = (look.get("fo:border-bottom") or look.get("fo:border", "")).split()
    if len(words) != 3 or words[1] in ("none", "hidden"):
        return None
    width_px, found = length_px(words[0]), colour(words[2])
    if not width_px or found is None:
        return None
    return Stroke(found, round(width_px * scale, 2), words[1] if words[1] in ("dashed", "dotted") else "solid")  # type: ignore[arg-type]


class ReadTable(msgspec.Struct, frozen=True):
    """A table that was read: its rows as lines with tabs between cells, and the table's own fields."""

    rows: list[ReadParagraph]
    fields: dict[str, Any]


def read_table(table: Element, styles: Styles, on_master: bool, scale: float, lost: set[str]) -> ReadTable:
    """The rows and columns of a table, up to the most that are read; a loss says what is over."""
    rows: list[ReadParagraph] = []
    aligns: list[tuple[str, ...]] = []
    fills: list[str | None] = []
    rule: Stroke | None = None
    stand = "top"
    for row in table.iter(full("table:table-row")):
        if len(rows) == MOST_ROWS:
            lost.add(f"rows of a table after the first {MOST_ROWS}")
            break
        cells = list(_cells(row, lost))
        looks = [
            styles.look(
                "table-cell",
                attribute_of(cell, "table:style-name") or attribute_of(row, "table:default-cell-style-name"),
            )
            for cell in cells
        ]
        read = [_lines(cell, look, styles, on_master, lost) for cell, look in zip(cells, looks, strict=True)]
        rows.append(_join_cells(read))
        aligns.append(tuple(lines[0].paragraph.get("fo:text-align", "") if lines else "" for lines in read))
        fill = fill_of(looks[0].graphic, styles, lost) if looks else None
        fills.append(fill.colour if isinstance(fill, Plain) else None)
        if looks and rule is None:
            rule = _border_of(looks[0].paragraph, scale)
            stand = looks[0].graphic.get("draw:textarea-vertical-align", "top")
    headed = (
        table.find(full("table:table-header-rows")) is not None
        or attribute_of(table, "table:use-first-row-styles") == "true"
    )
    if headed and rows:
        rows[0] = _unbold(rows[0])
    body = fills[1:] if headed else fills
    widths = list(_widths(table, styles))[:MOST_COLUMNS]
    most = max((len(entry) for entry in aligns), default=1)
    body_aligns = aligns[-1] if aligns else ()
    columns = tuple(
        TableColumn(
            widths[at] if len(widths) >= most else 1.0,
            ALIGN.get(body_aligns[at], "left") if at < len(body_aligns) and body_aligns[at] else None,  # type: ignore[arg-type]
        )
        for at in range(most)
    )
    fields = {
        "columns": columns,
        "heading": headed,
        "heading_fill": fills[0] if headed and fills else None,
        "band_fill": body[1] if len(body) > 1 else None,
        "stroke": rule,
        "stand": stand if stand in ("middle", "bottom") else "top",
    }
    return ReadTable(rows, fields)


def _cells(row: Element, lost: set[str]) -> Iterator[Element]:
    count = 0
    for cell in children_of(row, "table:table-cell", "table:covered-table-cell"):
        if any(attribute_of(cell, f"table:number-{way}-spanned") not in ("", "1") for way in ("columns", "rows")):
            lost.add("cells of a table that reach over others")
        repeated = attribute_of(cell, "table:number-columns-repeated")
        for _ in range(min(int(repeated), MOST_COLUMNS) if repeated.isdecimal() else 1):
            count += 1
            if count > MOST_COLUMNS:
                lost.add(f"columns of a table after the first {MOST_COLUMNS}")
                return
            yield cell


def _lines(
    cell: Element, look: StyleProperties, styles: Styles, on_master: bool, lost: set[str]
) -> list[ReadParagraph]:
    return Words(styles, on_master, lambda level: look, lost).lines(cell)


def _join_cells(cells: list[list[ReadParagraph]]) -> ReadParagraph:
    """The cells of a row as one line; lines within a cell are joined by a space.

    A tab has the look of what is before it, so that a row in one look is one run.
    """
    pieces: list[StyledText] = []
    ids: list[str] = []
    parting = ""
    for number, lines in enumerate(cells):
        parting += "\t" if number else ""
        for at, line in enumerate(lines):
            parting += " " if at and line.characters else ""
            ids += line.ids
            for piece in line.pieces:
                text = piece.text.replace("\t", " ")
                if pieces and parting:
                    pieces[-1] = msgspec.structs.replace(pieces[-1], text=pieces[-1].text + parting)
                    parting = ""
                pieces.append(msgspec.structs.replace(piece, text=parting + text))
                parting = ""
    if parting:
        last = pieces.pop() if pieces else StyledText("", {})
        pieces.append(msgspec.structs.replace(last, text=last.text + parting))
    properties = next((line.paragraph for lines in cells for line in lines), {})
    return ReadParagraph(tuple(pieces), "none", 0, properties, tuple(ids))


def _unbold(row: ReadParagraph) -> ReadParagraph:
    """A heading without the weight that every heading has."""
    looks = [{key: value for key, value in piece.look.items() if key != "fo:font-weight"} for piece in row.pieces]
    pieces = (msgspec.structs.replace(piece, look=look) for piece, look in zip(row.pieces, looks, strict=True))
    return msgspec.structs.replace(row, pieces=tuple(pieces))


def _widths(table: Element, styles: Styles) -> Iterator[float]:
    """The width of each column, the widest counted as 1, to a hundredth; nothing where one is unknown."""
    found: list[float] = []
    for column in table.iter(full("table:table-column")):
        style = styles.style("table-column", attribute_of(column, "table:style-name"))
        properties = style.find(full("style:table-column-properties")) if style is not None else None
        width = length_px(attribute_of(properties, "style:column-width")) if properties is not None else None
        if not width:
            return
        repeated = attribute_of(column, "table:number-columns-repeated")
        found += [width] * (min(int(repeated), MOST_COLUMNS) if repeated.isdecimal() else 1)
    widest = max(found, default=1.0)
    yield from (max(round(width / widest, 2), 0.05) for width in found)
