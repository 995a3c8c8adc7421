"""Shows from files that take long to read: the worker reads them.

Where nothing is lost, the result becomes a show at once. Otherwise it waits until somebody confirms it.
"""

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
from ritornel.web.config.atomic_files import atomic_file
from ritornel.web.exchange.plans import plan_of
from ritornel.web.jobs.lease_holder import Holder, LeaseLost
from ritornel.web.library.services import unpack
from ritornel.web.shows.services import Reading, Show, create_rows, keep_media_file

FORGOTTEN_AFTER = timedelta(days=1)
State = Reading.State


def folder_of(reading_id: str) -> Path:
    """The folder of a file until it is read, and of the result until it is a show."""
    return Path(settings.VAR) / "readings" / reading_id


def came(reading_id: str) -> Path:
    """The uploaded file."""
    return folder_of(reading_id) / "came"


def _media(reading_id: str) -> Path:
    return folder_of(reading_id) / "media"


def _show(reading_id: str) -> Path:
    return folder_of(reading_id) / "show.json"


def sweep(owner: User) -> None:
    """Removes abandoned imports: earlier ones of this person, and anybody's after a day."""
    done = Reading.objects.exclude(state=State.WAITING)
    forgotten = Reading.objects.filter(asked_at__lt=timezone.now() - FORGOTTEN_AFTER)
    for old in done.filter(owner=owner) | forgotten:
        if old.state == State.RUNNING:
            # It goes on, by itself also where its worker is gone.
            continue
        shutil.rmtree(folder_of(old.pk), ignore_errors=True)
        old.delete()


def read(reading_id: str) -> tuple[Asset, ...]:
    """Reads an uploaded file; whatever happens, its row says so. Returns the assets of the new show's shelf."""
    token = Reading.claim(reading_id)
    if token is None:
        if not Reading.objects.filter(pk=reading_id, state=State.RUNNING).exists():
            shutil.rmtree(folder_of(reading_id), ignore_errors=True)
        return ()
    found = Reading.objects.get(pk=reading_id)
    failed = f"“{found.name}” could not be read. Nothing was made."
    with Holder(Reading, reading_id, token) as holder:
        try:
            return _read(found, holder)
        except LeaseLost:
            return ()
        except Cancelled:
            outcome: dict[str, Any] = {"state": State.CANCELLED, "message": ""}
        except RitornelError as error:
            outcome = {"state": State.FAILED, "message": str(error)[:400]}
        except BaseException:
            holder.finish(state=State.FAILED, message=failed)
            shutil.rmtree(folder_of(reading_id), ignore_errors=True)
            raise
        if holder.finish(**outcome):
            shutil.rmtree(folder_of(reading_id), ignore_errors=True)
    return ()


def _read(found: Reading, holder: Holder) -> tuple[Asset, ...]:
    """Reads the file. Where nothing is lost, the result becomes a show at once."""
    row, media = Show(owner=found.owner), _media(found.pk)
    shutil.rmtree(media, ignore_errors=True)
    media.mkdir()
    show, lost = unpack(found.kind, came(found.pk), found.name, media, row.id, holder.report)
    perform(show)
    outcome: dict[str, Any] = {"state": State.READY, "done": len(show.slides), "total": len(show.slides), "message": ""}
    if found.kind == Reading.Kind.PRESENTATION and lost:
        with atomic_file(_show(found.pk)) as unfinished:
            unfinished.write_bytes(to_json(show))
        holder.finish(**outcome, plan=plan_of(show, lost))
        return ()
    _keep_media(media)
    # One step: whoever is killed here leaves either both or none, and the file is read again.
    with transaction.atomic():
        create_rows(row, show)
        if not holder.finish(**outcome, show=row, notices=list(lost)):
            raise LeaseLost("Somebody else reads this file now.")
    shutil.rmtree(folder_of(found.pk), ignore_errors=True)
    return show.assets


def make(found: Reading) -> tuple[Asset, ...]:
    """Makes the show although something is lost, once; returns the assets of its shelf.

    Raises BadMedia where nothing waits.
    """
    gone = BadMedia(f"“{found.name}” is no longer here to be made into a show. Choose the file again.")
    waiting = Reading.objects.filter(pk=found.pk, state=State.READY, plan__isnull=False, show=None)
    if not waiting.exists() or not _show(found.pk).is_file():
        raise gone
    show = from_json(_show(found.pk).read_bytes(), ShowValue, "show")
    _keep_media(_media(found.pk))
    with transaction.atomic():
        row = Show(id=show.id, owner=found.owner)
        if not waiting.select_for_update().exists():
            raise gone
        create_rows(row, show)
        waiting.update(show=row)
    shutil.rmtree(folder_of(found.pk), ignore_errors=True)
    return show.assets


def _keep_media(media: Path) -> None:
    for found in media.iterdir():
        keep_media_file(found.name, found)
