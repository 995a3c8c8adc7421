"""Accepting an invitation: it belongs to one person, and only the link in a mail proves an address."""

from django.contrib.auth import login
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_http_methods

from ritornel.core.errors import BadValue
from ritornel.web.config.link_secrets import hash_code
from ritornel.web.config.rate_limits import Brake, TooOften
from ritornel.web.people.identity import BACKEND, create_account, prove, proven_person, proves
from ritornel.web.people.models import Invitation
from ritornel.web.people.requests import called, network_address
from ritornel.web.people.roles import WHERE, WORDS

GONE = {
    "withdrawn": "{by} has withdrawn this invitation. Ask them for another one.",
    "expired": "This invitation was not opened in time and leads nowhere any more. Ask {by} for another one.",
}
ACCEPTING = Brake("accepting an invitation", "12/minute;60/hour")
GUESSING = Brake("opening an invitation that is not there", "60/minute")
"""How often one address of the network may do either."""


def _found(code: str) -> tuple[Invitation | None, bool]:
    """The invitation of a link, and whether the link proves its address."""
    known = hash_code(code)
    entries = Invitation.objects.select_related("show", "by", "person")
    by_mail = entries.filter(mail_hash=known).first()
    return (by_mail, by_mail.mail_proves) if by_mail is not None else (entries.filter(link_hash=known).first(), False)


def _accept(entry: Invitation, person: User, proving: bool) -> None:
    entry.person, entry.accepted_at = person, entry.accepted_at or timezone.now()
    entry.save(update_fields=["person", "accepted_at"])
    if proving:
        prove(person, entry.address)


def _refusal(entry: Invitation, user: object) -> str | None:
    """Why the link is not valid, or not for this person, in words; None where it is."""
    if entry.state in GONE:
        return GONE[entry.state].format(by=called(entry.by))
    if entry.state == "accepted" and not (isinstance(user, User) and entry.person_id == user.pk):
        opened = "This invitation was opened already, and belongs to who opened it."
        return f"{opened} If that was you, sign in; if not, ask {called(entry.by)} for one of your own."
    return None


def _page(request: HttpRequest, entry: Invitation, proving: bool, status: int = 200, **more: object) -> HttpResponse:
    known = {
        "entry": entry,
        "by": called(entry.by),
        "asked": WORDS[entry.role],
        "proving": proving,
        "here": request.path,
    }
    return render(request, "people/invitation.html", {**known, **more}, status=status)


@require_http_methods(["GET", "POST"])
def invitation(request: HttpRequest, code: str) -> HttpResponse:
    """The page of an invitation: people who are signed in accept with one press, new people choose a password."""
    entry, proving = _found(code)
    if entry is None:
        wait = GUESSING.wait_s(network_address(request))
        GUESSING.count(network_address(request))
        words = "There is no such invitation. Look whether the link was copied whole."
        return render(request, "people/invitation.html", {"refusal": words}, status=429 if wait else 404)
    refusal = _refusal(entry, request.user)
    if refusal:
        return _page(request, entry, proving, status=410 if entry.state in GONE else 403, refusal=refusal)
    if isinstance(request.user, User):
        # Who has accepted, or is known at the address, is let in at once; anybody else is asked whether it is them.
        if request.method == "POST" or entry.person_id == request.user.pk or proves(request.user, entry.address):
            _accept(entry, request.user, proving)
            return redirect(WHERE[entry.role], entry.show_id)
        return _page(request, entry, proving, person=called(request.user))
    if proving and proven_person(entry.address) is not None:
        return redirect(f"{reverse('sign-in')}?next={request.path}")
    if request.method == "GET":
        return _page(request, entry, proving, name=entry.name)
    return _come_in(request, entry, proving)


def _come_in(request: HttpRequest, entry: Invitation, proving: bool) -> HttpResponse:
    """Makes an account for a new person. Errors stand at their fields, and the typed text stays."""
    name, sign_in_name = request.POST.get("name", "")[:200], request.POST.get("sign_in_name", "").strip()[:60]
    try:
        ACCEPTING.apply(network_address(request), words="Too many accounts were asked for from here.")
        person = create_account(
            name, request.POST.get("password", "")[:200], sign_in_name, entry.address if proving else ""
        )
    except TooOften as error:
        return _page(request, entry, proving, status=429, name=name, sign_in_name=sign_in_name, wrong=str(error))
    except BadValue as error:
        return _page(
            request,
            entry,
            proving,
            status=400,
            name=name,
            sign_in_name=sign_in_name,
            wrong=str(error),
            field=error.field,
        )
    _accept(entry, person, False)
    login(request, person, backend=BACKEND)
    return redirect(WHERE[entry.role], entry.show_id)
