"""Who may see a release that is not open to anyone.

Each guest has a personal link; it sets a cookie for that release only.
"""

import msgspec
from django.contrib.auth.decorators import login_required
from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.csrf import csrf_protect
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.errors import BadValue
from ritornel.core.wording import one_line
from ritornel.web.config.link_secrets import hash_code
from ritornel.web.config.rate_limits import Brake, TooOften
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import check_mail_allowed, network_address, send_mail
from ritornel.web.releases.models import Guest, Release
from ritornel.web.shows.services import Show, owned_show

COOKIE_S = 180 * 24 * 60 * 60
AGAIN_S = 60
"""A link is sent to an address once a minute at most, however often somebody asks."""
ASKING = Brake("asking for a link", "10/5minute;60/day")
"""How often one address of the network may ask for links."""
OPENING = Brake("opening a guest's link", "60/minute")
"""How often one address of the network may try links that lead nowhere."""


def _cookie(release: Release) -> str:
    return f"guest-{release.address}"


class Visitor(msgspec.Struct, frozen=True):
    """Somebody who may see a release: as its owner, as a guest, or as anyone."""

    owns: bool = False
    guest_id: int = 0


def visitor_of(request: HttpRequest, release: Release) -> Visitor | None:
    """The right by which this browser may see the release: the owner's, that of a guest whose link was opened in it and
    is still valid, or anyone's. None where it may not.
    """
    if request.user.is_authenticated and request.user.pk == release.show.owner_id:
        return Visitor(owns=True)
    if release.audience == "anyone":
        return Visitor()
    code = request.COOKIES.get(_cookie(release), "")
    found = (
        Guest.objects.filter(release=release, code_hash=hash_code(code), withdrawn_at__isnull=True).first()
        if code
        else None
    )
    return Visitor(guest_id=found.pk) if found is not None else None


@csrf_protect
def door(request: HttpRequest, release: Release, said: str = "", status: int = 403) -> HttpResponse:
    """The page for people without access: nothing of the show, not even its title.

    At a mail domain they can ask for a personal link.
    """
    context = {
        "address": release.address,
        "domain": release.domain if release.audience == "domain" else "",
        "said": said,
    }
    return render(request, "releases/door.html", context, status=status)


def _link(request: HttpRequest, guest: Guest) -> str:
    return request.build_absolute_uri(reverse("guest", args=[guest.release.address, guest.code]))


def _write_to(request: HttpRequest, guest: Guest) -> None:
    show = guest.release.show
    text = (
        f"Hello,\n\nhere is “{show.title}”:\n{_link(request, guest)}\n\nThe link is yours alone. It "
        "opens the show in the browsers you open it in."
    )
    send_mail(show.pk, show.owner_id, guest.address, f"“{show.title}” is open for you", text)


def _guest(release: Release, address: str) -> Guest:
    """The guest with the address; one whose link was withdrawn gets a new one."""
    with transaction.atomic():
        guest, made = Guest.objects.select_for_update().get_or_create(release=release, address=address)
        if guest.withdrawn_at is not None:
            guest.renew()
            guest.withdrawn_at, guest.opened_at = None, None
        guest.sent_at = timezone.now() if made else guest.sent_at
        guest.save()
    return guest


@require_GET
def guest(request: HttpRequest, address: str, code: str) -> HttpResponse:
    """A guest's personal link: the browser gets access, and goes on to the shared address."""
    found = (
        Guest.objects.filter(
            release__address=address,
            release__withdrawn=False,
            release__show__removed_at=None,
            code_hash=hash_code(code),
        )
        .select_related("release")
        .first()
    )
    if found is None:
        OPENING.apply(network_address(request), words="Too many links that lead nowhere were tried from here.")
        raise Http404("There is no such link.")
    if found.withdrawn_at is not None:
        return door(request, found.release)
    found.opened_at = found.opened_at or timezone.now()
    found.save(update_fields=["opened_at"])
    response = redirect("watch", address)
    where = reverse("watch", args=[address])
    response.set_cookie(
        _cookie(found.release),
        code,
        max_age=COOKIE_S,
        path=where,
        httponly=True,
        samesite="Lax",
        secure=request.is_secure(),
    )
    return response


@csrf_protect
@require_POST
def ask(request: HttpRequest, address: str) -> HttpResponse:
    """Somebody at the mail domain asks for a link.

    The answer is always the same, so that nobody learns who has access.
    """
    release = Release.objects.filter(address=address, withdrawn=False, show__removed_at=None, audience="domain").first()
    if release is None:
        raise Http404("There is no show at this address.")
    wanted = request.POST.get("address", "").strip().lower()[:254]
    try:
        validate_email(wanted)
        ASKING.apply(network_address(request), words="Many links were asked for from here, so nothing was sent.")
    except ValidationError:
        return door(request, release, f"“{one_line(wanted)[:100]}” is no e-mail address. Nothing was sent.", 400)
    except TooOften as error:
        return door(request, release, str(error), 429)
    if wanted.endswith(f"@{release.domain}"):
        found = Guest.objects.filter(release=release, address=wanted).first()
        # Who was shut out stays so: only the owner lets them in again.
        if found is None or found.withdrawn_at is None:
            fresh = found is None
            one = _guest(release, wanted)
            if fresh or (timezone.now() - one.sent_at).total_seconds() > AGAIN_S:
                Guest.objects.filter(pk=one.pk).update(sent_at=timezone.now())
                _write_to(request, one)
    return door(request, release, f"If {wanted} may see it, mail with a link is on its way there.", 200)


def guest_lines(request: HttpRequest, release: Release | None) -> list[dict[str, object]]:
    """The guests, for the maker."""
    if release is None:
        return []
    return [
        {
            "id": one.pk,
            "address": one.address,
            "opened_at": one.opened_at,
            "withdrawn": one.withdrawn_at is not None,
            "link": _link(request, one) if one.nonce else None,
        }
        for one in release.guests.select_related("release")
    ]


def _own(request: HttpRequest, show_id: str) -> tuple[Show, Release]:
    row = owned_show(show_id, request)
    release = Release.objects.filter(show=row).first()
    if release is None:
        raise BadValue("There is no edition yet. Make one first.")
    return row, release


@login_required
@require_POST
@answer_errors
def invite(request: HttpRequest, show_id: str) -> HttpResponse:
    """Adds guests by their addresses, separated by commas, semicolons, spaces or lines; each gets mail.

    With one wrong address, nobody gets any.
    """
    row, release = _own(request, show_id)
    words = str(body_of(request).get("addresses", "")).replace(",", " ").replace(";", " ").lower().split()
    if not words:
        raise BadValue("Write at least one e-mail address.", "addresses")
    for word in words:
        try:
            validate_email(word)
        except ValidationError as error:
            raise BadValue(f"“{word[:100]}” is no e-mail address. Nobody was written to.", "addresses") from error
    check_mail_allowed(row.pk, len(set(words)))
    for word in dict.fromkeys(words):
        _write_to(request, _guest(release, word))
    return json_reply({"guests": guest_lines(request, release), "sent": len(set(words))})


@login_required
@require_POST
@answer_errors
def shut_out(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Withdraws a guest's link; somebody who is watching with it sees nothing more.

    With {"back": true} it is valid again.
    """
    _, release = _own(request, show_id)
    back = bool(body_of(request).get("back"))
    if not Guest.objects.filter(release=release, pk=number).update(withdrawn_at=None if back else timezone.now()):
        raise Http404("There is no such guest.")
    return json_reply({"guests": guest_lines(request, release)})
