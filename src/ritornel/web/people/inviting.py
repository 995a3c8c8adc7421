"""Who else may open a show: invitations, sections, withdrawal."""

from datetime import datetime
from typing import Annotated, Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins
from ritornel.core.document.sections import section_number
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.recording import recordable_sections
from ritornel.core.wording import span_text
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.identity import proves
from ritornel.web.people.mail import check_mail_allowed, mail_goes_out, send_mail
from ritornel.web.people.models import LASTS, Invitation, ProvenAddress
from ritornel.web.people.roles import Role
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.services import Show, owned_show, value_of

Words = Annotated[str, msgspec.Meta(max_length=120)]


class Invite(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """An invitation to be made: to whom and for what; `section` names a slide of the section that the
    person records.
    """

    address: Annotated[str, msgspec.Meta(max_length=254)]
    role: Role
    name: Words = ""
    section: Annotated[str, msgspec.Meta(max_length=40)] = ""


def _sections(show: ShowValue) -> list[dict[str, Any]]:
    return [
        {
            "id": section.slide_ids[0],
            "slide_ids": section.slide_ids,
            "name": f"{section_number(place)}  {section.name or 'The whole show'}",
        }
        for place, section in enumerate(recordable_sections(show))
    ]


def given_slides(show: ShowValue) -> dict[str, str]:
    """The slides given to each person, by name: "3", or "3–5, 7"."""
    numbers: dict[str, list[int]] = {}
    for number, slide in enumerate(show.slides, 1):
        if slide.given_to:
            numbers.setdefault(slide.given_to, []).append(number)
    return {name: span_text(own) for name, own in numbers.items()}


def _line(request: HttpRequest, entry: Invitation, sections: list[dict[str, Any]], proven: set[str]) -> dict[str, Any]:
    own = next((section for section in sections if entry.section in section["slide_ids"]), None)
    return {
        "id": entry.pk,
        "name": entry.name,
        "address": entry.address,
        "role": entry.role,
        "section": own["id"] if own else "",
        "section_name": own["name"] if own else "",
        "state": entry.state,
        "sent_at": entry.sent_at,
        "expires_at": entry.expires_at,
        "accepted_at": entry.accepted_at,
        "proven": entry.address in proven,
        "link": request.build_absolute_uri(reverse("invitation", args=[entry.link_code]))
        if entry.state == "sent"
        else None,
    }


def _state(request: HttpRequest, row: Show) -> dict[str, Any]:
    show = value_of(row)
    sections = _sections(show)
    entries = list(Invitation.objects.filter(show=row))
    known = dict(
        ProvenAddress.objects.filter(address__in=[entry.address for entry in entries]).values_list(
            "address", "person_id"
        )
    )
    proven = {
        entry.address
        for entry in entries
        if entry.person_id is not None and known.get(entry.address) == entry.person_id
    }
    return {
        "show_id": row.pk,
        "owner": called(row.owner),
        "sections": sections,
        "people": [_line(request, entry, sections, proven) for entry in entries],
        "given": given_slides(show),
        "days": LASTS.days,
        "mail": mail_goes_out(),
    }


@login_required
@require_GET
def people(request: HttpRequest, show_id: str) -> HttpResponse:
    """The people who may open the show, and their tasks."""
    row = owned_show(show_id, request)
    return render(
        request,
        "people/people.html",
        {"show": row, "way": "people", "start": msgspec.to_builtins(_state(request, row))},
    )


def _letter(request: HttpRequest, entry: Invitation, title: str, section: str) -> None:
    sender = called(entry.by)
    asked = (
        (f"record the section “{section}” of")
        if entry.role == "record"
        else {"edit": "edit", "comment": "comment on", "watch": "watch"}[entry.role]
    )
    link = request.build_absolute_uri(reverse("invitation", args=[entry.mail_code]))
    greeting = f"Hello {entry.name}," if entry.name else "Hello,"
    text = (
        f"{greeting}\n\n{sender} asks you to {asked} the show “{title}” in Ritornel.\n\nOpen it here:\n{link}\n\n"
        f"The link is yours alone and waits {LASTS.days} days. Nobody else can use it once you have opened it."
    )
    send_mail(entry.show_id, entry.by_id, entry.address, f"{sender} asks you to {asked} “{title}”", text)


def _checked(show: ShowValue, wanted: Invite) -> dict[str, Any] | None:
    """The section to be recorded; None for other roles.

    Raises BadValue for an invalid address, or an unknown section.
    """
    try:
        validate_email(wanted.address.strip())
    except ValidationError as error:
        raise BadValue(f"“{wanted.address}” is no e-mail address. Nobody was invited.", "address") from error
    if wanted.role != "record":
        return None
    section = next((section for section in _sections(show) if wanted.section in section["slide_ids"]), None)
    if section is None:
        raise BadValue("Choose the section that they are to record. Nobody was invited.", "section")
    return section


@login_required
@require_POST
@answer_errors
def invite(request: HttpRequest, show_id: str) -> HttpResponse:
    """Invites somebody by mail, with a personal link.

    For somebody invited before, the task changes; people who have accepted keep their access.
    """
    row, person = owned_show(show_id, request), person_of(request)
    wanted = from_builtins(body_of(request), Invite, "The invitation")
    section = _checked(value_of(row), wanted)
    address = wanted.address.strip().lower()
    if proves(person, address):
        raise BadValue("This is your own address; the show is yours already.", "address")
    check_mail_allowed(row.pk, 1)
    with transaction.atomic():
        entry = Invitation.objects.filter(show=row, address=address).first() or Invitation(show=row, address=address)
        if entry.state in ("withdrawn", "expired"):
            entry.renew()
            entry.accepted_at, entry.person = None, None
        entry.by, entry.name, entry.role = person, wanted.name.strip() or entry.name, wanted.role
        entry.section = wanted.section if section else ""
        entry.sent_at, entry.withdrawn_at, entry.mail_proves = timezone.now(), None, mail_goes_out()
        entry.save()
    if entry.state == "sent":
        _letter(request, entry, row.title, section["name"].split("  ", 1)[1] if section else "")
    return json_reply({**_state(request, row), "invited": entry.pk})


def _entry(row: Show, number: int) -> Invitation:
    entry = Invitation.objects.filter(show=row, pk=number).first()
    if entry is None:
        raise Http404("There is no such invitation.")
    return entry


def _withdrawn(request: HttpRequest, show_id: str, number: int, at: datetime | None) -> HttpResponse:
    row = owned_show(show_id, request)
    entry = _entry(row, number)
    entry.withdrawn_at = at
    entry.save(update_fields=["withdrawn_at"])
    return json_reply(_state(request, row))


@login_required
@require_POST
@answer_errors
def withdraw(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Ends an invitation: its link becomes invalid, and the person loses access to the show."""
    return _withdrawn(request, show_id, number, timezone.now())


@login_required
@require_POST
@answer_errors
def restore(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Undoes a withdrawal: access returns to a person who had accepted; otherwise the link is valid again until its old
    end.
    """
    return _withdrawn(request, show_id, number, None)


@login_required
@require_POST
@answer_errors
def change(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Changes the task: {"role": ..., "section": ...}. It applies at once."""
    row = owned_show(show_id, request)
    entry = _entry(row, number)
    body = body_of(request)
    wanted = from_builtins(
        {"address": entry.address, "role": body.get("role"), "section": body.get("section") or ""}, Invite, "The change"
    )
    section = _checked(value_of(row), wanted)
    entry.role, entry.section = wanted.role, wanted.section if section else ""
    entry.save(update_fields=["role", "section"])
    return json_reply(_state(request, row))
