"""Shows from files that take long to read: the worker reads them, seen at work, and can be told to stop."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.errors import BadMedia, Cancelled, RitornelError
from ritornel.web.people.services import person_of
from ritornel.web.shows.intake import unpack_pdf, write_down
from ritornel.web.shows.models import Reading, Show
from ritornel.web.shows.replies import json_reply, telling_errors
from ritornel.web.shows.rows import create_rows

LOST_WORDS = "The worker stopped while it read “{name}”. Choose the file again."
State = Reading.State


def came(reading_id: str) -> Path:
    """Where a file lies until it is read."""
    return Path(settings.VAR) / "readings" / reading_id


@login_required
@require_POST
@telling_errors
def show_from_pdf(request: HttpRequest) -> HttpResponse:
    """Has the worker make a show of the pages of a PDF: {"reading": where to ask for it}."""
    from ritornel.web.shows.tasks import read_pages

    upload = request.FILES.get("file")
    if upload is None:
        raise BadMedia("Choose a PDF first.")
    owner = person_of(request)
    # What nobody asks for any more goes when the next one comes.
    for old in owner.readings.exclude(state=State.WAITING):
        if old.lost or old.state != State.RUNNING:
            came(old.id).unlink(missing_ok=True)
            old.delete()
    reading = Reading(owner=owner, name=(upload.name or "pages.pdf")[:120])
    came(reading.id).parent.mkdir(exist_ok=True)
    try:
        write_down(upload, came(reading.id), reading.name)
    except BaseException:
        came(reading.id).unlink(missing_ok=True)
        raise
    reading.save()
    read_pages(reading.id)
    return json_reply({"reading": reverse("reading", args=[reading.id])})


def _mine(request: HttpRequest, reading_id: str) -> Reading:
    found: Reading | None = person_of(request).readings.filter(pk=reading_id).first()
    if found is None:
        raise Http404("There is no such file being read.")
    return found


@login_required
@require_GET
def reading(request: HttpRequest, reading_id: str) -> HttpResponse:
    """How far a file is read: {"state", "done", "total", "left_s", "message", "notices", "address", "cancel"}."""
    found = _mine(request, reading_id)
    lost = found.lost
    return json_reply({
        "state": State.FAILED if lost else found.state, "done": found.done, "total": found.total, "left_s": found.left_s,
        "message": LOST_WORDS.format(name=found.name) if lost else found.message, "notices": found.notices,
        "address": reverse("compose", args=[found.show_id]) if found.show_id else None, "cancel": reverse("cancel-reading", args=[found.pk]),
    })  # fmt: skip


@login_required
@require_POST
@telling_errors
def cancel_reading(request: HttpRequest, reading_id: str) -> HttpResponse:
    """Has the reading stop; nothing is made of the file."""
    found = _mine(request, reading_id)
    Reading.objects.filter(pk=found.pk).update(cancel_wanted=True)
    return json_reply({})


def read(reading_id: str) -> list[str]:
    """Reads a file that came and makes a show of it; whatever happens, its row says so. Hashes of the pictures that are on the new show's shelf."""
    mine = Reading.objects.filter(pk=reading_id)
    now = timezone.now()
    if not mine.filter(state=State.WAITING, cancel_wanted=False).update(state=State.RUNNING, started_at=now, heard_at=now):
        mine.filter(state=State.WAITING).update(state=State.CANCELLED)
        came(reading_id).unlink(missing_ok=True)
        return []

    def watch(done: int, total: int) -> None:
        mine.update(done=done, total=total, heard_at=timezone.now())
        if mine.values_list("cancel_wanted", flat=True).first() is not False:
            raise Cancelled("Nothing was made.")

    found = mine.get()
    outcome: dict[str, Any] = {"state": State.FAILED, "message": f"“{found.name}” could not be read. Nothing was made."}
    hashes: list[str] = []
    try:
        row = Show(owner=found.owner)
        show, notices = unpack_pdf(came(reading_id), found.name, row.id, watch)
        with transaction.atomic():
            create_rows(row, show)
            hashes = [asset.sha256 for asset in show.assets]
        outcome = {"state": State.READY, "show": row, "notices": list(notices), "done": len(show.slides), "total": len(show.slides), "message": ""}
    except Cancelled:
        outcome = {"state": State.CANCELLED, "message": ""}
    except RitornelError as error:
        outcome["message"] = str(error)[:400]
    finally:
        came(reading_id).unlink(missing_ok=True)
        mine.update(**outcome)
    return hashes
