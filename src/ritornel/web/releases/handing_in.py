"""Handing a result in to somebody by name: it appears on their page, and the maker sees that it was looked at."""

import os
import re
import shutil
from collections import Counter
from pathlib import Path
from typing import Any

from django.contrib.auth.decorators import login_required
from django.contrib.auth.models import User
from django.core.files.storage import storages
from django.db import transaction
from django.db.models import Q
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.http import content_disposition_header
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.sections import people_of_section, section_number, shown_sections
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadValue
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import assigned_to, called, invited_as, names_of, people_in, person_of, proven_person
from ritornel.web.releases.filming import State, film_path
from ritornel.web.releases.models import FilmJob, HandIn
from ritornel.web.shows.services import Show, owned_show, value_of

NOTE_CHARACTERS = 1000
_SECTION = re.compile(r"section ([ivxlc]{1,9})", re.IGNORECASE)


def handed_in_path(entry: HandIn) -> Path:
    """The place of a hand-in's file."""
    path = Path(storages["films"].path(entry.file_name))
    path.parent.mkdir(parents=True, exist_ok=True)
    return path


def _copy_file(source: Path, target: Path) -> None:
    """A hard link to the same file where the disk allows that, else a copy."""
    try:
        os.link(source, target)
    except OSError:
        shutil.copyfile(source, target)


def handed_line(entry: HandIn) -> dict[str, Any]:
    """A hand-in, for its maker."""
    return {
        "id": entry.pk,
        "to": called(entry.recipient),
        "name": entry.name,
        "at": entry.at,
        "seen_at": entry.seen_at,
    }


def handed_lines(row: Show) -> list[dict[str, Any]]:
    """The hand-ins of a show, newest first."""
    return [handed_line(entry) for entry in HandIn.objects.filter(show=row).select_related("recipient")]


def recipient_names(row: Show, show: ShowValue) -> list[str]:
    """Likely recipients: the show's people, and those its slides are given to."""
    given = [slide.given_to for slide in show.slides if slide.given_to]
    return [name for name in dict.fromkeys([*names_of(row.pk, row.owner), *given]) if name != called(row.owner)]


def section_owners(row: Show, show: ShowValue) -> dict[str, tuple[str, ...]]:
    """The owner of each section, by “Section II” and the like; sections without an owner are left out."""
    invited = assigned_to(row.pk)
    found = {
        f"Section {section_number(place)}": people_of_section(section, show, invited)
        for place, section in enumerate(shown_sections(show))
    }
    return {name: people for name, people in found.items() if people}


def recipients_of(row: Show, to: str) -> list[User]:
    """Everybody who may be meant: by a proven address, by sign-in name or shown name, by how they were invited to the
    show, or as the owner of a section. Raises BadValue for a section without an owner.
    """
    named = _SECTION.fullmatch(to)
    if not named:
        return _people_called(row, to)
    show = value_of(row)
    names = section_owners(row, show).get(f"Section {named[1].upper()}")
    if names is None:
        raise BadValue(f"Section {named[1].upper()} was given to nobody. Nothing was handed in.", "to")
    found = {person.pk: person for name in names for person in _people_called(row, name)}
    return list(found.values())


def _people_called(row: Show, to: str) -> list[User]:
    if not to:
        return []
    if "@" in to and (person := proven_person(to)):
        return [person]
    wanted = to.casefold()
    first, _, last = to.rpartition(" ")
    by_name = Q(username__iexact=to) | Q(first_name__iexact=first, last_name__iexact=last)
    found = {person.pk: person for person in User.objects.filter(by_name, is_active=True)}
    found |= {person.pk: person for person in people_in(row.pk) if called(person).casefold() == wanted}
    found |= {person.pk: person for person in invited_as(row.pk, to)}
    return list(found.values())


@login_required
@require_POST
@answer_errors
def hand_in(request: HttpRequest, show_id: str, job_id: str) -> HttpResponse:
    """Hands a finished film or the like in: {"to": name, address or “Section II”, "note": words, "replaces": id of an
    earlier one}.

    Where several people share the name, answers {"choices": [{"id", "name", "about"}]} and hands nothing in; the next
    request chooses by "to_id".
    """
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
    candidates = recipients_of(row, to)
    if body.get("to_id") is not None:
        candidates = [one for one in candidates if one.pk == body["to_id"]]
    if not candidates:
        raise BadValue(
            f"Nobody here is called “{to[:100]}”, or has shown that the address is theirs. Nothing was handed in.", "to"
        )
    if len(candidates) > 1:
        return json_reply(
            {
                "choices": [
                    {"id": one.pk, "name": called(one), "about": f"signs in as {one.get_username()}"}
                    for one in candidates
                ]
            }
        )
    earlier = HandIn.objects.filter(pk=str(body.get("replaces") or ""), show=row, sender=person).first()
    entry = HandIn(
        sender=person,
        recipient=candidates[0],
        title=row.title,
        name=job.saved_name,
        kind=job.kind,
        size_bytes=job.size_bytes,
        note=note,
        show=row,
        replaces=earlier is not None,
    )
    _copy_file(film_path(job), handed_in_path(entry))
    with transaction.atomic():
        entry.save()
        if earlier is not None:
            earlier.delete()
    return json_reply({**handed_line(entry), "handed": handed_lines(row)})


@login_required
@require_POST
def withdraw_hand_in(request: HttpRequest, entry_id: str) -> HttpResponse:
    """Withdraws a hand-in of one's own: it disappears from the recipient's page, with its file."""
    entry = HandIn.objects.filter(pk=entry_id, sender=person_of(request)).first()
    if entry is None:
        raise Http404("There is no such thing.")
    row = entry.show
    entry.delete()
    if request.content_type == "application/json" and row is not None:
        return json_reply({"handed": handed_lines(row)})
    return redirect("handed-in")


@login_required
@require_GET
def handed_in(request: HttpRequest) -> HttpResponse:
    """The hand-ins to the person, newest first, and the person's own."""
    person = person_of(request)
    came = HandIn.objects.filter(recipient=person).select_related("sender")
    went = HandIn.objects.filter(sender=person).select_related("recipient")
    lines: list[dict[str, Any]] = []
    count = Counter((entry.sender_id, entry.title) for entry in came)
    seen: set[tuple[int, str]] = set()
    for entry in came:
        key = (entry.sender_id, entry.title)
        age = "" if count[key] == 1 else "an earlier one" if key in seen else "the newest"
        lines.append({"entry": entry, "who": called(entry.sender), "age": age})
        seen.add(key)
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
    """The file, for its recipient; from then on it counts as looked at."""
    entry = _received(request, entry_id)
    if entry.seen_at is None:
        HandIn.objects.filter(pk=entry.pk).update(seen_at=timezone.now())
    response = file_reply(request, handed_in_path(entry), FilmJob.KINDS[entry.kind])
    response.headers["Content-Disposition"] = content_disposition_header("save" in request.GET, entry.name) or "inline"
    return response


@login_required
@require_POST
def put_away(request: HttpRequest, entry_id: str) -> HttpResponse:
    """Removes a hand-in from the person's page, with its file."""
    _received(request, entry_id).delete()
    return redirect("handed-in")
