"""Edits: checked and applied by the core, merged with the edits of others, and stored with their inverse, all in one
transaction.
"""

from collections.abc import Callable, Collection
from functools import lru_cache
from threading import Lock
from typing import Any

import msgspec
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q

from ritornel.core.document.changes import changes_between
from ritornel.core.document.edits import Edit as EditValue
from ritornel.core.document.edits import EditOutcome, apply_edit, make_changes
from ritornel.core.document.merging import GONE, Collision, value_at
from ritornel.core.document.rebasing import (
    json_of,
    place_words,
    rebase_edit,
    restore_entry,
    restore_slide,
    value_words,
)
from ritornel.core.document.show import Asset as AssetValue
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.document.turning_points import turning_point
from ritornel.core.errors import BadMedia, BadValue, RitornelError
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.layout.faces import check_family
from ritornel.core.motion.catalogue import effect_named
from ritornel.core.schedule.performance import stage_slide
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.web.config.replies import AlreadyDone, Conflict
from ritornel.web.people.services import Act, access_of, called, shows_open_to
from ritornel.web.shows.history import (
    maker_of,
    revert,
    state_at,
    state_of_revision,
    step_to_redo,
    step_to_undo,
    steps_since,
    write_step,
)
from ritornel.web.shows.models import Asset, Edit, Show
from ritornel.web.shows.persistence import asset_of_row, value_of


class StaleRevision(Conflict):
    """The show was changed elsewhere since the sender last loaded it."""


class AlreadyMade(AlreadyDone):
    """The edit was already made when it was first sent; its answer was lost. `revision` is the show's present one."""

    def __init__(self, revision: int) -> None:
        super().__init__("This was made already.", revision)


class GoneMeanwhile(Conflict):
    """Somebody else removed what the edit is about; `ids` are the things that would come back with it."""

    def __init__(self, message: str, ids: tuple[str, ...]) -> None:
        super().__init__(message)
        self.ids = ids

    def more(self) -> dict[str, Any]:
        """Further fields of the answer, beside the message."""
        return {"gone": self.ids, "stale": True}


class Overruled(msgspec.Struct, frozen=True):
    """A value that two people changed at the same time: its name, who changed it first, both values in words, and the
    place and value that would restore the first one.
    """

    what: str
    who: str
    person: int | None
    other: str
    own: str
    path: tuple[str, ...]
    value: Any


class Edited(msgspec.Struct, frozen=True):
    """A show before and after, its new revision, and messages for the maker. `before` is the state the maker had."""

    before: ShowValue
    after: ShowValue
    revision: int
    label: str
    notices: tuple[str, ...] = ()
    overruled: tuple[Overruled, ...] = ()
    since: int = 0
    """The revision of `before`."""


class Plan(msgspec.Struct, frozen=True):
    """The result of an edit, its revision to be known when it is written, and the function that writes it; None for
    nothing.
    """

    edited: Edited
    write: Callable[[Show], None] | None = None


@lru_cache(maxsize=2000)
def _turn_at(show_id: str) -> Lock:
    """The lock that editors of one show in this process take in turn: each then computes on the result of the one
    before, and nobody computes twice.
    """
    return Lock()


def _found(show_id: str, person: User, act: Act) -> Show:
    row = Show.objects.get(pk=show_id)
    access = access_of(show_id, row.owner_id, person)
    if access is None or not access.may(act):
        raise Show.DoesNotExist
    return row


