"""An edit as changes that are not made yet, and ways to find what an edit names."""

from collections.abc import Callable
from typing import Any

import msgspec

from ritornel.core.document.changes import Change, PutSlide, slide_index
from ritornel.core.document.framings import moves_view
from ritornel.core.document.integrity import check_kind, check_part, check_press, check_slide
from ritornel.core.document.objects import Clip, Object, Picture
from ritornel.core.document.show import Build, Show, Slide
from ritornel.core.errors import BadValue, UnknownName


class Draft(msgspec.Struct, frozen=True):
    """The exact changes of an edit, the label for undo, and messages for the maker."""

    changes: tuple[Change, ...]
    label: str
    notices: tuple[str, ...] = ()


def slide_of(show: Show, slide_id: str) -> Slide:
    """Raises UnknownName."""
    return show.slides[slide_index(show, slide_id)]


def object_of(slide: Slide, object_id: str) -> Object:
    """Raises UnknownName."""
    found = slide.object(object_id)
    if found is None:
        raise UnknownName(
            f"The object “{object_id}” is not on slide “{slide.name or slide.id}” any more. Nothing was changed."
        )
    return found


def objects_of(slide: Slide, object_ids: tuple[str, ...]) -> list[Object]:
    """The objects with these ids, in this order. Raises UnknownName, and BadValue where there is no id."""
    if not object_ids:
        raise BadValue("Nothing was picked.", "object_ids")
    return [object_of(slide, object_id) for object_id in object_ids]


def put(slide: Slide, **fields: Any) -> tuple[Change, ...]:
    """The change that gives a slide other field values, checked."""
    result = msgspec.structs.replace(slide, **fields)
    check_slide(result)
    return (PutSlide(result),)


def replace_objects(slide: Slide, *items: Object) -> tuple[Object, ...]:
    """The slide's objects, with these in place of those with the same ids."""
    fresh = {item.id: item for item in items}
    return tuple(fresh.get(old.id, old) for old in slide.objects)


def change_each(
    show: Show, slide_id: str, object_ids: tuple[str, ...], change: Callable[[Object], Object], label: str
) -> Draft:
    """A draft that applies `change` to each of the objects.

    `{names}` in the label stands for their names.
    """
    slide = slide_of(show, slide_id)
    items = objects_of(slide, object_ids)
    return Draft(put(slide, objects=replace_objects(slide, *map(change, items))), label.format(names=names_of(items)))


def check_named(show: Show, item: Object, doing: str) -> None:
    """Raises UnknownName where the object refers to something that is not in the show."""
    if isinstance(item, Picture):
        asset = show.asset(item.asset_id)
        if asset is None:
            raise UnknownName(
                f"{doing} “{item.name}”: its {'clip' if isinstance(item, Clip) else 'picture'} is not on the shelf."
            )
        check_kind(item, asset, doing)
        if isinstance(item, Clip):
            check_part(item, asset)
    if item.press is not None:
        check_press(item, {asset.id for asset in show.assets}, {slide.id for slide in show.slides})


def target_of(slide: Slide, build: Build) -> str:
    """The target of a build, as words within a sentence."""
    if not moves_view(build):
        return object_of(slide, build.object_id).name
    framing = slide.framing(build.object_id)
    return framing.name if framing else "the whole slide"


def title_of(slide: Slide) -> str:
    """The slide's name, as words within a sentence."""
    return f"slide “{slide.name}”" if slide.name else "the slide"


def names_of(items: list[Object]) -> str:
    """The objects, as words within a sentence: up to three names, else their number."""
    return ", ".join(item.name for item in items) if len(items) <= 3 else f"{len(items)} objects"


def of_slides(slides: list[Slide]) -> str:
    """The slides, as words within a sentence."""
    return title_of(slides[0]) if len(slides) == 1 else f"{len(slides)} slides"
