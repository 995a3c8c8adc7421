"""Who may see a release that is not open to anyone. Each guest has a link of their own; it leaves a cookie for that release only."""

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
from ritornel.web.people.models import new_code
from ritornel.web.people.post import send
from ritornel.web.people.services import called
from ritornel.web.releases.models import Guest, Release
from ritornel.web.shows.replies import body_of, json_reply, telling_errors
from ritornel.web.shows.services import Show, owned_show

COOKIE_S = 180 * 24 * 60 * 60
AGAIN_S = 60
"""A link is sent to an address once a minute at most, however often somebody asks."""


def _cookie(release: Release) -> str:
    return f"guest-{release.address}"


def let_in(request: HttpRequest, release: Release) -> bool:
    """Whether the asking browser may see the release: anyone, its owner, or a guest whose link was opened in it and not withdrawn since."""
    if release.audience == "anyone" or (request.user.is_authenticated and request.user.pk == release.show.owner_id):
        return True
    code = request.COOKIES.get(_cookie(release), "")
    return bool(code) and Guest.objects.filter(release=release, code=code, withdrawn_at__isnull=True).exists()


@csrf_protect
def door(request: HttpRequest, release: Release, said: str = "") -> HttpResponse:
    """What somebody sees who is not let in. At a mail domain they can ask for a link of their own."""
    context = {"release": release, "owner": called(release.show.owner), "domain": release.domain if release.audience == "domain" else "", "said": said}
    return render(request, "releases/door.html", context, status=200 if said else 403)


def _link(request: HttpRequest, guest: Guest) -> str:
    return request.build_absolute_uri(reverse("guest", args=[guest.release.address, guest.code]))


def _write_to(request: HttpRequest, guest: Guest) -> None:
    show = guest.release.show
    text = f"Hello,\n\nhere is “{show.title}”:\n{_link(request, guest)}\n\nThe link is yours alone. It opens the show in the browsers you open it in."
    send(show.owner_id, guest.address, f"“{show.title}” is open for you", text)


def _guest(release: Release, address: str) -> Guest:
    """The guest with the address, let in again with another link where they had been shut out."""
    with transaction.atomic():
        guest, made = Guest.objects.select_for_update().get_or_create(release=release, address=address)
        if guest.withdrawn_at is not None:
            guest.code, guest.withdrawn_at, guest.opened_at = new_code(), None, None
        guest.sent_at = timezone.now() if made else guest.sent_at
        guest.save()
    return guest


@require_GET
def guest(request: HttpRequest, address: str, code: str) -> HttpResponse:
    """A guest's own link: the browser is let in, and goes on to the address that all share."""
    found = Guest.objects.filter(release__address=address, release__withdrawn=False, code=code).select_related("release").first()
    if found is None:
        raise Http404("There is no such link.")
    if found.withdrawn_at is not None:
        return door(request, found.release)
    found.opened_at = found.opened_at or timezone.now()
    found.save(update_fields=["opened_at"])
    response = redirect("watch", address)
    where = reverse("watch", args=[address])
    response.set_cookie(_cookie(found.release), code, max_age=COOKIE_S, path=where, httponly=True, samesite="Lax", secure=request.is_secure())
    return response


@csrf_protect
@require_POST
def ask(request: HttpRequest, address: str) -> HttpResponse:
    """Somebody at the mail domain asks for their link. The answer is the same whether they may have one, so that nobody learns who may."""
    release = Release.objects.filter(address=address, withdrawn=False, audience="domain").first()
    if release is None:
        raise Http404("There is no show at this address.")
    wanted = request.POST.get("address", "").strip().lower()
    try:
        validate_email(wanted)
    except ValidationError:
        return door(request, release, f"“{wanted[:100]}” is no e-mail address. Nothing was sent.")
    if wanted.endswith(f"@{release.domain}"):
        found = Guest.objects.filter(release=release, address=wanted).first()
        # Who was shut out stays so: only the owner lets them in again.
        if found is None or found.withdrawn_at is None:
            fresh = found is None
            one = _guest(release, wanted)
            if fresh or (timezone.now() - one.sent_at).total_seconds() > AGAIN_S:
                Guest.objects.filter(pk=one.pk).update(sent_at=timezone.now())
                _write_to(request, one)
    return door(request, release, f"If {wanted} may see it, a letter with a link is on its way there.")


def guest_lines(request: HttpRequest, release: Release | None) -> list[dict[str, object]]:
    """The guests as the maker sees them."""
    if release is None:
        return []
    return [
        {"id": one.pk, "address": one.address, "opened_at": one.opened_at, "withdrawn": one.withdrawn_at is not None, "link": _link(request, one)}
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
@telling_errors
def invite(request: HttpRequest, show_id: str) -> HttpResponse:
    """Lets people in by their addresses, parted by commas, semicolons, spaces or lines; each gets a letter. One wrong address, and nobody is written to."""
    _, release = _own(request, show_id)
    words = str(body_of(request).get("addresses", "")).replace(",", " ").replace(";", " ").lower().split()
    if not words:
        raise BadValue("Write at least one e-mail address.", "addresses")
    for word in words:
        try:
            validate_email(word)
        except ValidationError as error:
            raise BadValue(f"“{word[:100]}” is no e-mail address. Nobody was written to.", "addresses") from error
    for word in dict.fromkeys(words):
        _write_to(request, _guest(release, word))
    return json_reply({"guests": guest_lines(request, release), "sent": len(set(words))})


@login_required
@require_POST
@telling_errors
def shut_out(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Withdraws a guest's link; whoever looks at the show with it is let see nothing more of it. With {"back": true} it leads there again."""
    _, release = _own(request, show_id)
    back = bool(body_of(request).get("back"))
    if not Guest.objects.filter(release=release, pk=number).update(withdrawn_at=None if back else timezone.now()):
        raise Http404("There is no such guest.")
    return json_reply({"guests": guest_lines(request, release)})
