"""Removed slides and entries of a show's shelf: they are found in its log and restored from there."""

from datetime import datetime, timedelta
from typing import Literal

import msgspec
from django.conf import settings
from django.contrib.auth.models import User
from django.utils import timezone

from ritornel.core.document.changes import InsertAsset, InsertSlide, RemoveAsset, RemoveSlide
from ritornel.core.document.show import Show as ShowValue
from ritornel.web.shows.history import changes_of, inverse_of
from ritornel.web.shows.models import Show


class RemovedPart(msgspec.Struct, frozen=True):
    """A removed slide or entry of the shelf: its name, who removed it when, and the last revision that had it. `sha256`
    is an entry's medium.
    """

    kind: Literal["slide", "entry"]
    id: str
    name: str
    person: User | None
    at: datetime
    revision: int
    sha256: str = ""


def removed_parts(row: Show, now: ShowValue) -> tuple[RemovedPart, ...]:
    """What was removed within the bin's time (`BIN_DAYS`) and is neither restored nor removed for good, the last
    removed first.
    """
    present = {*(("slide", slide.id) for slide in now.slides), *(("entry", asset.id) for asset in now.assets)}
    since = timezone.now() - timedelta(days=settings.BIN_DAYS)
    steps = row.edits.filter(at__gt=since).exclude(first_revision=0).order_by("-revision").select_related("person")
    found: dict[tuple[str, str], RemovedPart] = {}
    for step in steps.iterator(chunk_size=200):
        gone: set[tuple[str, str]] = set()
        for change in changes_of(step):
            match change:
                case RemoveSlide(slide_id):
                    gone.add(("slide", slide_id))
                case RemoveAsset(asset_id):
                    gone.add(("entry", asset_id))
        gone -= present | set(found)
        if not gone:
            continue
        about = (step.person, step.at, step.first_revision - 1)
        for change in inverse_of(step):
            match change:
                case InsertSlide(_, slide) if ("slide", slide.id) in gone:
                    found["slide", slide.id] = RemovedPart("slide", slide.id, slide.name or "Untitled", *about)
                case InsertAsset(_, asset) if ("entry", asset.id) in gone:
                    found["entry", asset.id] = RemovedPart("entry", asset.id, asset.name, *about, asset.sha256)
    forgotten = set(row.forgotten_slides.values_list("slide_id", "revision"))
    return tuple(part for part in found.values() if (part.id, part.revision) not in forgotten)
