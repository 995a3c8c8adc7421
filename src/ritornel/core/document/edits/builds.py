"""Edits of builds and their running order."""

from typing import Any, Literal

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


class PlaceBuild(msgspec.Struct, frozen=True, tag_field="do", tag="place build"):
    """Puts an entry somewhere else in the running order.

    `beside` names the entry it comes to stand at, on one `side`; with `joins` both start together. Without `beside`
    it goes to an end: `before` all, on arrival, or `after` all, on a cue of its own named `cue_id`.
    """

    slide_id: Id
    build_id: Id
    beside: Id | None = None
    side: Literal["before", "after"] = "after"
    joins: bool = False
    cue_id: Id | None = None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        build = running_order.entry(slide, self.build_id)
        label = f"Move a build of {target_of(slide, build)}"
        if self.beside is not None:
            running_order.entry(slide, self.beside)
            if self.beside == self.build_id:
                return Draft((), label)
            order = running_order.placed_beside(slide.order, self.build_id, self.beside, self.side, self.joins)
        elif self.side == "before":
            order = running_order.placed_on_arrival(slide.order, self.build_id)
        elif self.cue_id is None:
            raise BadValue("A build on a cue of its own needs that cue.", "cue_id")
        else:
            order = running_order.placed_on_cue(slide.order, self.build_id, OnCue(self.cue_id))
        return Draft(put(slide, order=order) if order != slide.order else (), label)


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