def _make(
    show_id: str, person: User, plan: Callable[[Show, ShowValue], Plan], act: Act = "edit", edit_id: str = ""
) -> Edited:
    """Makes the plan on the present show. It is computed before the transaction, so that the database is locked only
    for writing; where another process has written in the meantime, it is computed again.
    """
    with _turn_at(show_id):
        while True:
            row = _found(show_id, person, act)
            if edit_id and row.received_edits.filter(edit_id=edit_id).exists():
                raise AlreadyMade(row.revision)
            planned = plan(row, value_of(row))
            with transaction.atomic():
                # Read again: what has no revision, such as the show's folder or that it lies in the bin, must not be
                # written as it was; and who edits may have been shut out.
                locked = _found(show_id, person, act)
                if locked.revision != row.revision:
                    continue
                if edit_id:
                    # In the transaction of the edit: one that is not made is not noted either.
                    _, fresh = locked.received_edits.get_or_create(edit_id=edit_id)
                    if not fresh:
                        raise AlreadyMade(locked.revision)
                if planned.write is not None:
                    planned.write(locked)
            return msgspec.structs.replace(planned.edited, revision=locked.revision)


def _check_performable(before: ShowValue, after: ShowValue) -> None:
    """Refuses unknown effects, fonts and transitions, in changed slides only.

    A new theme is checked once for its own fonts: everything else was checked when it came in.
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
    """The show as the edit would make it; nothing is saved. Raises what making it would raise."""
    after = apply_edit(show, edit).show
    check_new_assets(show, after, person, ())
    _check_performable(show, after)
    return after


def check_new_assets(before: ShowValue, after: ShowValue, person: User, stored: Collection[AssetValue]) -> None:
    """Refuses new assets in an edit unless their files are known: they were `stored` a moment ago, or a show that the
    person may see has the same file. So knowing a hash gives nobody the file, nor the knowledge that it exists. Raises
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
    """The facts of a file, whatever its name and place."""
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
    restored: frozenset[str] = frozenset(),
) -> Edited:
    """Makes the edit.

    Consecutive edits with the same `batch` are undone as one. `stored` are assets whose files the caller has just
    stored. An `edit_id` is made once; an edit without changes is no step of the history. With an older `revision`, the
    edit is merged with the edits of others since then (core/document/rebasing.py); `restored` are ids of what comes
    back with it. Raises Show.DoesNotExist for a show that the person may not edit, StaleRevision where it does not fit
    the show any more, GoneMeanwhile, AlreadyMade, BadMedia for assets without files, or errors of the core. With `act`
    the right to that act is enough: the caller has checked what the edit touches.
    """

    def plan(row: Show, now: ShowValue) -> Plan:
        overruled: tuple[Overruled, ...] = ()
        base = now
        if revision is None or revision == row.revision:
            outcome = apply_edit(now, edit)
        else:
            base, outcome, overruled = _rebase(row, now, edit, revision, person, restored)
        since = row.revision if base is now or revision is None else revision
        edited = Edited(base, outcome.show, row.revision, outcome.label, outcome.notices, overruled, since)
        if not outcome.changes:
            return Plan(msgspec.structs.replace(edited, after=now))
        check_new_assets(now, outcome.show, person, stored)
        _check_performable(now, outcome.show)
        name = turning_point(now, outcome.show)

        def write(row: Show) -> None:
            if name:
                row.points.create(person=person, revision=row.revision, name=name)
            write_step(row, person, outcome, batch=batch, overruled=overruled)

        return Plan(edited, write)

    return _make(show_id, person, plan, act, edit_id)


def _rebase(
    row: Show, now: ShowValue, edit: EditValue, revision: int, person: User, restored: frozenset[str]
) -> tuple[ShowValue, EditOutcome, tuple[Overruled, ...]]:
    """The state the maker had, and the outcome of the edit on the present show."""
    steps = steps_since(row, revision)
    if steps is None:
        raise _stale(row)
    base = state_at(now, steps)
    try:
        found = rebase_edit(base, now, edit, restored)
    except RitornelError as error:
        if _is_possible(base, edit):
            raise _stale(row) from error
        raise
    gone = tuple(path for path in found.removed if not restored.intersection(path))
    if gone:
        names = ", ".join(dict.fromkeys(place_words(base, path) for path in gone))
        who = maker_of(steps, now, gone[0])
        raise GoneMeanwhile(
            f"{called(who) if who else 'Somebody else'} removed {names} meanwhile, so your change was not made.",
            tuple(dict.fromkeys(path[-1] for path in gone)),
        )
    return base, found.outcome, _overruled(found.collisions, steps, now, found.outcome.show, person)


