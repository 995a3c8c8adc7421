"""Edits of builds and their running order."""

from typing import Any, Literal

import msgspec

from ritornel.core.document import running_order
from ritornel.core.document.decoding import replace_fields
from ritornel.core.document.edits.draft import Draft, object_of, put, slide_of, target_of
from ritornel.core.document.framings import moves_view
from ritornel.core.document.integrity import check_build
from ritornel.core.document.objects import Id, TextHolder
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
        build = running_order.build_named(slide, self.build_id)
        return Draft(
            put(slide, order=running_order.without_builds(slide.order, {self.build_id})),
            f"Remove a build of {target_of(slide, build)}",
        )


class MoveBuild(msgspec.Struct, frozen=True, tag_field="do", tag="move build"):
    """Moves a build to index `to`. With `opens` it opens the beat it comes into."""

    slide_id: Id
    build_id: Id
    to: int
    opens: bool = False

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        build = running_order.build_named(slide, self.build_id)
        order = running_order.move_entry(slide.order, self.build_id, self.to, self.opens)
        return Draft(put(slide, order=order), f"Move a build of {target_of(slide, build)}")


class PlaceBuild(msgspec.Struct, frozen=True, tag_field="do", tag="place build"):
    """Moves a build within the running order.

    With `beside` it goes to one `side` of that build; with `joins` both start together; with a `cue_id` it comes before
    the other's whole beat, on that new cue. Without `beside` it goes to an end: `before` all, on arrival, or `after`
    all, on a cue of its own.
    """

    slide_id: Id
    build_id: Id
    beside: Id | None = None
    side: Literal["before", "after"] = "after"
    joins: bool = False
    cue_id: Id | None = None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        build = running_order.build_named(slide, self.build_id)
        label = f"Move a build of {target_of(slide, build)}"
        if self.beside is not None:
            running_order.build_named(slide, self.beside)
            if self.beside == self.build_id:
                return Draft((), label)
            if self.cue_id is not None:
                order = running_order.place_on_cue(slide.order, self.build_id, OnCue(self.cue_id), self.beside)
            else:
                order = running_order.place_beside(slide.order, self.build_id, self.beside, self.side, self.joins)
        elif self.side == "before":
            order = running_order.place_on_arrival(slide.order, self.build_id)
        elif self.cue_id is None:
            raise BadValue("A build on a cue of its own needs that cue.", "cue_id")
        else:
            order = running_order.place_on_cue(slide.order, self.build_id, OnCue(self.cue_id))
        return Draft(put(slide, order=order) if order != slide.order else (), label)


class MoveBeat(msgspec.Struct, frozen=True, tag_field="do", tag="move beat"):
    """Moves all builds of one cue before the beat of the cue `before`, or to the end."""

    slide_id: Id
    cue_id: Id
    before: Id | None = None

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        order = running_order.move_beat(slide.order, self.cue_id, self.before)
        return Draft(put(slide, order=order) if order != slide.order else (), "Move a beat")


class ChangeBuild(msgspec.Struct, frozen=True, tag_field="do", tag="change build"):
    slide_id: Id
    build_id: Id
    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        old = running_order.build_named(slide, self.build_id)
        name = target_of(slide, old)
        if "id" in self.changes:
            raise BadValue("A build keeps its id.", "id")
        changes = self.changes
        if moves_view(old) and "lasts_ms" in changes and "settings" not in changes:
            changes = {**changes, "settings": {"length": "set"}}
        build: Build = replace_fields(old, changes, Build, f"Changing the build of “{name}”")
        entries = tuple(build if entry.id == self.build_id else entry for entry in slide.order)
        joins = isinstance(old.starts, OnCue) and not isinstance(build.starts, OnCue)
        return Draft(
            put(slide, order=entries), f"Join {name} to the beat before" if joins else f"Change the build of {name}"
        )


class StartBuilds(msgspec.Struct, frozen=True, tag_field="do", tag="start builds"):
    """Makes several builds start together, one after another, or each on a cue of its own.

    They move behind the first of them in their present order; the first keeps its start. Ids of new cues begin with
    `stem`.
    """

    slide_id: Id
    build_ids: tuple[Id, ...]
    how: running_order.Starting
    stem: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        entries = [running_order.build_named(slide, build_id) for build_id in self.build_ids]
        if not entries:
            raise BadValue("No build was picked.", "build_ids")
        order = running_order.start_builds(slide.order, set(self.build_ids), self.how, self.stem)
        return Draft(put(slide, order=order), f"Let {len(entries)} builds start {self.how}")


class BuildByParagraphs(msgspec.Struct, frozen=True, tag_field="do", tag="build by paragraphs"):
    """Splits a build of a whole text into one for each paragraph with words, each on a cue but the first; or joins such
    builds into one.

    This covers all builds of the object with the effect of `build_id`. Ids of new builds and cues begin with `stem`.
    """

    slide_id: Id
    build_id: Id
    by_paragraphs: bool
    stem: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        build = running_order.build_named(slide, self.build_id)
        item = object_of(slide, build.object_id)
        if not isinstance(item, TextHolder) or not item.paragraphs:
            raise BadValue(f"“{item.name}” has no paragraphs to come one by one. Nothing was changed.", "build_id")
        alike = [entry for entry in slide.order if (entry.object_id, entry.effect) == (item.id, build.effect)]
        first, others = alike[0], {entry.id for entry in alike[1:]}
        written = [paragraph for paragraph in item.paragraphs if paragraph.text.strip()] or item.paragraphs
        parts = [paragraph.id for paragraph in written] if self.by_paragraphs else [None]
        fresh = tuple(
            msgspec.structs.replace(
                first,
                id=first.id if not number else f"{self.stem}-{number}",
                part=part,
                starts=OnCue(f"{self.stem}-c{number}") if number else first.starts,
                after_ms=0 if number else first.after_ms,
            )
            for number, part in enumerate(parts)
        )
        order = running_order.without_builds(slide.order, others)
        at = next(index for index, entry in enumerate(order) if entry.id == first.id)
        how = "paragraph by paragraph" if self.by_paragraphs else "as a whole"
        return Draft(put(slide, order=(*order[:at], *fresh, *order[at + 1 :])), f"Build {item.name} {how}")
