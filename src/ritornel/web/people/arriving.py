"""Opening an invitation: the link belongs to one person."""

from django.contrib.auth import login
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_http_methods

from ritornel.web.people.models import Invitation
from ritornel.web.people.roles import WHERE, WORDS
from ritornel.web.people.services import called

GONE = {
    "withdrawn": "{by} has withdrawn this invitation. Ask them for another one.",
    "expired": "This invitation was not opened in time and leads nowhere any more. Ask {by} for another one.",
}


def _own(entry: Invitation, user: object) -> bool:
    """Whether the invitation is this person's: they accepted it, or it was sent to their address."""
    return isinstance(user, User) and (entry.person_id == user.pk or (entry.person_id is None and user.email.lower() == entry.address))


def _accept(entry: Invitation, person: User) -> None:
    entry.person, entry.accepted_at = person, entry.accepted_at or timezone.now()
    entry.save(update_fields=["person", "accepted_at"])


def _refusal(entry: Invitation, user: object) -> str | None:
    """Why the link does not let this person in, in words; None where it may."""
    if entry.state in GONE:
        return GONE[entry.state].format(by=called(entry.by))
    if isinstance(user, User) and not _own(entry, user):
        other = f"This invitation is for {entry.address}; you are signed in as {called(user)}."
        return f"{other} Sign out to open it as them, or ask {called(entry.by)} for one of your own."
    if not isinstance(user, User) and entry.state == "accepted":
        opened = "This invitation was opened already, and belongs to who opened it."
        return f"{opened} If that was you, sign in as {entry.address}; else ask {called(entry.by)} for one of your own."
    return None


@require_http_methods(["GET", "POST"])
def invitation(request: HttpRequest, code: str) -> HttpResponse:
    """What an invitation is to, and the way in: at once for who is signed in, with a password of their own for who comes the first time."""
    entry = Invitation.objects.filter(code=code).select_related("show", "by", "person").first()
    if entry is None:
        return render(request, "people/invitation.html", {"refusal": "There is no such invitation. Look whether the link was copied whole."}, status=404)
    refusal = _refusal(entry, request.user)
    if refusal:
        return render(request, "people/invitation.html", {"entry": entry, "refusal": refusal, "here": request.path}, status=410 if entry.state in GONE else 403)
    if isinstance(request.user, User):
        _accept(entry, request.user)
        return redirect(WHERE[entry.role], entry.show_id)
    if User.objects.filter(username=entry.address).exists():
        return redirect(f"{reverse('sign-in')}?next={request.path}")
    wrong, name = "", entry.name
    if request.method == "POST":
        name, password = request.POST.get("name", "").strip()[:120], request.POST.get("password", "")
        try:
            validate_password(password)
        except ValidationError as error:
            wrong = " ".join(error.messages)
        wrong = wrong or ("" if name else "Say what you are called, so that the others know who you are.")
        if not wrong:
            with transaction.atomic():
                person = User.objects.create_user(entry.address, entry.address, password, first_name=name)
                _accept(entry, person)
            login(request, person)
            return redirect(WHERE[entry.role], entry.show_id)
    return render(request, "people/invitation.html", {"entry": entry, "by": called(entry.by), "asked": WORDS[entry.role], "wrong": wrong, "name": name})
