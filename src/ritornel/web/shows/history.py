"""A show's log: every step with its inverse, from which any earlier state can be computed."""

import zlib
from typing import Any

import msgspec
from django.contrib.auth.models import User
from django.db.models import QuerySet

from ritornel.core.document.changes import Change, InsertAsset
from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.edits import EditOutcome, make_changes
from ritornel.core.document.merging import Path, value_at
from ritornel.core.document.rebasing import place_words, revert_step, state_before
from ritornel.core.document.show import Show as ShowValue
from ritornel.web.people.services import called
from ritornel.web.shows.models import Edit, Show
from ritornel.web.shows.persistence import keep_value, write_changes

_CHANGES = tuple[Change, ...]
_PLAIN = b"["
"""How a step begins that was kept as plain JSON, by an earlier version."""
MOST_STEPS = 500
"""An edit made on a state further back than this is not brought onto the one of now."""
_WINDOW = 32_768
"""So much of what came before a compressor looks back at (RFC 1950)."""


def pack(changes: _CHANGES, beside: bytes = b"") -> bytes:
    """Changes in their stored form: compressed JSON. `beside` is similar JSON, such as that of the inverse."""
    squeeze = zlib.compressobj(6, zdict=beside[:_WINDOW]) if beside else zlib.compressobj(6)
    return squeeze.compress(to_json(changes)) + squeeze.flush()


def _unpack(data: bytes, beside: bytes = b"") -> bytes:
    if data[:1] == _PLAIN:
        return data
    open_up = zlib.decompressobj(zdict=beside[:_WINDOW]) if beside else zlib.decompressobj()
    return open_up.decompress(data) + open_up.flush()


def step_texts(changes: bytes | memoryview, inverse: bytes | memoryview) -> tuple[bytes, bytes]:
    """The changes of a step and their inverse, as JSON, from its row's two columns."""
    made = _unpack(bytes(changes))
    undone = bytes(inverse)
    return made, undone if undone[:1] == _PLAIN else _unpack(undone, made)


def changes_of(step: Edit) -> _CHANGES:
    """The changes of a step."""
    return from_json(step_texts(step.changes, step.inverse)[0], _CHANGES, "The history")


def inverse_of(step: Edit) -> _CHANGES:
    """The inverse of a step."""
    return from_json(step_texts(step.changes, step.inverse)[1], _CHANGES, "The history")


def write_step(
    row: Show,
    person: User,
    outcome: EditOutcome,
    *,
    kind: str = Edit.Kind.EDIT,
    of: Edit | None = None,
    batch: str = "",
    overruled: tuple[Any, ...] = (),
) -> None:
    """Writes the changes of a step, increases the revision, and adds the step to the log: an edit of the same batch as
    the last step joins that step.
    """
    write_changes(row, outcome.changes)
    row.revision += 1
    row.save()
    keep_value(row, outcome.show)
    if kind == Edit.Kind.EDIT:
        row.edits.filter(person=person, undone=True, dropped=False).update(dropped=True)
    last = row.edits.last() if batch else None
    changes, inverse = outcome.changes, outcome.inverse
    joins = last is not None and last.batch == batch and last.person_id == person.pk
    if last is not None and joins:
        changes, inverse = (*changes_of(last), *changes), (*inverse, *inverse_of(last))
        if all(isinstance(change, InsertAsset) for change in changes):
            last.label = f"Put {len(changes)} files on the shelf"
        last.changes, last.inverse = pack(changes), pack(inverse, to_json(changes))
        last.revision = row.revision
        last.save(update_fields=["changes", "inverse", "label", "revision"])
        return
    row.edits.create(
        person=person,
        kind=kind,
        of=of,
        label=outcome.label[:300],
        changes=pack(changes),
        inverse=pack(inverse, to_json(changes)),
        batch=batch,
        first_revision=row.revision,
        revision=row.revision,
        overruled=msgspec.to_builtins(overruled),
    )


def steps_since(row: Show, revision: int, most: int | None = None) -> list[Edit] | None:
    """The steps after a revision, the latest first, at most `most` (None: MOST_STEPS); None where the log does not
    reach back to it, where that is too far, or where that revision is in the middle of a step.
    """
    if not 0 <= row.revision - revision <= (MOST_STEPS if most is None else most):
        return None
    steps = list(
        row.edits.filter(revision__gt=revision, revision__lte=row.revision)
        .order_by("-revision")
        .select_related("person")
    )
    expected = row.revision
    for step in steps:
        if step.revision != expected or not step.first_revision:
            return None
        expected = step.first_revision - 1
    return steps if expected == revision else None


