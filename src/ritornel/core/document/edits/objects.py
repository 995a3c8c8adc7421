"""Edits of objects on a slide."""

from typing import Any

import msgspec

from ritornel.core.document import running_order
from ritornel.core.document.alignment import Arrangement, arrange_boxes, bounds_around, round_to_tenth, scale_within
from ritornel.core.document.copying import builds_for, builds_of_copies
from ritornel.core.document.decoding import replace_fields
from ritornel.core.document.drifts import DriftWay, set_drift
from ritornel.core.document.edits.draft import (
    Draft,
    change_each,
    check_named,
    names_of,
    object_of,
    objects_of,
    put,
    replace_objects,
    slide_of,
)
from ritornel.core.document.framings import size_of
from ritornel.core.document.free_place import free_place
from ritornel.core.document.freehand import outline_of_points
from ritornel.core.document.layouts import differences, scale_of
from ritornel.core.document.objects import (
    Box,
    Clip,
    Id,
    Length,
    Object,
    Paragraph,
    Picture,
    PlayClip,
    Shape,
    TextHolder,
    part_within,
)
from ritornel.core.document.picture_fit import cut_to
from ritornel.core.document.show import Show, Slide
from ritornel.core.errors import BadValue

LOOK = (
    "opacity",
    "shadow",
    "stroke",
    "fill",
    "corner_px",
    "family",
    "size_px",
    "weight",
    "italic",
    "underline",
    "colour",
    "highlight",
    "outline",
    "align",
    "stand",
    "line_spacing",
    "paragraph_gap",
)
"""The fields that copying a look carries over, as far as both objects have them."""


class AddObjects(msgspec.Struct, frozen=True, tag_field="do", tag="add objects"):
    """Adds objects in front of the others.

    With `where_free` they move to a place where they can be seen. Copies get the builds of their originals: `copies`
    names the original of each, by ids.
    """

    slide_id: Id
    objects: tuple[Object, ...]
    where_free: bool = False
    copies: dict[Id, Id] = {}

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        if not self.objects:
            raise BadValue("There is nothing to add.", "objects")
        for item in self.objects:
            check_named(show, item, "Adding")
        added = self.objects
        if self.where_free:
            added = free_place(added, slide.objects, size_of(slide, show.frame), scale_of(show.frame))
        order = slide.order
        originals = {item.id: item for item in slide.objects}
        copies = {self.copies[item.id]: item for item in added if self.copies.get(item.id) in originals}
        if copies:
            order = builds_of_copies(order, copies, originals, f"{self.objects[0].id[:24]}-b")
        return Draft(put(slide, objects=(*slide.objects, *added), order=order), f"Add {names_of(list(added))}")


class RemoveObjects(msgspec.Struct, frozen=True, tag_field="do", tag="remove objects"):
    slide_id: Id
    object_ids: tuple[Id, ...]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        gone = objects_of(slide, self.object_ids)
        order = running_order.without_objects(slide.order, set(self.object_ids))
        kept = tuple(item for item in slide.objects if item.id not in self.object_ids)
        idle = [item for item in kept if isinstance(item.press, PlayClip) and item.press.object_id in self.object_ids]
        told = tuple(f"A press on “{item.name}” played “{names_of(gone)}”; it does nothing now." for item in idle)
        kept = tuple(msgspec.structs.replace(item, press=None) if item in idle else item for item in kept)
        return Draft(put(slide, objects=kept, order=order), f"Remove {names_of(gone)}", told)


