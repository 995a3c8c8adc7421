"""Rows to values and back: loading a show, and writing only the rows that a change touches."""

from collections.abc import Iterable
from functools import lru_cache
from typing import Any, cast

from django.db import connection, transaction
from django.db.models import F

from ritornel.core.document import changes as c
from ritornel.core.document.decoding import from_builtins, from_json, to_builtins, to_json
from ritornel.core.document.show import Asset as AssetValue
from ritornel.core.document.show import Frame, Habits, MusicSpan, NamedMark
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.document.show import Slide as SlideValue
from ritornel.core.document.theme import Furniture, Theme
from ritornel.web.shows.models import Asset, Show, Slide
from ritornel.web.shows.recent_shows import Parts, recent_shows


@lru_cache(maxsize=1000)
def _slide_of(body: bytes) -> SlideValue:
    """The slide in these bytes.

    The same bytes give the same frozen value, so an edit of one slide decodes one slide and not two hundred.
    """
    return from_json(body, SlideValue, "A slide")


@lru_cache(maxsize=2000)
def _asset_of(body: bytes) -> AssetValue:
    return from_json(body, AssetValue, "The shelf")


def asset_of_row(body: bytes | memoryview) -> AssetValue:
    """The asset in the body of its row."""
    return _asset_of(bytes(body))


def value_of(row: Show) -> ShowValue:
    """The whole show at its row's revision: at most three queries besides the row's own, whatever its length."""
    key = (row.pk, row.created_at, row.revision)
    parts = recent_shows().get(key)
    if parts is None:
        bodies = (row.slides.values_list("body", flat=True), row.assets.values_list("body", flat=True))
        parts = _parts_of(*bodies)
        # Only what is written is kept: nothing that may be taken back, or that was written while it was read.
        kept = not connection.in_atomic_block
        if kept and Show.everywhere.filter(pk=row.pk, revision=row.revision).exists():
            recent_shows().put(key, parts)
    return _value(row, *parts)


def read_show(show_id: str) -> tuple[Show, ShowValue]:
    """A show as it is stored, while others may write it.

    A transaction would wait for all of them; where somebody wrote during the reading, it is read again. Raises
    Show.DoesNotExist.
    """
    row = Show.objects.get(pk=show_id)
    while True:
        value = value_of(row)
        written = Show.objects.get(pk=show_id)
        if written.revision == row.revision:
            return row, value
        row = written


def keep_value(row: Show, show: ShowValue) -> None:
    """Keeps a show that was just written for the next reader, once the transaction is committed."""
    key = (row.pk, row.created_at, row.revision)
    transaction.on_commit(lambda: recent_shows().put(key, (show.slides, show.assets)))


def value_with(row: Show, slides: Iterable[bytes | memoryview], assets: Iterable[bytes | memoryview]) -> ShowValue:
    """The whole show, where the bodies of its slides and assets are loaded already: no query."""
    return _value(row, *_parts_of(slides, assets))


def _parts_of(slides: Iterable[bytes | memoryview], assets: Iterable[bytes | memoryview]) -> Parts:
    return tuple(_slide_of(bytes(body)) for body in slides), tuple(_asset_of(bytes(body)) for body in assets)


def _value(row: Show, slides: tuple[SlideValue, ...], assets: tuple[AssetValue, ...]) -> ShowValue:
    return ShowValue(
        row.id,
        row.title,
        from_builtins(row.frame, Frame, "The frame"),
        row.default_hold_ms,
        cast(Any, row.end),
        cast(Any, row.runs),
        slides,
        from_builtins(row.music, tuple[MusicSpan, ...], "The music"),
        assets,
        row.holds_by_cue,
        from_builtins(row.theme, Theme, "The theme"),
        from_builtins(row.furniture, Furniture, "What stands on every slide"),
        from_builtins(row.marks, tuple[NamedMark, ...], "The marks"),
        from_builtins(row.habits, Habits, "The habits"),
        row.voices_live,
        row.follows_take,
        row.language,
        row.notes_as_captions,
    )


def create_rows(row: Show, show: ShowValue) -> None:
    """Writes a new show's rows. `row` has its owner already."""
    _copy_settings(row, c.settings_of(show))
    _copy_style(row, c.style_of(show))
    row.music, row.marks, row.habits = to_builtins(show.music), to_builtins(show.marks), to_builtins(show.habits)
    row.save()
    Slide.objects.bulk_create(
        Slide(show=row, slide_id=s.id, position=n, body=to_json(s)) for n, s in enumerate(show.slides)
    )
    Asset.objects.bulk_create(
        Asset(show=row, asset_id=a.id, position=n, sha256=a.sha256, body=to_json(a)) for n, a in enumerate(show.assets)
    )


def _copy_settings(row: Show, settings: c.PutSettings) -> None:
    row.title, row.default_hold_ms, row.end = settings.title, settings.default_hold_ms, settings.end
    row.runs, row.holds_by_cue, row.voices_live = settings.runs, settings.holds_by_cue, settings.voices_live
    row.follows_take, row.language = settings.follows_take, settings.language
    row.notes_as_captions = settings.notes_as_captions


def _copy_style(row: Show, style: c.PutStyle) -> None:
    row.frame, row.theme, row.furniture = (
        to_builtins(style.frame),
        to_builtins(style.theme),
        to_builtins(style.furniture),
    )


def _open_gap(row: Show, at: int) -> None:
    row.slides.filter(position__gte=at).update(position=F("position") + 1)


def write_changes(row: Show, changes: Iterable[c.Change]) -> None:
    """Writes what the changes touch; `row` itself is saved by the caller. Positions stay 0, 1, 2 ... without gaps."""
    for change in changes:
        match change:
            case c.PutSlide(slide):
                row.slides.filter(slide_id=slide.id).update(body=to_json(slide))
            case c.InsertSlide(at, slide):
                at = max(0, min(at, row.slides.count()))
                _open_gap(row, at)
                row.slides.create(slide_id=slide.id, position=at, body=to_json(slide))
            case c.RemoveSlide(slide_id):
                gone = row.slides.get(slide_id=slide_id)
                gone.delete()
                row.slides.filter(position__gt=gone.position).update(position=F("position") - 1)
            case c.MoveSlide(slide_id, to):
                moved = row.slides.get(slide_id=slide_id)
                to = max(0, min(to, row.slides.count() - 1))
                others = row.slides.exclude(pk=moved.pk)
                others.filter(position__gt=moved.position).update(position=F("position") - 1)
                others.filter(position__gte=to).update(position=F("position") + 1)
                Slide.objects.filter(pk=moved.pk).update(position=to)
            case c.PutSettings():
                _copy_settings(row, change)
            case c.PutStyle():
                _copy_style(row, change)
            case c.PutMusic(music):
                row.music = to_builtins(music)
            case c.PutMarks(marks):
                row.marks = to_builtins(marks)
            case c.PutHabits(habits):
                row.habits = to_builtins(habits)
            case c.InsertAsset(at, asset):
                row.assets.filter(position__gte=at).update(position=F("position") + 1)
                row.assets.create(asset_id=asset.id, position=at, sha256=asset.sha256, body=to_json(asset))
            case c.PutAsset(asset):
                row.assets.filter(asset_id=asset.id).update(sha256=asset.sha256, body=to_json(asset))
            case c.RemoveAsset(asset_id):
                lost = row.assets.get(asset_id=asset_id)
                lost.delete()
                row.assets.filter(position__gt=lost.position).update(position=F("position") - 1)
