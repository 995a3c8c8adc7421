"""Handing a result in to somebody by name: it comes to their page, and the maker sees that it was looked at."""

import os
import shutil
from pathlib import Path
from typing import Any

from django.contrib.auth.decorators import login_required
from django.contrib.auth.models import User
from django.core.files.storage import storages
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.http import content_disposition_header
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.errors import BadValue
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import body_of, json_reply, telling_errors
from ritornel.web.people.services import called, person_of, proven_person
from ritornel.web.releases.filming import State, film_path
from ritornel.web.releases.models import FilmJob, HandIn
from ritornel.web.shows.services import owned_show

NOTE_CHARACTERS = 1000


def handed_in_path(entry: HandIn) -> Path:
    """Where the file of something that was handed in lies."""
    path = Path(storages["films"].path(entry.file_name))
    path.parent.mkdir(parents=True, exist_ok=True)
    return path


def _copied(source: Path, target: Path) -> None:
    """The same file under another name where the disk can do that, else a copy."""
    try:
        os.link(source, target)
    except OSError:
        shutil.copyfile(source, target)


def handed_line(entry: HandIn) -> dict[str, Any]:
    """A hand-in as its maker sees it."""
    return {"to": called(entry.recipient), "name": entry.name, "at": entry.at, "seen_at": entry.seen_at}


@login_required
@require_POST
@telling_errors
def hand_in(request: HttpRequest, show_id: str, job_id: str) -> HttpResponse:
    """Hands a finished film or the like in: {"to": name or address, "note": words}."""
    row, person = owned_show(show_id, request), person_of(request)
    job = FilmJob.objects.filter(pk=job_id, show=row, state=State.READY).first()
    if job is None:
        raise Http404("There is no such film.")
    body = body_of(request)
    to, note = str(body.get("to", "")).strip(), str(body.get("note", "")).strip()
    if len(note) > NOTE_CHARACTERS:
        raise BadValue(
            f"The note has {len(note)} characters; at most {NOTE_CHARACTERS} can go along. Nothing was handed in.",
            "note",
        )
    recipient = (
        (User.objects.filter(username__iexact=to).first() if "@" not in to else proven_person(to)) if to else None
    )
    if recipient is None:
        raise BadValue(
            f"Nobody here is called “{to[:100]}”, or has shown that the address is theirs. Nothing was handed in.", "to"
        )
    entry = HandIn(
        sender=person,
        recipient=recipient,
        title=row.title,
        name=job.saved_name,
        kind=job.kind,
        size_bytes=job.size_bytes,
        note=note,
    )
    _copied(film_path(job), handed_in_path(entry))
    entry.save()
    return json_reply(handed_line(entry))


@login_required
@require_GET
def handed_in(request: HttpRequest) -> HttpResponse:
    """What was handed in to the person, newest first, and what they have handed in themselves."""
    person = person_of(request)
    came = HandIn.objects.filter(recipient=person).select_related("sender")
    went = HandIn.objects.filter(sender=person).select_related("recipient")
    lines = [{"entry": entry, "who": called(entry.sender)} for entry in came]
    return render(
        request,
        "releases/handed_in.html",
        {"came": lines, "went": [{"entry": entry, "who": called(entry.recipient)} for entry in went]},
    )


def _received(request: HttpRequest, entry_id: str) -> HandIn:
    entry = HandIn.objects.filter(pk=entry_id, recipient=person_of(request)).first()
    if entry is None:
        raise Http404("There is no such thing.")
    return entry


@login_required
@require_GET
def handed_in_file(request: HttpRequest, entry_id: str) -> HttpResponseBase:
    """The file, for whom it was handed in to; from then on it has been looked at."""
    entry = _received(request, entry_id)
    if entry.seen_at is None:
        HandIn.objects.filter(pk=entry.pk).update(seen_at=timezone.now())
    response = file_reply(request, handed_in_path(entry), FilmJob.KINDS[entry.kind])
    response.headers["Content-Disposition"] = content_disposition_header("save" in request.GET, entry.name) or "inline"
    return response


@login_required
@require_POST
def put_away(request: HttpRequest, entry_id: str) -> HttpResponse:
    """Takes something that was handed in off the person's page, with its file."""
    _received(request, entry_id).delete()
    return redirect("handed-in")
