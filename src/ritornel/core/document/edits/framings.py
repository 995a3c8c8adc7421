"""Edits of a slide's size and of its framings."""

from typing import Any

import msgspec

from ritornel.core.document import running_order
from ritornel.core.document.decoding import replace_fields
from ritornel.core.document.edits.draft import Draft, put, slide_of, title_of
from ritornel.core.document.framings import check_framings, moves_view, without_framing
from ritornel.core.document.objects import Id
from ritornel.core.document.show import Build, Frame, Framing, Show, Slide
from ritornel.core.errors import BadValue, UnknownName


def _framing_of(slide: Slide, framing_id: str) -> Framing:
    found = slide.framing(framing_id)
    if found is None:
        raise UnknownName(
            f"The framing “{framing_id}” is not on slide “{slide.name or slide.id}” any more. Nothing was changed."
        )
    return found


def _put(show: Show, slide: Slide, label: str, **fields: Any) -> Draft:
    check_framings(msgspec.structs.replace(slide, **fields), show.frame)
    return Draft(put(slide, **fields), label)


class ChangeSize(msgspec.Struct, frozen=True, tag_field="do", tag="change size"):
    """Makes the slide larger than the frame, or as large as the frame again (`size` None). Its objects stay
    in place.
    """

    slide_id: Id
    size: Frame | None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        size = None if self.size == show.frame else self.size
        if size is not None and (size.width_px < show.frame.width_px or size.height_px < show.frame.height_px):
            raise BadValue(
                f"{size.width_px} × {size.height_px} is smaller than the frame; a slide is at least "
                f"{show.frame.width_px} × {show.frame.height_px}.",
                "size",
            )
        words = f"{size.width_px} × {size.height_px}" if size else "as large as the frame"
        return _put(show, slide, f"Make {title_of(slide)} {words}", size=size)


class AddFraming(msgspec.Struct, frozen=True, tag_field="do", tag="add framing"):
    """Adds a framing, and with `build` a build at the end of the running order that flies to it."""

    slide_id: Id
    framing: Framing
    build: Build | None = None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        order = slide.order if self.build is None else (*slide.order, self.build)
        return _put(
            show, slide, f"Add the framing {self.framing.name}", framings=(*slide.framings, self.framing), order=order
        )


class ChangeFraming(msgspec.Struct, frozen=True, tag_field="do", tag="change framing"):
    slide_id: Id
    framing_id: Id
    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        old = _framing_of(slide, self.framing_id)
        if "id" in self.changes:
            raise BadValue("A framing keeps its id.", "id")
        fresh: Framing = replace_fields(old, self.changes, Framing, f"Changing the framing “{old.name}”")
        return _put(
            show,
            slide,
            f"Change the framing {fresh.name}",
            framings=tuple(fresh if entry.id == old.id else entry for entry in slide.framings),
        )


class RemoveFraming(msgspec.Struct, frozen=True, tag_field="do", tag="remove framing"):
    """Removes a framing and the builds that fly to it."""

    slide_id: Id
    framing_id: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        old = _framing_of(slide, self.framing_id)
        gone = {build.id for build in slide.order if moves_view(build) and build.object_id == old.id}
        order = running_order.without_builds(slide.order, gone)
        opens_on = None if slide.opens_on == old.id else slide.opens_on
        return _put(
            show,
            slide,
            f"Remove the framing {old.name}",
            order=order,
            framings=without_framing(slide, old.id),
            opens_on=opens_on,
        )