class ChangeObjects(msgspec.Struct, frozen=True, tag_field="do", tag="change objects"):
    """Sets fields of one or several objects. Each object takes those fields that it has."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    changes: dict[str, Any]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        items = objects_of(slide, self.object_ids)
        if {"id", "kind"} & set(self.changes):
            raise BadValue(f"Changing “{items[0].name}”: an object keeps its id and kind.", "id")
        fresh = []
        for item in items:
            fields = (
                self.changes
                if len(items) == 1
                else {name: value for name, value in self.changes.items() if hasattr(item, name)}
            )
            result: Object = replace_fields(item, fields, Object, f"Changing “{item.name}”")
            check_named(show, result, "Changing")
            fresh.append(result)
        words = {
            frozenset({"box"}): "Move or size",
            frozenset({"locked"}): "Lock or unlock",
            frozenset({"aside"}): "Put aside or bring back",
        }
        return Draft(
            put(slide, objects=replace_objects(slide, *fresh)),
            f"{words.get(frozenset(self.changes), 'Change')} {names_of(items)}",
        )


class MoveObjects(msgspec.Struct, frozen=True, tag_field="do", tag="move objects"):
    """Moves objects by an offset in px. Places are rounded to a tenth."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    dx: float
    dy: float

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        items = [item for item in objects_of(slide, self.object_ids) if not item.locked]
        if not items:
            raise BadValue("What is picked is locked; unlock it first.", "object_ids")
        moved = [
            msgspec.structs.replace(
                item,
                box=msgspec.structs.replace(
                    item.box, x=round_to_tenth(item.box.x + self.dx), y=round_to_tenth(item.box.y + self.dy)
                ),
            )
            for item in items
        ]
        return Draft(put(slide, objects=replace_objects(slide, *moved)), f"Move {names_of(list(items))}")


class SizeObject(msgspec.Struct, frozen=True, tag_field="do", tag="size object"):
    """Gives an object a typed width or height. With `keep` the other side changes in proportion. Its top left corner
    stays. Sides are rounded to a tenth.
    """

    slide_id: Id
    object_id: Id
    width: Length | None = None
    height: Length | None = None
    keep: bool = False

    def draft(self, show: Show) -> Draft:
        def sized(item: Object) -> Object:
            box = item.box
            width, height = self.width, self.height
            if self.keep and box.width and box.height:
                if width is not None and height is None:
                    height = round_to_tenth(width * box.height / box.width)
                elif height is not None and width is None:
                    width = round_to_tenth(height * box.width / box.height)
            fresh = msgspec.structs.replace(
                box, width=box.width if width is None else width, height=box.height if height is None else height
            )
            return msgspec.structs.replace(item, box=fresh)

        return change_each(show, self.slide_id, (self.object_id,), sized, "Size {names}")


class ScaleObjects(msgspec.Struct, frozen=True, tag_field="do", tag="scale objects"):
    """Scales several objects from the box around them to another box. The size of letters stays."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    box: Box

    def draft(self, show: Show) -> Draft:
        whole = bounds_around([item.box for item in objects_of(slide_of(show, self.slide_id), self.object_ids)])
        return change_each(
            show,
            self.slide_id,
            self.object_ids,
            lambda item: msgspec.structs.replace(item, box=scale_within(item.box, whole, self.box)),
            "Size {names}",
        )


def _units(items: list[Object]) -> list[list[Object]]:
    """The objects, each group as one unit."""
    units: dict[str, list[Object]] = {}
    for item in items:
        units.setdefault(f"group {item.group}" if item.group else f"object {item.id}", []).append(item)
    return list(units.values())


class ArrangeObjects(msgspec.Struct, frozen=True, tag_field="do", tag="arrange objects"):
    """Aligns, distributes or sizes objects. A group keeps together."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    how: Arrangement

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        units = _units(objects_of(slide, self.object_ids))
        boxes = arrange_boxes([[item.box for item in unit] for unit in units], self.how, size_of(slide, show.frame))
        fresh = [
            msgspec.structs.replace(item, box=box)
            for unit, row in zip(units, boxes, strict=True)
            for item, box in zip(unit, row, strict=True)
        ]
        return Draft(put(slide, objects=replace_objects(slide, *fresh)), f"Line up {names_of(fresh)}")


