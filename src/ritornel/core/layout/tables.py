"""Tables: text in rows and columns, measured and drawn as marks.

A row is a paragraph, so rows build, carry and are found as paragraphs are. The background of a row and the line under
it belong to its part: they come and go with its text.
"""

from functools import lru_cache

import msgspec

from ritornel.core.document.cells import cells_of, columns_of
from ritornel.core.document.objects import Box, Paragraph, Table
from ritornel.core.layout.lines import BrokenText, break_text, fitting_size, line_count, move_part, text_of
from ritornel.core.layout.marks import Mark, PartDrawing, PathMark
from ritornel.core.layout.outlines import rectangle

INSET_X = 0.45
INSET_Y = 0.25
"""How far words keep from the edges of their cell, in sizes of their letters."""


def column_spans(table: Table) -> tuple[tuple[float, float], ...]:
    """The start and width of each column, in px: the columns share the box by their widths.

    >>> from ritornel.core.document.objects import TableColumn
    >>> table = Table("t", "Table", Box(0, 0, 600, 100), columns=(TableColumn(2.0), TableColumn(1.0)))
    >>> column_spans(table)
    ((0.0, 400.0), (400.0, 200.0))
    """
    columns = columns_of(table)
    whole = sum(column.width for column in columns)
    spans, x = [], 0.0
    for column in columns:
        width = table.box.width * column.width / whole
        spans.append((x, width))
        x += width
    return tuple(spans)


@lru_cache(maxsize=1000)
def set_table(table: Table) -> BrokenText:
    """The table's rows as drawings.

    A row is as high as its highest cell with its insets. Rows that need less than the box share the rest equally,
    unless the box *grows* with them. With `overflow` *shrink*, letters get smaller in steps of half a px until all rows
    fit the box or they are 4 px.
    """
    return _set_at(table, fitting_size(table, lambda size_px: _height_at(table, size_px)))


def _insets_px(table: Table, size: float) -> tuple[float, float]:
    """The distance of text from the edges of its cell, across and down."""
    return INSET_X * size, (INSET_Y + table.paragraph_gap / 2) * size


def _height_at(table: Table, size: float) -> float:
    """The height of all rows in letters of a size."""
    inset_x, inset_y = _insets_px(table, size)
    widths = [max(width - 2 * inset_x, size) for _, width in column_spans(table)]
    bold = msgspec.structs.replace(table, weight=700)
    height = 0.0
    for number, row in enumerate(table.paragraphs):
        look = bold if table.heading and number == 0 else table
        cells = zip(cells_of(row), widths, strict=False)
        lines = max(line_count(Paragraph(row.id, cell), look, size, width) for cell, width in cells)
        height += lines * size * table.line_spacing + 2 * inset_y
    return height


def _set_at(table: Table, size: float) -> BrokenText:
    spans, columns = column_spans(table), columns_of(table)
    inset_x, inset_y = _insets_px(table, size)
    rows: list[list[BrokenText]] = []
    for number, row in enumerate(table.paragraphs):
        headed = table.heading and number == 0
        made = []
        for cell, (_, width), column in zip(cells_of(row), spans, columns, strict=False):
            text = text_of(
                table,
                Box(0, 0, max(width - 2 * inset_x, size), 0),
                paragraphs=(Paragraph(row.id, cell),),
                size_px=size,
                weight=700 if headed else table.weight,
                align=column.align or table.align,
                stand="top",
                overflow="grow",
                paragraph_gap=0.0,
            )
            made.append(break_text(text))
        rows.append(made)
    heights = [max(cell.needs_height for cell in cells) + 2 * inset_y for cells in rows]
    needs = sum(heights)
    spare = 0.0 if table.overflow == "grow" or not rows else max(table.box.height - needs, 0.0) / len(rows)
    share = {"top": 0.0, "middle": 0.5, "bottom": 1.0}[table.stand]
    parts: list[PartDrawing] = []
    y = 0.0
    for number, (row, cells, least) in enumerate(zip(table.paragraphs, rows, heights, strict=True)):
        height = least + spare
        marks = _row_ground(table, number, y, height)
        for lines, (x, _) in zip(cells, spans, strict=False):
            down = y + inset_y + (height - 2 * inset_y - lines.needs_height) * share
            marks += [mark for part in lines.parts for mark in move_part(part, x + inset_x, down).marks]
        parts.append(PartDrawing(row.id, table.box.width / 2, y + height / 2, tuple(marks), height))
        y += height
    missing = {sign for cells in rows for cell in cells for sign in cell.missing}
    return BrokenText(tuple(parts), needs, size, tuple(sorted(missing)))


def _row_ground(table: Table, number: int, y: float, height: float) -> list[Mark]:
    """The marks behind a row: the background of a heading or of every second row, and the line under it."""
    headed = table.heading and number == 0
    fill = table.heading_fill if headed else table.band_fill if (number - table.heading) % 2 else None
    marks: list[Mark] = [PathMark(rectangle(0, y, table.box.width, height), fill)] if fill else []
    rule = table.stroke
    if rule is not None and rule.width_px and number < len(table.paragraphs) - 1:
        foot = y + height
        d = f"M 0 {foot:.3f} L {table.box.width:.3f} {foot:.3f}"
        marks.append(PathMark(d, None, rule.colour, rule.width_px, rule.dashes, rule.dash == "dotted"))
    return marks
