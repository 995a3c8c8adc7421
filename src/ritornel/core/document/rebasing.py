"""Edits of an earlier state of a show, applied to its present state; and steps that are undone after other people have
gone on. Both are merges (merging.py).
"""

from typing import Any

import msgspec

from ritornel.core.document.changes import apply_changes, asset_index, changes_between, slide_index
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import Edit, EditOutcome, apply_edit, make_changes
from ritornel.core.document.integrity import check_slide
from ritornel.core.document.merging import GONE, Collision, Merged, Path, merge, value_at, without_dangling
from ritornel.core.document.objects import Box, Paragraph, TextRun
from ritornel.core.document.show import Show
from ritornel.core.document.uses import used_on
from ritornel.core.time.milliseconds import seconds_text

FIELD_WORDS = {
    "box": "the place",
    "paragraphs": "the text",
    "runs": "the text",
    "size_px": "the letter size",
    "after_ms": "the delay",
    "lasts_ms": "the length",
    "starts": "the start",
    "advance": "how it goes on",
    "default_hold_ms": "the default hold",
    "title": "the title",
    "#order": "the order",
}


class Rebased(msgspec.Struct, frozen=True):
    """The outcome, and where both sides changed the same."""

    outcome: EditOutcome
    collisions: tuple[Collision, ...]

    @property
    def removed(self) -> tuple[Path, ...]:
        """The places of things that this edit is about and that others removed."""
        return tuple(met.path for met in self.collisions if met.theirs is GONE and met.base is not GONE)


def rebase_edit(base: Show, now: Show, edit: Edit, restored: frozenset[str] = frozenset()) -> Rebased:
    """The outcome of an edit, made on `base`, in the present show.

    Where others changed the same, this edit wins. `restored` are ids of things that come back with it though others
    removed them. Raises RitornelError where the edit cannot be done on `base`, or both do not fit together.
    """
    mine = apply_edit(base, edit)
    merged = merge(base, now, mine.show, "mine", restored)
    return _outcome(now, merged, mine.label, mine.notices)


def revert_step(after: Show, before: Show, now: Show, label: str) -> Rebased:
    """A step undone: its change from `before` to `after` is taken back in the present show. Where others have changed
    the same since, their change stays.
    """
    merged = merge(after, now, before, "theirs")
    built_on = frozenset(met.path[-1] for met in merged.collisions if met.mine is GONE and met.theirs is not GONE)
    if built_on:
        # What it added and others have built on stays.
        kept = merge(after, now, before, "theirs", built_on)
        merged = Merged(kept.show, (*merged.collisions, *kept.collisions))
    return _outcome(now, merged, label, ())


def _outcome(now: Show, merged: Merged, label: str, notices: tuple[str, ...]) -> Rebased:
    before = {id(slide) for slide in now.slides}
    for slide in merged.show.slides:
        if id(slide) not in before:
            check_slide(slide)
    outcome = make_changes(now, changes_between(now, merged.show), label, notices)
    return Rebased(outcome, merged.collisions)


def state_before(show: Show, inverses: tuple[tuple[Any, ...], ...]) -> Show:
    """An earlier state of a show: the inverses of all steps since, the latest first."""
    for inverse in inverses:
        show, _ = apply_changes(show, inverse)
    return show


def restore_slide(now: Show, then: Show, slide_id: str) -> Show:
    """The present show with one slide as it was then, and with the media it used. A removed slide returns to its place.
    Raises UnknownName for a slide that was not there then.
    """
    at = slide_index(then, slide_id)
    slide = then.slides[at]
    used = set(used_on(slide))
    known = {asset.id for asset in now.assets}
    assets = (*now.assets, *(asset for asset in then.assets if asset.id in used and asset.id not in known))
    rest = tuple(other for other in now.slides if other.id != slide_id)
    here = next((index for index, other in enumerate(now.slides) if other.id == slide_id), min(at, len(rest)))
    slide_ids = {slide_id, *(other.id for other in rest)}
    slide = without_dangling(slide, slide_ids, {asset.id for asset in assets})
    return msgspec.structs.replace(now, slides=(*rest[:here], slide, *rest[here:]), assets=assets)


def restore_entry(now: Show, then: Show, asset_id: str) -> Show:
    """The present show with an entry of the shelf as it was then, at the shelf's end. Raises UnknownName for an entry
    that was not there then.
    """
    asset = then.assets[asset_index(then, asset_id)]
    return msgspec.structs.replace(now, assets=(*(kept for kept in now.assets if kept.id != asset_id), asset))


def place_words(show: Show, path: Path) -> str:
    """A place in words: `the text of “Pallets”`, `the title of the show`."""
    owner = "the show"
    for length in range(len(path), 0, -1):
        thing = value_at(show, path[:length])
        name = getattr(thing, "name", "") or ""
        if not name and hasattr(thing, "object_id") and path[0] == "slides":
            item = value_at(show, (*path[:2], "objects", thing.object_id))
            name = f"a build of {item.name}" if item is not GONE else "a build"
        if name and length > 1:
            owner = f"“{name}”"
            break
    field = path[-1] if path else ""
    words = FIELD_WORDS.get(field, f"the {field.removesuffix('_ms').removesuffix('_px').replace('_', ' ')}")
    return (
        owner if value_at(show, path) is not GONE and hasattr(value_at(show, path), "name") else f"{words} of {owner}"
    )


def value_words(value: Any, field: str = "") -> str:
    """A value in a few words; empty for what has none."""
    match value:
        case _ if value is GONE:
            return "removed"
        case bool():
            return "yes" if value else "no"
        case int() if field.endswith("_ms"):
            return f"{seconds_text(value)} s"
        case int() | float():
            return f"{value:g}"
        case str():
            return value[:60]
        case Box(x, y, width, height):
            return f"{width:g} × {height:g} at {x:g}, {y:g}"
        case Paragraph():
            return value.text[:60]
        case tuple() if value and all(isinstance(run, TextRun) for run in value):
            return "".join(run.text for run in value)[:60]
    return ""


def json_of(value: Any) -> Any:
    """The JSON of a collision's value; None for what was removed."""
    return None if value is GONE else to_builtins(value)
