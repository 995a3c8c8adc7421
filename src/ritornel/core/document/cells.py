"""Cells of a table: a row is a paragraph, and tabs in its runs separate its cells."""

from collections.abc import Iterable

import msgspec

from ritornel.core.document.objects import Paragraph, Table, TableColumn, TextRun


def cells_of(row: Paragraph) -> tuple[tuple[TextRun, ...], ...]:
    """The cells of a row: its runs, split at each tab.

    >>> row = Paragraph("r", (TextRun("Bell\\t1784, "), TextRun("Orlmere", weight=700)))
    >>> [[run.text for run in cell] for cell in cells_of(row)]
    [['Bell'], ['1784, ', 'Orlmere']]
    """
    cells: list[list[TextRun]] = [[]]
    for run in row.runs:
        first, *others = run.text.split("\t")
        cells[-1].append(msgspec.structs.replace(run, text=first))
        cells.extend([msgspec.structs.replace(run, text=text)] for text in others)
    return tuple(tuple(cell) for cell in cells)


def row_of(row: Paragraph, cells: Iterable[tuple[TextRun, ...]]) -> Paragraph:
    """The row with other cells: a tab stands before each cell but the first."""
    runs: list[TextRun] = []
    for number, cell in enumerate(cells):
        first, *others = cell or (TextRun(""),)
        if number:
            first = msgspec.structs.replace(first, text=f"\t{first.text}")
        runs += [first, *others]
    kept = tuple(run for run in runs if run.text)
    return msgspec.structs.replace(row, runs=kept or (TextRun(""),))


def columns_of(table: Table) -> tuple[TableColumn, ...]:
    """The columns a table shows: its own, and one for each further cell of its longest row; at least one."""
    longest = max((len(cells_of(row)) for row in table.paragraphs), default=1)
    return table.columns + (TableColumn(),) * max(longest - len(table.columns), 0)
