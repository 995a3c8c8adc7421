"""Older steps of a history merged, one for each day, so that a log does not grow without end.

The show at the end of each day, and at each named point, can still be looked at and restored.
"""

from bisect import bisect_left
from collections.abc import Iterator
from datetime import datetime, timedelta

import msgspec
from django.conf import settings
from django.db import transaction
from django.db.models import Count
from django.db.models.functions import TruncDate
from django.utils import timezone

from ritornel.core.document.changes import apply_changes, changes_between
from ritornel.core.document.decoding import to_json
from ritornel.core.document.rebasing import state_before
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.wording import count_text
from ritornel.web.shows.history import inverse_of, pack
from ritornel.web.shows.models import Edit, Show
from ritornel.web.shows.persistence import value_of

NAMED = 3
"""So many of the steps are named by the line that stands for all of them."""


class _Day(msgspec.Struct):
    """Steps of one day without a named point between them, the latest first, with the show before and after them."""

    key: tuple[object, int]
    steps: list[Edit]
    before: ShowValue
    after: ShowValue


def _oldest_allowed() -> datetime | None:
    """Steps from before this time are merged; None where none are."""
    days = settings.HISTORY_DAYS
    return timezone.now() - timedelta(days=days) if days else None


def _days(row: Show, until: datetime) -> Iterator[_Day]:
    """The old steps by day, the latest first, as far as the log goes back without a gap."""
    points = sorted(set(row.points.values_list("revision", flat=True)))
    state, expected = value_of(row), row.revision
    day: _Day | None = None
    for step in row.edits.exclude(first_revision=0).order_by("-revision").iterator(chunk_size=200):
        if step.revision != expected:
            break
        expected = step.first_revision - 1
        before = state_before(state, (inverse_of(step),))
        if step.at < until:
            # A step that ends at a point with a name belongs before it: points 5 and 9, step 6 to 9: one lies before.
            key = (timezone.localtime(step.at).date(), bisect_left(points, step.revision))
            if day is not None and day.key == key:
                day.steps.append(step)
                day.before = before
            else:
                if day is not None:
                    yield day
                day = _Day(key, [step], before, state)
        state = before
    if day is not None:
        yield day


def _label(steps: list[Edit]) -> str:
    """`14 steps: Move 2 slides, Change text, Add a build …`, in the order they were made."""
    labels = list(dict.fromkeys(step.label for step in reversed(steps)))
    rest = " …" if len(labels) > NAMED else ""
    return f"{count_text(len(steps), 'step')}: {', '.join(labels[:NAMED])}{rest}"[:300]


def _put_together(day: _Day) -> bool:
    """Merges all steps of a day into one row; False where that would not give the same show, so that they stay."""
    changes, inverse = changes_between(day.before, day.after), changes_between(day.after, day.before)
    if apply_changes(day.before, changes)[0] != day.after or apply_changes(day.after, inverse)[0] != day.before:
        return False
    last, *others = day.steps
    ids = [step.pk for step in day.steps]
    # What took one of them back later stays in the log, without it.
    Edit.objects.filter(of__in=ids).update(of=None)
    if any(step.person_id != last.person_id for step in others):
        last.person = None
    last.kind, last.label, last.undone, last.dropped = Edit.Kind.KEPT, _label(day.steps), False, True
    last.batch, last.overruled, last.first_revision = "", [], day.steps[-1].first_revision
    last.changes, last.inverse = pack(changes), pack(inverse, to_json(changes))
    Edit.objects.filter(pk__in=ids[1:]).delete()
    last.save()
    return True


def thin_history(show_id: str) -> int:
    """Merges the older steps of a show; returns how many fewer there are."""
    until = _oldest_allowed()
    if until is None:
        return 0
    with transaction.atomic():
        row = Show.everywhere.select_for_update().get(pk=show_id)
        days = [day for day in _days(row, until) if len(day.steps) > 1]
        return sum(len(day.steps) - 1 for day in days if _put_together(day))


def thinnable_shows() -> list[str]:
    """The shows with two or more older steps on a day."""
    until = _oldest_allowed()
    if until is None:
        return []
    old = Edit.objects.filter(at__lt=until).exclude(first_revision=0).annotate(day=TruncDate("at"))
    counts = old.values("show_id", "day").annotate(steps=Count("pk")).filter(steps__gt=1)
    return sorted(set(counts.values_list("show_id", flat=True)))
