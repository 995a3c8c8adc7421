"""Edits come in here: checked and applied by the core, stored with their inverse, all in one transaction."""

from collections.abc import Collection

import msgspec
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q

from ritornel.core.document.changes import Change, InsertAsset, apply_changes
from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.edits import Edit as EditValue
from ritornel.core.document.edits import EditOutcome, apply_edit
from ritornel.core.document.show import Asset as AssetValue
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.layout.faces import check_family
from ritornel.core.motion.catalogue import effect_named
from ritornel.core.schedule.performance import stage_slide
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.web.config.replies import AlreadyDone, Conflict
from ritornel.web.people.services import Act, access_of, shows_open_to
from ritornel.web.shows.models import Asset, Edit, Show
from ritornel.web.shows.persistence import asset_of_row, value_of, write_changes

_CHANGES = tuple[Change, ...]


class StaleRevision(Conflict):
    """The show was changed elsewhere since the sender last saw it."""


class AlreadyMade(AlreadyDone):
    """The edit was made when it was sent before; its answer did not arrive. `revision` is the show's now."""

    def __init__(self, revision: int) -> None:
        super().__init__("This was made already.", revision)


class Edited(msgspec.Struct, frozen=True):
    """A show before and after, its new revision, and what the maker is told."""

    before: ShowValue
    after: ShowValue
    revision: int
    label: str
    notices: tuple[str, ...] = ()


def _locked(show_id: str, person: User, revision: int | None, act: Act = "edit", edit_id: str = "") -> Show:
    row = Show.objects.select_for_update().get(pk=show_id)
    access = access_of(show_id, row.owner_id, person)
    if access is None or not access.may(act):
        raise Show.DoesNotExist
    if edit_id:
        # In the transaction of the edit: one that is not made is not noted either.
        _, fresh = row.received_edits.get_or_create(edit_id=edit_id)
        if not fresh:
            raise AlreadyMade(row.revision)
    if revision is not None and row.revision != revision:
        raise StaleRevision(
            f"“{row.title}” was changed elsewhere in the meantime. Your change was not made; look at the "
            "show as it is now and make it again."
        )
    return row


def _check_performable(before: ShowValue, after: ShowValue) -> None:
    """Refuses effects, fonts and transitions that do not exist, looking only at slides that changed.

    Another theme is looked at once for its own fonts: what else a slide needs was checked when it came.
    """
    known = {id(slide) for slide in before.slides}
    effect_named(after.habits.effect)
    scenery = scenery_of(after)
    if before.theme != after.theme:
        check_family(after.theme.heading_family)
        check_family(after.theme.body_family)
    for slide in after.slides:
        if id(slide) not in known:
            stage_slide(slide, compile_slide(slide, after.default_hold_ms, after.holds_by_cue, after.frame), scenery)


def would_be(show: ShowValue, edit: EditValue, person: User) -> ShowValue:
    """The show as the edit would make it; nothing is kept. Raises what making it would raise."""
    after = apply_edit(show, edit).show
    check_new_assets(show, after, person, ())
    _check_performable(show, after)
    return after


def _write(row: Show, changes: tuple[Change, ...]) -> None:
    write_changes(row, changes)
    row.revision += 1
    row.save()


def check_new_assets(before: ShowValue, after: ShowValue, person: User, stored: Collection[AssetValue]) -> None:
    """Refuses assets that come with an edit unless their files do: they were `stored` a moment ago, or a show that the
    person may see holds the same. So nobody gets a file, or learns that it exists, by knowing its hash. Raises
    BadMedia.
    """
    known = {_facts(asset) for asset in (*before.assets, *stored)}
    fresh = [asset for asset in after.assets if _facts(asset) not in known]
    if not fresh:
        return
    rows = Asset.objects.filter(sha256__in={asset.sha256 for asset in fresh}).filter(
        Q(show__owner=person) | Q(show__in=shows_open_to(person, "watch"))
    )
    seen = {_facts(asset_of_row(body)) for body in rows.values_list("body", flat=True)}
    for asset in fresh:
        if _facts(asset) not in seen:
            raise BadMedia(
                f"There is no file for “{asset.name}” on a shelf of yours. Add the file itself. Nothing was changed."
            )