def state_at(now: ShowValue, steps: list[Edit]) -> ShowValue:
    """The show before those steps; the latest step comes first."""
    return state_before(now, tuple(inverse_of(step) for step in steps))


def state_of_revision(row: Show, now: ShowValue, revision: int) -> ShowValue | None:
    """The show as it was at a revision; None where the log does not reach back to it."""
    steps = steps_since(row, revision, most=row.revision)
    return None if steps is None else state_at(now, steps)


def steps_with_states(
    row: Show, now: ShowValue, revision: int, most: int
) -> list[tuple[Edit, ShowValue, ShowValue]] | None:
    """The steps from a revision to the row's, the earliest first, each with the show before and after it; None where
    there are more than `most` or the log does not reach back.
    """
    found = []
    for step in steps_since(row, revision, most) or ():
        before = state_at(now, [step])
        found.append((step, before, now))
        now = before
    return found[::-1] or None


def maker_of(steps: list[Edit], now: ShowValue, path: Path) -> User | None:
    """The person who last changed the value at a place."""
    later = now
    for step in steps:
        earlier = state_before(later, (inverse_of(step),))
        if value_at(earlier, path) != value_at(later, path):
            return step.person
        later = earlier
    return None


def _standing(row: Show, person: User) -> QuerySet[Edit]:
    """The person's steps that are in effect, in order."""
    return row.edits.filter(person=person, kind=Edit.Kind.EDIT, undone=False)


def _undone(row: Show, person: User) -> QuerySet[Edit]:
    """The person's undone steps that can be made again, the last undone first."""
    return row.edits.filter(person=person, kind=Edit.Kind.EDIT, undone=True, dropped=False)


def step_to_undo(row: Show, person: User) -> Edit | None:
    """The person's last step that is in effect."""
    return _standing(row, person).last()


def step_to_redo(row: Show, person: User) -> Edit | None:
    """The person's last undone step, unless they have changed something since."""
    return _undone(row, person).first()


def revert(row: Show, step: Edit, now: ShowValue, back: bool) -> tuple[EditOutcome, tuple[str, ...]]:
    """The result of undoing a step now, or making it again, and messages about values that others changed since."""
    # What is taken back is the step itself, or the return of it that made it stand as it does.
    kind = Edit.Kind.REDO if back else Edit.Kind.UNDO
    made = row.edits.filter(of=step, kind=kind).last() or step
    if not made.first_revision:
        # A step of an earlier version, whose place in the log is not known: it is taken back as it was.
        changes = inverse_of(step) if back else changes_of(step)
        return make_changes(now, changes, step.label), ()
    since = steps_since(row, made.revision, most=row.revision)
    if since is None:
        return revert_step(now, now, now, step.label).outcome, (
            f"“{step.label}” is too long ago to be taken back by itself.",
        )
    after = state_at(now, since)
    before = state_before(after, (inverse_of(made),))
    found = revert_step(after, before, now, step.label)
    told = []
    for met in found.collisions:
        who = maker_of(since, now, met.path)
        told.append(f"{called(who) if who else 'Somebody'} has changed {place_words(now, met.path)} since; that stays.")
    return found.outcome, tuple(dict.fromkeys(told))[:3]


def history_labels(row: Show, person: User | None = None) -> dict[str, str | None]:
    """The labels of undo and redo for the person who asks: the one the row was loaded for, if no other is named."""
    asking = person or row.asked_by
    if asking is None:
        return {"undo": None, "redo": None}
    return {
        "undo": _standing(row, asking).values_list("label", flat=True).last(),
        "redo": _undone(row, asking).values_list("label", flat=True).first(),
    }


def people_involved(step: Edit) -> set[int]:
    """The maker of a step, and the people whose values it replaced."""
    return {person for person in (step.person_id, *(entry["person"] for entry in step.overruled)) if person is not None}


def overruled_since(row: Show, person: User, revision: int) -> list[dict[str, Any]]:
    """The person's own values that others replaced since a revision, with their present values."""
    return [
        {**entry, "by": called(step.person) if step.person else "Somebody else"}
        for step in row.edits.filter(revision__gt=revision).exclude(overruled=[]).select_related("person")
        if step.person_id != person.pk
        for entry in step.overruled
        if entry["person"] == person.pk
    ]
