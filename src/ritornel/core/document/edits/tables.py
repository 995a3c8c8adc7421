"""Edits of the columns of a table. Its rows are paragraphs, and text edits change them."""

from typing import Any

import msgspec
from msgspec import UNSET, UnsetType

from ritornel.core.document.cells import cells_of, columns_of, row_of
from ritornel.core.document.edits.draft import Draft, change_each, object_of, slide_of
from ritornel.core.document.objects import MOST_COLUMNS, ColumnWidth, Id, Object, Table, TableColumn, TextAlign, TextRun
from ritornel.core.document.show import Show
from ritornel.core.errors import BadValue


def _table_of(show: Show, slide_id: str, object_id: str) -> Table:
    """The table with this id. Raises BadValue for an object of another kind."""
    item = object_of(slide_of(show, slide_id), object_id)
    if not isinstance(item, Table):
        raise BadValue(f"“{item.name}” is no table: it has no columns.", "object_id")
    return item


def _checked(table: Table, at: int, last: int) -> None:
    """The column's index. Raises BadValue for a column that is not there."""
    if not 0 <= at <= last:
        raise BadValue(f"“{table.name}” has {last + 1} columns; there is none at {at + 1}.", "at")


class AddColumn(msgspec.Struct, frozen=True, tag_field="do", tag="add column"):
    """Adds an empty column of usual width before column `at`; `at` may be one past the last."""

    slide_id: Id
    object_id: Id
    at: int

    def draft(self, show: Show) -> Draft:
        table = _table_of(show, self.slide_id, self.object_id)
        columns = columns_of(table)
        _checked(table, self.at, len(columns))
        if len(columns) == MOST_COLUMNS:
            raise BadValue(f"“{table.name}” has {MOST_COLUMNS} columns, the most that a table may have.", "at")
        usual = sum(column.width for column in columns) / len(columns)
        fresh = (*columns[: self.at], TableColumn(min(max(usual, 0.05), 100.0)), *columns[self.at :])
        rows = []
        for row in table.paragraphs:
            cells = cells_of(row)
            cells = (*cells[: self.at], (TextRun(""),), *cells[self.at :]) if self.at < len(cells) else cells
            rows.append(row_of(row, cells))

        def widened(item: Object) -> Object:
            return msgspec.structs.replace(item, columns=fresh, paragraphs=tuple(rows))

        return change_each(show, self.slide_id, (self.object_id,), widened, "Add a column to {names}")


class RemoveColumn(msgspec.Struct, frozen=True, tag_field="do", tag="remove column"):
    """Removes column `at` with its words. The last remaining column cannot be removed."""

    slide_id: Id
    object_id: Id
    at: int

    def draft(self, show: Show) -> Draft:
        table = _table_of(show, self.slide_id, self.object_id)
        columns = columns_of(table)
        _checked(table, self.at, len(columns) - 1)
        if len(columns) == 1:
            raise BadValue(f"“{table.name}” has one column only; remove the table itself.", "at")
        rows = []
        for row in table.paragraphs:
            cells = cells_of(row)
            rows.append(row_of(row, (*cells[: self.at], *cells[self.at + 1 :])))

        def narrowed(item: Object) -> Object:
            kept = (*columns[: self.at], *columns[self.at + 1 :])
            return msgspec.structs.replace(item, columns=kept, paragraphs=tuple(rows))

        return change_each(show, self.slide_id, (self.object_id,), narrowed, "Remove a column of {names}")


class ChangeColumn(msgspec.Struct, frozen=True, tag_field="do", tag="change column"):
    """Changes the share of width of column `at`, or its alignment (None: as the table's)."""

    slide_id: Id
    object_id: Id
    at: int
    width: ColumnWidth | UnsetType = UNSET
    align: TextAlign | UnsetType | None = UNSET

    def draft(self, show: Show) -> Draft:
        table = _table_of(show, self.slide_id, self.object_id)
        columns = columns_of(table)
        _checked(table, self.at, len(columns) - 1)
        given: dict[str, Any] = {
            name: value for name in ("width", "align") if (value := getattr(self, name)) is not UNSET
        }
        changed = msgspec.structs.replace(columns[self.at], **given)
        fresh = (*columns[: self.at], changed, *columns[self.at + 1 :])

        def put(item: Object) -> Object:
            return msgspec.structs.replace(item, columns=fresh)

        return change_each(show, self.slide_id, (self.object_id,), put, "Change a column of {names}")
