"""An edit that restores single values, such as one that an edit of another person replaced."""

from typing import Any

import msgspec

from ritornel.core.document.changes import changes_between
from ritornel.core.document.decoding import from_builtins, to_json
from ritornel.core.document.edits.draft import Draft, check_named
from ritornel.core.document.integrity import check_slide
from ritornel.core.document.objects import Name
from ritornel.core.document.show import Show, Slide
from ritornel.core.errors import BadValue, UnknownName

MOST_VALUES = 50


class PlacedValue(msgspec.Struct, frozen=True):
    """A value as JSON, and its place in the show (core/document/merging.py, Path)."""

    path: tuple[str, ...]
    value: Any


class PutValues(msgspec.Struct, frozen=True, tag_field="do", tag="put values"):
    """Sets single values of the show by their places. Places that are gone are left out."""

    values: tuple[PlacedValue, ...]
    label: Name = "Bring a value back"

    def draft(self, show: Show) -> Draft:
        if not 0 < len(self.values) <= MOST_VALUES:
            raise BadValue(f"Between 1 and {MOST_VALUES} values can be brought back at once.", "values")
        slides = {slide.id: _json_of(slide) for slide in show.slides if any(self._names(slide.id))}
        rest = _json_of(msgspec.structs.replace(show, slides=(), assets=()))
        for entry in self.values:
            if len(entry.path) > 2 and entry.path[0] == "slides":
                _set(slides.get(entry.path[1]), entry.path[2:], entry.value)
            elif entry.path and entry.path[0] not in ("slides", "assets", "id"):
                _set(rest, entry.path, entry.value)
            else:
                raise BadValue("Slides and media are brought back as wholes.", "values")
        fresh = {key: from_builtins(value, Slide, "Bringing a value back") for key, value in slides.items()}
        for slide in fresh.values():
            check_slide(slide)
            for item in slide.objects:
                check_named(show, item, "Changing")
        after = msgspec.structs.replace(
            from_builtins(rest, Show, "Bringing a value back"),
            slides=tuple(fresh.get(slide.id, slide) for slide in show.slides),
            assets=show.assets,
        )
        return Draft(changes_between(show, after), self.label)

    def _names(self, slide_id: str) -> list[bool]:
        return [True for entry in self.values if entry.path[:2] == ("slides", slide_id)]


def _json_of(value: Any) -> Any:
    """The value as JSON that may be changed in place."""
    return msgspec.json.decode(to_json(value))


def _set(whole: Any, path: tuple[str, ...], value: Any) -> None:
    """Sets the value at a place of JSON. Raises UnknownName where the place is gone."""
    at = whole
    for number, name in enumerate(path):
        last = number == len(path) - 1
        if isinstance(at, list):
            found = next(
                (index for index, item in enumerate(at) if isinstance(item, dict) and item.get("id") == name), -1
            )
            if found < 0:
                break
            if last:
                at[found] = value
                return
            at = at[found]
        elif isinstance(at, dict):
            if last:
                at[name] = value
                return
            at = at.get(name)
        else:
            break
    raise UnknownName("What this would change is not there any more. Nothing was changed.")