def _facts(asset: AssetValue) -> tuple[object, ...]:
    """What a file is, whatever it is called and wherever it lies."""
    names = ("sha256", "media_type", "size_bytes", "width_px", "height_px", "lasts_ms", "silent", "heavy")
    return tuple(getattr(asset, name) for name in names)


def edit_show(
    show_id: str,
    person: User,
    edit: EditValue,
    revision: int | None = None,
    batch: str = "",
    act: Act = "edit",
    stored: Collection[AssetValue] = (),
    edit_id: str = "",
) -> Edited:
    """Makes the edit. Edits in a row with the same `batch` are undone as one. `stored` are assets whose files the
    caller has just kept. An `edit_id` is made once; an edit that comes to no changes is no step of the history.
    Raises Show.DoesNotExist for a show that the person may not edit, StaleRevision, AlreadyMade, BadMedia for assets
    without files, or what the core says. With `act` it is enough to may do that: whoever calls has seen to what the
    edit touches.
    """
    with transaction.atomic():
        row = _locked(show_id, person, revision, act, edit_id)
        before = value_of(row)
        outcome = apply_edit(before, edit)
        if not outcome.changes:
            return Edited(before, before, row.revision, outcome.label, outcome.notices)
        check_new_assets(before, outcome.show, person, stored)
        _check_performable(before, outcome.show)
        _write(row, outcome.changes)
        row.edits.filter(undone=True).delete()
        _remember(row, person, outcome, batch)
    return Edited(before, outcome.show, row.revision, outcome.label, outcome.notices)


def _remember(row: Show, person: User, outcome: EditOutcome, batch: str) -> None:
    """Writes the edit into the history, or adds it to the step before where that is of the same batch."""
    last = row.edits.last() if batch else None
    if last is None or last.batch != batch or last.person_id != person.pk:
        row.edits.create(
            person=person,
            label=outcome.label[:300],
            changes=to_json(outcome.changes),
            inverse=to_json(outcome.inverse),
            batch=batch,
        )
        return
    changes, inverse = (from_json(bytes(data), _CHANGES, "The history") for data in (last.changes, last.inverse))
    count = len(changes) + len(outcome.changes)
    last.changes, last.inverse = to_json((*changes, *outcome.changes)), to_json((*outcome.inverse, *inverse))
    last.label = (
        (f"Put {count} files on the shelf")
        if all(isinstance(change, InsertAsset) for change in changes)
        else last.label
    )
    last.save(update_fields=["changes", "inverse", "label"])


def undo(show_id: str, person: User, edit_id: str = "") -> Edited | None:
    """Takes the last edit back; None where there is none."""
    with transaction.atomic():
        row = _locked(show_id, person, None, edit_id=edit_id)
        last = row.edits.filter(undone=False).last()
        return None if last is None else _replay(row, last, bytes(last.inverse), undone=True)


def redo(show_id: str, person: User, edit_id: str = "") -> Edited | None:
    """Does the edit undone last again; None where there is none."""
    with transaction.atomic():
        row = _locked(show_id, person, None, edit_id=edit_id)
        first = row.edits.filter(undone=True).first()
        return None if first is None else _replay(row, first, bytes(first.changes), undone=False)


def _replay(row: Show, edit: Edit, data: bytes, undone: bool) -> Edited:
    changes = from_json(data, _CHANGES, "The history")
    before = value_of(row)
    after, _ = apply_changes(before, changes)
    _write(row, changes)
    edit.undone = undone
    edit.save(update_fields=["undone"])
    return Edited(before, after, row.revision, edit.label)


def history_labels(row: Show) -> dict[str, str | None]:
    """What undo and redo would do next."""
    last = row.edits.filter(undone=False).values_list("label", flat=True).last()
    following = row.edits.filter(undone=True).values_list("label", flat=True).first()
    return {"undo": last, "redo": following}
