"""Edits of the named marks on the score."""

import msgspec

from ritornel.core.document.changes import PutMarks
from ritornel.core.document.edits.draft import Draft, slide_of
from ritornel.core.document.objects import Id
from ritornel.core.document.show import NamedMark, Show
from ritornel.core.errors import BadValue, UnknownName


class PutMark(msgspec.Struct, frozen=True, tag_field="do", tag="put mark"):
    """Adds a mark, or replaces the mark with the same id."""

    mark: NamedMark

    def draft(self, show: Show) -> Draft:
        slide_of(show, self.mark.slide_id)
        if not self.mark.name.strip():
            raise BadValue("A mark needs a name.", "mark.name")
        known = any(mark.id == self.mark.id for mark in show.marks)
        fresh = (
            tuple(self.mark if mark.id == self.mark.id else mark for mark in show.marks)
            if known
            else (*show.marks, self.mark)
        )
        return Draft((PutMarks(fresh),), f"{'Change' if known else 'Set'} the mark {self.mark.name}")


class RemoveMark(msgspec.Struct, frozen=True, tag_field="do", tag="remove mark"):
    mark_id: Id

    def draft(self, show: Show) -> Draft:
        gone = next((mark for mark in show.marks if mark.id == self.mark_id), None)
        if gone is None:
            raise UnknownName(f"The mark “{self.mark_id}” is not on the score any more. Nothing was changed.")
        return Draft(
            (PutMarks(tuple(mark for mark in show.marks if mark is not gone)),), f"Remove the mark {gone.name}"
        )