def _is_possible(base: ShowValue, edit: EditValue) -> bool:
    """Whether the edit was possible on the state its maker saw: if not, its own error is reported as usual."""
    try:
        apply_edit(base, edit)
    except RitornelError:
        return False
    return True


def _stale(row: Show) -> StaleRevision:
    return StaleRevision(
        f"“{row.title}” was changed elsewhere in the meantime. Your change was not made; look at the "
        "show as it is now and make it again."
    )


def _overruled(
    collisions: tuple[Collision, ...], steps: list[Edit], now: ShowValue, after: ShowValue, person: User
) -> tuple[Overruled, ...]:
    """The values of others that this edit replaced."""
    found = []
    for met in collisions:
        if met.theirs is GONE or met.path[-1] == "#order" or value_at(after, met.path) == met.theirs:
            continue
        who = maker_of(steps, now, met.path)
        if who is not None and who.pk == person.pk:
            continue
        field = met.path[-1]
        words = (value_words(met.theirs, field), value_words(met.mine, field))
        name = called(who) if who else "Somebody else"
        found.append(
            Overruled(place_words(now, met.path), name, who.pk if who else None, *words, met.path, json_of(met.theirs))
        )
    return tuple(found)


def bring_back(show_id: str, person: User, revision: int, label: str, slide_id: str = "", asset_id: str = "") -> Edited:
    """Returns the show, or one slide or entry of its shelf, to a revision: a step like any other. Raises BadValue where
    the log does not reach back to it, UnknownName for what was not there.
    """

    def plan(row: Show, now: ShowValue) -> Plan:
        then = state_of_revision(row, now, revision)
        if then is None:
            raise BadValue("The history does not reach back to this point. Nothing was changed.", "revision")
        wanted = then
        if slide_id:
            wanted = restore_slide(now, then, slide_id)
        elif asset_id:
            wanted = restore_entry(now, then, asset_id)
        outcome = make_changes(now, changes_between(now, wanted), label)
        edited = Edited(now, outcome.show, row.revision, outcome.label, outcome.notices, since=row.revision)
        if not outcome.changes:
            return Plan(edited)
        _check_performable(now, outcome.show)
        return Plan(edited, lambda row: write_step(row, person, outcome))

    return _make(show_id, person, plan)


def undo(show_id: str, person: User, edit_id: str = "", revision: int | None = None) -> Edited | None:
    """Undoes the person's own last step and keeps what others did since; None where there is none."""
    return _return(show_id, person, edit_id, revision, back=True)


def redo(show_id: str, person: User, edit_id: str = "", revision: int | None = None) -> Edited | None:
    """Makes the person's own last undone step again; None where there is none."""
    return _return(show_id, person, edit_id, revision, back=False)


def _return(show_id: str, person: User, edit_id: str, revision: int | None, back: bool) -> Edited | None:

    def plan(row: Show, now: ShowValue) -> Plan:
        step = step_to_undo(row, person) if back else step_to_redo(row, person)
        if step is None:
            return Plan(Edited(now, now, row.revision, ""))
        since = row.revision if revision is None else revision
        steps = steps_since(row, since)
        since, base = (row.revision, now) if steps is None else (since, state_at(now, steps))
        outcome, kept = revert(row, step, now, back)
        if outcome.changes:
            _check_performable(now, outcome.show)

        def write(row: Show) -> None:
            write_step(row, person, outcome, kind=Edit.Kind.UNDO if back else Edit.Kind.REDO, of=step)
            step.undone = back
            step.save(update_fields=["undone"])

        notices = (*outcome.notices, *kept)
        return Plan(Edited(base, outcome.show, row.revision, step.label, notices, since=since), write)

    made = _make(show_id, person, plan, edit_id=edit_id)
    return made if made.label else None
