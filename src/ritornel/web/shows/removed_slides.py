"""Slides that were removed from a show: the history has them, and from there they come back."""

from datetime import datetime, timedelta

import msgspec
from django.conf import settings
from django.contrib.auth.models import User
from django.utils import timezone

from ritornel.core.document.changes import InsertSlide, RemoveSlide
from ritornel.core.document.show import Show as ShowValue
from ritornel.web.shows.history import changes_of, inverse_of
from ritornel.web.shows.models import Show


class RemovedSlide(msgspec.Struct, frozen=True):
    """A slide that is gone: what it was called, who removed it when, and the last revision that had it."""

    slide_id: str
    name: str
    person: User | None
    at: datetime
    revision: int


def removed_slides(row: Show, now: ShowValue) -> tuple[RemovedSlide, ...]:
    """The slides that were removed while things lie in the bin (`BIN_DAYS`) and are not back, the one removed last
    first.
    """
    present = {slide.id for slide in now.slides}
    since = timezone.now() - timedelta(days=settings.BIN_DAYS)
    steps = row.edits.filter(at__gt=since).exclude(first_revision=0).order_by("-revision").select_related("person")
    found: dict[str, RemovedSlide] = {}
    for step in steps.iterator(chunk_size=200):
        gone = [change.slide_id for change in changes_of(step) if isinstance(change, RemoveSlide)]
        gone = [slide_id for slide_id in gone if slide_id not in present and slide_id not in found]
        if not gone:
            continue
        names = {change.slide.id: change.slide.name for change in inverse_of(step) if isinstance(change, InsertSlide)}
        for slide_id in gone:
            if slide_id in names:
                found[slide_id] = RemovedSlide(
                    slide_id, names[slide_id] or "Untitled", step.person, step.at, step.first_revision - 1
                )
    return tuple(found.values())
