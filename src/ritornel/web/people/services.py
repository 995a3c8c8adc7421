"""What other apps may use of people."""

from collections.abc import Collection
from typing import Any

from django.apps import apps
from django.contrib.auth.models import User

from ritornel.web.people.identity import proven_person
from ritornel.web.people.mail import check_mail_allowed, mail_goes_out, send_mail
from ritornel.web.people.models import Comment, Invitation
from ritornel.web.people.requests import called, network_address, person_of
from ritornel.web.people.roles import WHERE, WORDS, Access, Act

__all__ = [
    "WHERE",
    "WORDS",
    "Access",
    "Act",
    "access_of",
    "access_of_each",
    "assigned_to",
    "called",
    "check_mail_allowed",
    "invited_as",
    "mail_goes_out",
    "names_and_sharing",
    "names_of",
    "network_address",
    "open_comments",
    "people_in",
    "person_of",
    "proven_person",
    "send_mail",
    "shared_with",
    "shows_open_to",
]

_OPEN: dict[str, Any] = {"accepted_at__isnull": False, "withdrawn_at__isnull": True}
"""Invitations that let somebody in now."""


def access_of(show_id: str, owner_id: int, person: User) -> Access | None:
    """The person's access to the show; None for none. For an owner it costs no query."""
    if owner_id == person.pk:
        return Access("own")
    found = Invitation.objects.filter(show_id=show_id, person=person, **_OPEN).first()
    return Access(found.role, found.section) if found is not None else None  # type: ignore[arg-type]


def access_of_each(pairs: Collection[tuple[str, int]]) -> dict[tuple[str, int], Access]:
    """The access of each person (by id) to each show (by id), in two queries; pairs without access are left out."""
    wanted = set(pairs)
    shows = apps.get_model("shows", "Show")
    owned = shows.objects.filter(pk__in={show_id for show_id, _ in wanted}).values_list("pk", "owner_id")
    found = {pair: Access("own") for pair in owned if pair in wanted}
    rest = wanted - set(found)
    if rest:
        entries = Invitation.objects.filter(person_id__in={person_id for _, person_id in rest}, **_OPEN)
        for show_id, person_id, role, section in entries.values_list("show_id", "person_id", "role", "section"):
            if (show_id, person_id) in rest:
                found[show_id, person_id] = Access(role, section)  # type: ignore[arg-type]
    return found


def shows_open_to(person: User, act: Act = "see") -> dict[str, Access]:
    """The shows of others that allow the person this act, by id."""
    found = Invitation.objects.filter(person=person, **_OPEN)
    access = {entry.show_id: Access(entry.role, entry.section) for entry in found}  # type: ignore[arg-type]
    return {show_id: own for show_id, own in access.items() if own.may(act)}


def assigned_to(show_id: str) -> dict[str, str]:
    """The person who records each section, by the slide that named it at the invitation."""
    found = Invitation.objects.filter(show_id=show_id, role="record", withdrawn_at__isnull=True)
    return {entry.section: entry.called for entry in found if entry.state != "expired"}


def names_of(show_id: str, owner: User) -> list[str]:
    """The names of the owner and everybody invited, for giving slides to them."""
    return names_and_sharing(show_id, owner)[0]


def names_and_sharing(show_id: str, owner: User) -> tuple[list[str], bool]:
    """The same, and whether anybody else may open the show, in one query."""
    found = list(Invitation.objects.filter(show_id=show_id, withdrawn_at__isnull=True))
    names = list(dict.fromkeys([called(owner), *(entry.called for entry in found)]))
    return names, any(entry.accepted_at is not None for entry in found)


def people_in(show_id: str) -> list[User]:
    """Everybody who was invited to the show and has accepted."""
    found = Invitation.objects.filter(show_id=show_id, **_OPEN).select_related("person")
    return [entry.person for entry in found if entry.person is not None]


def invited_as(show_id: str, name: str) -> list[User]:
    """The people of the show who were invited by this name or address."""
    found = Invitation.objects.filter(show_id=show_id, **_OPEN).select_related("person")
    return [entry.person for entry in found if entry.person is not None and entry.called.casefold() == name.casefold()]


def shared_with(show_id: str) -> bool:
    """Whether anybody else may open the show."""
    return Invitation.objects.filter(show_id=show_id, **_OPEN).exists()


def open_comments(show_id: str) -> int:
    """The number of open comments."""
    return Comment.objects.filter(show_id=show_id, answers=None, closed_at__isnull=True).count()