class StackObjects(msgspec.Struct, frozen=True, tag_field="do", tag="stack objects"):
    """Moves objects, in their order, to index `to` of the remaining stack; 0 is the back."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    to: int

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        items = objects_of(slide, self.object_ids)
        taken = tuple(item for item in slide.objects if item.id in self.object_ids)
        rest = tuple(item for item in slide.objects if item.id not in self.object_ids)
        to = max(0, min(self.to, len(rest)))
        return Draft(put(slide, objects=(*rest[:to], *taken, *rest[to:])), f"Stack {names_of(items)}")


class GroupObjects(msgspec.Struct, frozen=True, tag_field="do", tag="group objects"):
    """Puts objects into the group with this id; an empty id ungroups them."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    group: str

    def draft(self, show: Show) -> Draft:
        if self.group and len(self.object_ids) < 2:
            raise BadValue("A group needs at least two objects.", "object_ids")
        words = "Group {names}" if self.group else "Ungroup {names}"
        return change_each(
            show, self.slide_id, self.object_ids, lambda item: msgspec.structs.replace(item, group=self.group), words
        )


def _neighbour(show: Show, slide: Slide) -> Slide | None:
    return show.shown_before(slide.id)


def same_on(before: Slide, item: Object) -> Object | None:
    """The same object on another slide: by lineage, else by kind and name."""
    lineage = item.lineage or item.id
    kin = next((other for other in before.objects if (other.lineage or other.id) == lineage), None)
    return kin or next(
        (other for other in before.objects if type(other) is type(item) and other.name == item.name), None
    )


class PlaceAsBefore(msgspec.Struct, frozen=True, tag_field="do", tag="place as before"):
    """Moves objects to the place of the same objects on the slide before."""

    slide_id: Id
    object_ids: tuple[Id, ...]

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        items = objects_of(slide, self.object_ids)
        before = _neighbour(show, slide)
        found = [(item, same_on(before, item)) for item in items] if before else []
        fresh = [msgspec.structs.replace(item, box=other.box) for item, other in found if other]
        if not fresh:
            raise BadValue(f"{names_of(items)} has no counterpart on the slide before.", "object_ids")
        return Draft(
            put(slide, objects=replace_objects(slide, *fresh)), f"Place {names_of(fresh)} as on the slide before"
        )


class CopyLook(msgspec.Struct, frozen=True, tag_field="do", tag="copy look"):
    """Gives objects the look of another one, as far as they have the same fields.

    `source` is the whole object, since it may come from another slide.
    """

    slide_id: Id
    source: Object
    object_ids: tuple[Id, ...]

    def draft(self, show: Show) -> Draft:
        def dressed(item: Object) -> Object:
            return msgspec.structs.replace(
                item,
                **{
                    name: getattr(self.source, name)
                    for name in LOOK
                    if hasattr(self.source, name) and hasattr(item, name)
                },
            )

        name = self.source.name.replace("{", "{{").replace("}", "}}")
        return change_each(show, self.slide_id, self.object_ids, dressed, f"Give {{names}} the look of {name}")


class CopyBuilds(msgspec.Struct, frozen=True, tag_field="do", tag="copy builds"):
    """Gives objects the builds of another object on the same slide. They start together with the original's."""

    slide_id: Id
    source_id: Id
    object_ids: tuple[Id, ...]
    stem: Id

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        source = object_of(slide, self.source_id)
        items = [item for item in objects_of(slide, self.object_ids) if item.id != source.id]
        if not any(build.object_id == source.id for build in slide.order):
            raise BadValue(f"“{source.name}” has no builds to copy.", "source_id")
        order = builds_for(slide.order, source.id, [item.id for item in items], self.stem)
        return Draft(put(slide, order=order), f"Give {names_of(items)} the builds of {source.name}")


