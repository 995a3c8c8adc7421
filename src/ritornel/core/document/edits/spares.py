"""Edits of spares: objects that a slide's layout has no place for."""

import msgspec

from ritornel.core.document.edits.draft import Draft, check_named, put, slide_of
from ritornel.core.document.layouts import bring_back
from ritornel.core.document.objects import GoToSlide, Id, PlayClip
from ritornel.core.document.show import Show, Slide, Spare
from ritornel.core.errors import UnknownName


def _spare_of(slide: Slide, object_id: str) -> Spare:
    for spare in slide.spares:
        if spare.object.id == object_id:
            return spare
    raise UnknownName(f"“{object_id}” does not lie beside slide “{slide.name or slide.id}” any more.")


class BringBack(msgspec.Struct, frozen=True, tag_field="do", tag="bring back"):
    """Puts a spare onto its slide again: into its place where that is free, else where it stood."""

    slide_id: Id
    object_id: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        spare = _spare_of(slide, self.object_id)
        item = spare.object
        # What a press on it led to may be gone by now.
        leads = item.press
        gone = (isinstance(leads, GoToSlide) and show.slide(leads.slide_id) is None) or (
            isinstance(leads, PlayClip) and slide.object(leads.object_id) is None and leads.object_id != item.id
        )
        if gone:
            item = msgspec.structs.replace(item, press=None)
        check_named(show, item, "Bringing back")
        fresh = msgspec.structs.replace(spare, object=item)
        beside = tuple(fresh if other is spare else other for other in slide.spares)
        slide = bring_back(msgspec.structs.replace(slide, spares=beside), fresh, show.frame)
        return Draft(put(slide), f"Bring {item.name} back")


class RemoveSpare(msgspec.Struct, frozen=True, tag_field="do", tag="remove spare"):
    """Removes a spare."""

    slide_id: Id
    object_id: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        spare = _spare_of(slide, self.object_id)
        rest = tuple(other for other in slide.spares if other is not spare)
        return Draft(put(slide, spares=rest), f"Remove {spare.object.name}")
