"""Shows from files that take long to read: the worker reads them, and what nothing is lost of becomes a show at once. Where something is, what was read
waits until somebody has said that it shall be one."""

import shutil
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.show import Asset
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia, Cancelled, RitornelError
from ritornel.core.schedule.performance import perform
from ritornel.web.shows.intake import unpack
from ritornel.web.shows.models import Reading, Show
from ritornel.web.shows.plans import plan_of
from ritornel.web.shows.rows import create_rows
from ritornel.web.shows.storage import keep_media_file

FORGOTTEN_AFTER = timedelta(days=1)
State = Reading.State


def folder_of(reading_id: str) -> Path:
    """Where a file lies until it is read, and what was read of it until it is a show."""
    return Path(settings.VAR) / "readings" / reading_id


def came(reading_id: str) -> Path:
    """The file as it came."""
    return folder_of(reading_id) / "came"


def _media(reading_id: str) -> Path:
    return folder_of(reading_id) / "media"


def _show(reading_id: str) -> Path:
    return folder_of(reading_id) / "show.json"


def sweep(owner: User) -> None:
    """Takes away what nobody asks for any more: what this person had read before, and anybody's that has lain for a day."""
    done = Reading.objects.exclude(state=State.WAITING)
    forgotten = Reading.objects.filter(asked_at__lt=timezone.now() - FORGOTTEN_AFTER)
    for old in done.filter(owner=owner) | forgotten.exclude(state=State.RUNNING):
        if old.state == State.RUNNING and not old.lost:
            continue
        shutil.rmtree(folder_of(old.pk), ignore_errors=True)
        old.delete()


def read(reading_id: str) -> tuple[Asset, ...]:
    """Reads a file that came; whatever happens, its row says so. What is on the shelf of the show that was made of it."""
    mine = Reading.objects.filter(pk=reading_id)
    now = timezone.now()
    if not mine.filter(state=State.WAITING, cancel_wanted=False).update(state=State.RUNNING, started_at=now, heard_at=now):
        mine.filter(state=State.WAITING).update(state=State.CANCELLED)
        shutil.rmtree(folder_of(reading_id), ignore_errors=True)
        return ()

    def watch(done: int, total: int) -> None:
        mine.update(done=done, total=total, heard_at=timezone.now())
        if mine.values_list("cancel_wanted", flat=True).first() is not False:
            raise Cancelled("Nothing was made.")

    found = mine.get()
    outcome: dict[str, Any] = {"state": State.FAILED, "message": f"“{found.name}” could not be read. Nothing was made."}
    assets: tuple[Asset, ...] = ()
    try:
        row = Show(owner=found.owner)
        _media(reading_id).mkdir()
        show, lost = unpack(found.kind, came(reading_id), found.name, _media(reading_id), row.id, watch)
        perform(show)
        outcome = {"state": State.READY, "done": len(show.slides), "total": len(show.slides), "message": ""}
        if found.kind == Reading.Kind.PRESENTATION and lost:
            _show(reading_id).write_bytes(to_json(show))
            came(reading_id).unlink()
            outcome["plan"] = plan_of(show, lost)
        else:
            _keep(row, show, _media(reading_id))
            outcome |= {"show": row, "notices": list(lost)}
            assets = show.assets
    except Cancelled:
        outcome = {"state": State.CANCELLED, "message": ""}
    except RitornelError as error:
        outcome["message"] = str(error)[:400]
    finally:
        if "plan" not in outcome:
            shutil.rmtree(folder_of(reading_id), ignore_errors=True)
        mine.update(**outcome)
    return assets


def make(found: Reading) -> tuple[Asset, ...]:
    """Makes the show of which something is lost, once; what is on its shelf. Raises BadMedia where nothing waits to be made."""
    if not Reading.objects.filter(pk=found.pk, state=State.READY, plan__isnull=False, show=None).update(state=State.RUNNING, heard_at=timezone.now()):
        raise BadMedia(f"“{found.name}” is no longer here to be made into a show. Choose the file again.")
    row = None
    try:
        show = from_json(_show(found.pk).read_bytes(), ShowValue, "show")
        row = Show(id=show.id, owner=found.owner)
        _keep(row, show, _media(found.pk))
    finally:
        Reading.objects.filter(pk=found.pk).update(state=State.READY, show=Show.objects.filter(pk=row.pk).first() if row else None)
    shutil.rmtree(folder_of(found.pk), ignore_errors=True)
    return show.assets


def _keep(row: Show, show: ShowValue, media: Path) -> None:
    for found in media.iterdir():
        keep_media_file(found.name, found)
    with transaction.atomic():
        create_rows(row, show)
