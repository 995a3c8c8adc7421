"""The few exact changes that all edits are made of. Each has an inverse that restores the very same value."""

from typing import ClassVar, Literal

import msgspec

from ritornel.core.document.names import Named
from ritornel.core.document.objects import Id, Name
from ritornel.core.document.show import Asset, Frame, Habits, Language, MusicSpan, NamedMark, Runs, Show, Slide, Time
from ritornel.core.document.theme import Furniture, Theme
from ritornel.core.errors import UnknownName


class PutSlide(msgspec.Struct, frozen=True, tag_field="change", tag="put slide"):
    """Replaces the slide with the same id."""

    slide: Slide


class InsertSlide(msgspec.Struct, frozen=True, tag_field="change", tag="insert slide"):
    at: int
    slide: Slide


class RemoveSlide(msgspec.Struct, frozen=True, tag_field="change", tag="remove slide"):
    slide_id: Id


class MoveSlide(msgspec.Struct, frozen=True, tag_field="change", tag="move slide"):
    """Moves the slide to index `to`, counted without it."""

    slide_id: Id
    to: int


class PutSettings(Named, frozen=True, tag_field="change", tag="put settings"):
    """The show's own fields, apart from slides, sounds and shelf."""

    one_line_fields: ClassVar[tuple[str, ...]] = ("title",)
    nameless: ClassVar[str] = "Untitled show"

    title: Name
    default_hold_ms: Time
    end: Literal["hold", "loop", "black"]
    runs: Runs
    holds_by_cue: dict[str, Time]
    voices_live: bool = False
    follows_take: Name = ""
    language: Language = "en"
    notes_as_captions: bool = False


class PutStyle(msgspec.Struct, frozen=True, tag_field="change", tag="put style"):
    """What all slides share: frame, theme and furniture."""

    frame: Frame
    theme: Theme
    furniture: Furniture


class PutMusic(msgspec.Struct, frozen=True, tag_field="change", tag="put music"):
    music: tuple[MusicSpan, ...]


class PutMarks(msgspec.Struct, frozen=True, tag_field="change", tag="put marks"):
    marks: tuple[NamedMark, ...]


class PutHabits(msgspec.Struct, frozen=True, tag_field="change", tag="put habits"):
    habits: Habits


class InsertAsset(msgspec.Struct, frozen=True, tag_field="change", tag="insert asset"):
    at: int
    asset: Asset


class PutAsset(msgspec.Struct, frozen=True, tag_field="change", tag="put asset"):
    """Replaces the asset with the same id."""

    asset: Asset


class RemoveAsset(msgspec.Struct, frozen=True, tag_field="change", tag="remove asset"):
    asset_id: Id


Change = (
    PutSlide
    | InsertSlide
    | RemoveSlide
    | MoveSlide
    | PutSettings
    | PutStyle
    | PutMusic
    | PutMarks
    | PutHabits
    | InsertAsset
    | PutAsset
    | RemoveAsset
)


def slide_index(show: Show, slide_id: str) -> int:
    """The slide's index. Raises UnknownName."""
    for index, slide in enumerate(show.slides):
        if slide.id == slide_id:
            return index
    raise UnknownName(f"The slide “{slide_id}” is not in “{show.title}” any more. Nothing was changed.")


def settings_of(show: Show) -> PutSettings:
    """The change that would restore the show's present settings."""
    return PutSettings(**{name: getattr(show, name) for name in PutSettings.__struct_fields__})


def style_of(show: Show) -> PutStyle:
    """The change that would restore the show's present style."""
    return PutStyle(show.frame, show.theme, show.furniture)


def asset_index(show: Show, asset_id: str) -> int:
    """The asset's index on the shelf. Raises UnknownName."""
    for index, asset in enumerate(show.assets):
        if asset.id == asset_id:
            return index
    raise UnknownName(f"“{asset_id}” is not on the shelf of “{show.title}”.")