def _plain_colours(paragraph: Paragraph) -> Paragraph:
    """The paragraph without the colours of single runs."""
    return msgspec.structs.replace(
        paragraph,
        runs=tuple(msgspec.structs.replace(run, colour=None) if run.colour else run for run in paragraph.runs),
    )


class FollowTheme(msgspec.Struct, frozen=True, tag_field="do", tag="follow theme"):
    """Resets objects to what theme and layout say; `fields` limits which fields."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    fields: tuple[str, ...] = ()

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)

        def following(item: Object) -> Object:
            wanted = differences(slide, item, show.theme, show.frame)
            chosen = {name: value for name, value in wanted.items() if not self.fields or name in self.fields}
            if isinstance(item, TextHolder) and not self.fields:
                chosen["paragraphs"] = tuple(_plain_colours(paragraph) for paragraph in item.paragraphs)
            return msgspec.structs.replace(item, **chosen)

        return change_each(show, self.slide_id, self.object_ids, following, "Let {names} follow the theme")


class AddDrawing(msgspec.Struct, frozen=True, tag_field="do", tag="add drawing"):
    """Adds a freehand shape through points in px of the frame.

    `model` is the shape, without box and path.
    """

    slide_id: Id
    model: Shape
    points: tuple[tuple[float, float], ...]
    closed: bool = False
    smooth: bool = True

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        box, path = outline_of_points(list(self.points), self.closed, self.smooth)
        item = msgspec.structs.replace(self.model, form="path", box=box, path=path)
        return Draft(put(slide, objects=(*slide.objects, item)), f"Draw {item.name}")


class DriftPictures(msgspec.Struct, frozen=True, tag_field="do", tag="drift pictures"):
    """Makes pictures drift over what they show, or stand still."""

    slide_id: Id
    object_ids: tuple[Id, ...]
    way: DriftWay

    def draft(self, show: Show) -> Draft:
        def change(item: Object) -> Object:
            if not isinstance(item, Picture):
                raise BadValue(
                    f"“{item.name}” is not a picture, and only pictures drift. Nothing was changed.", "object_ids"
                )
            return set_drift(item, self.way)

        label = "Let {names} stand still" if self.way == "none" else "Let {names} drift"
        return change_each(show, self.slide_id, self.object_ids, change, label)


class ReplacePicture(msgspec.Struct, frozen=True, tag_field="do", tag="replace picture"):
    """Puts another picture of the shelf into the same box, with the same crop and builds."""

    slide_id: Id
    object_id: Id
    asset_id: Id

    def draft(self, show: Show) -> Draft:
        def replaced(item: Object) -> Object:
            if not isinstance(item, Picture):
                raise BadValue(f"“{item.name}” is not a picture.", "object_id")
            fresh = msgspec.structs.replace(item, asset_id=self.asset_id)
            asset = show.asset(self.asset_id)
            if isinstance(fresh, Clip) and asset is not None and asset.kind == "clip":
                in_ms, out_ms = part_within(fresh.in_ms, fresh.out_ms, asset.lasts_ms)
                fresh = msgspec.structs.replace(fresh, in_ms=in_ms, out_ms=out_ms)
            check_named(show, fresh, "Replacing")
            return fresh

        return change_each(show, self.slide_id, (self.object_id,), replaced, "Replace the picture {names}")


class CutPicture(msgspec.Struct, frozen=True, tag_field="do", tag="cut picture"):
    """Crops a picture to another box. Its content stays in place: more of it is cut off, or shown again."""

    slide_id: Id
    object_id: Id
    box: Box

    def draft(self, show: Show) -> Draft:
        def cut(item: Object) -> Object:
            if not isinstance(item, Picture):
                raise BadValue(f"“{item.name}” is not a picture.", "object_id")
            asset = show.asset(item.asset_id)
            return cut_to(item, asset.width_px if asset else 0, asset.height_px if asset else 0, self.box)

        return change_each(show, self.slide_id, (self.object_id,), cut, "Cut {names}")
