"""Automatic names: an object that nobody has named is named by its content, until somebody names it."""

import itertools
import re
from types import MappingProxyType

import msgspec

from ritornel.core.document.changes import Change, PutSlide
from ritornel.core.document.layouts import LAYOUTS
from ritornel.core.document.objects import FreeText, Object, Picture, Shape, TextHolder
from ritornel.core.document.show import Show, Slide

LONGEST = 40
"""A name of words has at most this many signs, and ends with a whole word."""
PLACE_TITLES = frozenset(place.title for layout in LAYOUTS.values() for place in layout.places)
NEW_TEXTS = frozenset({"", "Pasted text"})
"""What a text is called while it has no words."""
NEW_SLIDES = frozenset({"", *(layout.title for layout in LAYOUTS.values())})
HEADINGS = ("heading", "title")
"""The places whose words name a slide."""
FORMS = MappingProxyType({"path": "Drawing"})


def first_words(text: str) -> str:
    """The first words of a text, for a name; empty for a text without words.

    >>> first_words("  The wheel\\nwants to run ")
    'The wheel wants to run'
    >>> first_words("Seventy-eight turns of the crank, every second evening")
    'Seventy-eight turns of the crank…'
    """
    words = " ".join(text.split())
    if len(words) <= LONGEST:
        return words
    cut = words[: LONGEST - 1]
    return f"{(cut.rsplit(' ', 1)[0] if ' ' in cut else cut).rstrip(',;:–-')}…"


def _words_of(item: Object) -> str:
    return first_words(item.naming_text) if isinstance(item, TextHolder) else ""


def own_name(show: Show, item: Object) -> str:
    """An object's automatic name: its first words, its file or its form."""
    if isinstance(item, Picture):
        asset = show.asset(item.asset_id)
        return asset.name if asset is not None else item.name
    if isinstance(item, Shape):
        return FORMS.get(item.form, item.form.capitalize())
    return _words_of(item) or type(item).__name__


def _number_name(name: str, taken: set[str]) -> str:
    """The name with the first number that makes it unique.

    >>> _numbered("Ellipse 2", {"Ellipse", "Ellipse 2"})
    'Ellipse 3'
    """
    if name not in taken:
        return name
    stem = re.sub(r" \d+$", "", name)
    return next(found for number in itertools.count(2) if (found := f"{stem} {number}") not in taken)


def _is_unnamed(show: Show, item: Object) -> bool:
    """Whether the object's name is the automatic one."""
    if getattr(item, "credits", False):
        return False
    own = own_name(show, item)
    if item.name == own or (item.name.startswith(f"{own} ") and item.name[len(own) + 1 :].isdecimal()):
        return True
    if isinstance(item, FreeText):
        return (
            item.name in NEW_TEXTS
            or item.name == type(item).__name__
            or (bool(item.place) and item.name in PLACE_TITLES)
        )
    return not item.name


def _name_objects(show: Show, slide: Slide, before: Slide | None, old_show: Show) -> Slide:
    """The slide with names for what was added or changed on it."""
    old = {item.id: item for item in before.objects} if before is not None else {}
    taken = {item.name for item in slide.objects if item.id in old}
    result: list[Object] = []
    for item in slide.objects:
        was = old.get(item.id)
        name = item.name
        if was is None:
            # New: words and a place name it; otherwise the name it came with, with a number where that is taken.
            if _is_unnamed(show, item) and not (isinstance(item, TextHolder) and not _words_of(item) and item.name):
                name = own_name(show, item)
            name = _number_name(name, taken)
            taken.add(name)
        elif was is not item and was.name == name and _is_unnamed(old_show, was) and not _is_growing_name(item):
            own = own_name(show, item)
            if own != own_name(old_show, was):
                taken.discard(name)
                name = _number_name(own, taken)
                taken.add(name)
        result.append(item if name == item.name else msgspec.structs.replace(item, name=name))
    objects = tuple(result) if any(new is not same for new, same in zip(result, slide.objects, strict=True)) else None
    slide = slide if objects is None else msgspec.structs.replace(slide, objects=objects)
    heading = _heading(slide)
    if heading and slide.name != heading and (before is None or before.name == slide.name):
        if slide.name in NEW_SLIDES or (before is not None and slide.name == _heading(before)):
            slide = msgspec.structs.replace(slide, name=heading)
    return slide


def _is_growing_name(item: Object) -> bool:
    """Whether the object has lost its words: it keeps its name until it has others."""
    return isinstance(item, FreeText) and not _words_of(item)


def _heading(slide: Slide) -> str:
    """The words of the slide's heading; empty where there are none."""
    return next((_words_of(item) for item in slide.objects if item.place in HEADINGS), "")


def update_names(before: Show, after: Show) -> tuple[Change, ...]:
    """The changes that name what an edit added or changed, where nobody named it.

    A text is named by its first words, a picture by its file, a shape by its form and a number, a slide by its heading.
    Names given by hand stay.
    """
    old = {slide.id: slide for slide in before.slides}
    changes: list[Change] = []
    for slide in after.slides:
        was = old.get(slide.id)
        if was is slide or (was is None and not slide.objects):
            continue
        named = _name_objects(after, slide, was, before)
        if named is not slide:
            changes.append(PutSlide(named))
    return tuple(changes)