def apply_change(show: Show, change: Change) -> tuple[Show, Change]:
    """The changed show, and the change that undoes it exactly. Raises UnknownName where the change names something that
    is not there.
    """
    replace = msgspec.structs.replace
    slides = show.slides
    match change:
        case PutSlide(slide):
            at = slide_index(show, slide.id)
            return replace(show, slides=(*slides[:at], slide, *slides[at + 1 :])), PutSlide(slides[at])
        case InsertSlide(at, slide):
            at = max(0, min(at, len(slides)))
            return replace(show, slides=(*slides[:at], slide, *slides[at:])), RemoveSlide(slide.id)
        case RemoveSlide(slide_id):
            at = slide_index(show, slide_id)
            return replace(show, slides=(*slides[:at], *slides[at + 1 :])), InsertSlide(at, slides[at])
        case MoveSlide(slide_id, to):
            at = slide_index(show, slide_id)
            rest = (*slides[:at], *slides[at + 1 :])
            to = max(0, min(to, len(rest)))
            return replace(show, slides=(*rest[:to], slides[at], *rest[to:])), MoveSlide(slide_id, at)
        case PutSettings():
            return replace(show, **msgspec.structs.asdict(change)), settings_of(show)
        case PutStyle(frame, theme, furniture):
            return replace(show, frame=frame, theme=theme, furniture=furniture), style_of(show)
        case PutMusic(music):
            return replace(show, music=music), PutMusic(show.music)
        case PutMarks(marks):
            return replace(show, marks=marks), PutMarks(show.marks)
        case PutHabits(habits):
            return replace(show, habits=habits), PutHabits(show.habits)
        case InsertAsset(at, asset):
            assets = show.assets
            at = max(0, min(at, len(assets)))
            return replace(show, assets=(*assets[:at], asset, *assets[at:])), RemoveAsset(asset.id)
        case PutAsset(asset):
            at = asset_index(show, asset.id)
            return replace(show, assets=(*show.assets[:at], asset, *show.assets[at + 1 :])), PutAsset(show.assets[at])
        case RemoveAsset(asset_id):
            at = asset_index(show, asset_id)
            return replace(show, assets=(*show.assets[:at], *show.assets[at + 1 :])), InsertAsset(at, show.assets[at])


def changes_between(before: Show, after: Show) -> tuple[Change, ...]:
    """The changes from one state of a show to another, whatever edits led there."""
    found: list[Change] = []
    old, new = ({slide.id: slide for slide in show.slides} for show in (before, after))
    found += [RemoveSlide(key) for key in old if key not in new]
    found += [
        PutSlide(slide) for key, slide in new.items() if key in old and slide is not old[key] and slide != old[key]
    ]
    order = [key for key in old if key in new]
    for at, (key, slide) in enumerate(new.items()):
        if key not in old:
            found.append(InsertSlide(at, slide))
            order.insert(at, key)
        elif order[at] != key:
            found.append(MoveSlide(key, at))
            order.remove(key)
            order.insert(at, key)
    shelf, fresh = ({asset.id: asset for asset in show.assets} for show in (before, after))
    found += [RemoveAsset(key) for key in shelf if key not in fresh]
    found += [PutAsset(asset) for key, asset in fresh.items() if key in shelf and asset != shelf[key]]
    found += [InsertAsset(at, asset) for at, (key, asset) in enumerate(fresh.items()) if key not in shelf]
    parts = (settings_of, style_of, lambda show: PutMusic(show.music), lambda show: PutMarks(show.marks))
    for part in (*parts, lambda show: PutHabits(show.habits)):
        if part(before) != part(after):
            found.append(part(after))
    return tuple(found)


def apply_changes(show: Show, changes: tuple[Change, ...]) -> tuple[Show, tuple[Change, ...]]:
    """The show after all changes in order, and the changes that undo them in order."""
    undo: list[Change] = []
    for change in changes:
        show, inverse = apply_change(show, change)
        undo.append(inverse)
    return show, tuple(reversed(undo))
