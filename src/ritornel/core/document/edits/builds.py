"""Edits of builds and their running order."""

from typing import Any

import msgspec

from ritornel.core.document import running_order
from ritornel.core.document.decoding import changed
from ritornel.core.document.edits.draft import Draft, put, slide_of, target_of
from ritornel.core.document.framings import moves_view
from ritornel.core.document.integrity import check_build
from ritornel.core.document.objects import Id
from ritornel.core.document.show import Build, OnCue, Show
from ritornel.core.errors import BadValue


class AddBuild(msgspec.Struct, frozen=True, tag_field="do", tag="add build"):
    slide_id: Id
    build: Build
    at: int | None = None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        check_build(slide, self.build)
        place = len(slide.order) if self.at is None else max(0, min(self.at, len(slide.order)))
        entries = (*slide.order[:place], self.build, *slide.order[place:])
        return Draft(put(slide, order=entries), f"Add a build to {target_of(slide, self.build)}")


class RemoveBuild(msgspec.Struct, frozen=True, tag_field="do", tag="remove build"):
    slide_id: Id
    build_id: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        build = running_order.entry(slide, self.build_id)
        return Draft(
            put(slide, order=running_order.without_builds(slide.order, {self.build_id})),
            f"Remove a build of {target_of(slide, build)}",
        )


class MoveBuild(msgspec.Struct, frozen=True, tag_field="do", tag="move build"):
    """Moves an entry to index `to`; `opens` makes it the opener of the beat it lands in."""

    slide_id: Id
    build_id: Id
    to: int
    opens: bool = False

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        build = running_order.entry(slide, self.build_id)
        order = running_order.moved(slide.order, self.build_id, self.to, self.opens)
        return Draft(put(slide, order=order), f"Move a build of {target_of(slide, build)}")


class ChangeBuild(msgspec.Struct, frozen=True, tag_field="do", tag="change build"):
    slide_id: Id
    build_id: Id
    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        old = running_order.entry(slide, self.build_id)
        name = target_of(slide, old)
        if "id" in self.changes:
            raise BadValue("A build keeps its id.", "id")
        changes = self.changes
        if moves_view(old) and "lasts_ms" in changes and "settings" not in changes:
            changes = {**changes, "settings": {"length": "set"}}
        build: Build = changed(old, changes, Build, f"Changing the build of “{name}”")
        entries = tuple(build if entry.id == self.build_id else entry for entry in slide.order)
        joins = isinstance(old.starts, OnCue) and not isinstance(build.starts, OnCue)
        return Draft(
            put(slide, order=entries), f"Join {name} to the beat before" if joins else f"Change the build of {name}"
        )
