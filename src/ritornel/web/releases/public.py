"""What strangers see: the newest edition at its address, and nothing else of the application."""

import hashlib

from django.conf import settings
from django.db.models import F
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.gzip import gzip_page
from django.views.decorators.http import require_GET

from ritornel.core.document.decoding import from_json
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.transcript import transcript_of
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.bounded_input import whole_number
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.file_names import data_url
from ritornel.web.config.policy import PAGE
from ritornel.web.config.static_stamp import LETTERS
from ritornel.web.releases.folders import CALM, FIRST, PERFORMANCE, TYPES, edition_place, packed_beside, served_file
from ritornel.web.releases.guests import door, visitor_of
from ritornel.web.releases.models import Edition, Release
from ritornel.web.releases.release_feed import ReleaseFeed
from ritornel.web.streams.services import stream_reply


def _owns(request: HttpRequest, release: Release) -> bool:
    return bool(request.user.is_authenticated) and request.user.pk == release.show.owner_id


def _release(request: HttpRequest, address: str) -> Release:
    """The release at an address.

    A withdrawn one exists only for its maker; for everybody else it looks as if there had never been one.
    """
    release = Release.objects.filter(address=address).select_related("show").first()
    if release is not None and release.show.removed_at is not None:
        raise Http404("There is no show at this address.")
    if release is None or (release.withdrawn and not _owns(request, release)):
        raise Http404("There is no show at this address.")
    return release


def _edition(request: HttpRequest, address: str, number: int) -> Edition:
    release = _release(request, address)
    if visitor_of(request, release) is None:
        raise Http404("There is no such edition.")
    edition = Edition.objects.filter(release=release, number=number).select_related("release").first()
    if edition is None:
        raise Http404("There is no such edition.")
    return edition


@gzip_page
@require_GET
def watch(request: HttpRequest, address: str) -> HttpResponse:
    """The page of the newest edition.

    A page that embeds it may say how it behaves there: `?start=press` or `silence`, `?loop=on` or `off`, `?sound=off`,
    `?steps=off`, `?controls=off`; none of them changes the edition itself. Its maker may look at an earlier one,
    `?edition=1`.
    """
    release = _release(request, address)
    if visitor_of(request, release) is None:
        return door(request, release)
    editions = release.editions.defer("document")
    asked = whole_number(request.GET.get("edition", ""), most=10**8) if _owns(request, release) else None
    edition = editions.first() if asked is None else editions.filter(number=asked).first()
    if edition is None:
        raise Http404("There is no show at this address.")
    if not _owns(request, release):
        # Looking at one's own is no opening.
        Edition.objects.filter(pk=edition.pk).update(opened=F("opened") + 1)
    start = {
        "performance": reverse("edition-file", args=[address, edition.number, PERFORMANCE]),
        "calm": reverse("edition-file", args=[address, edition.number, CALM]),
        "news": reverse("release-news", args=[address]),
        "edition": edition.number,
        "starts_itself": release.starts_itself and request.GET.get("start") != "press",
        "starts_silent": release.starts_silent or request.GET.get("start") == "silence",
        "loops": {"on": True, "off": False}.get(request.GET.get("loop", ""), release.loops),
        **{name: request.GET.get(name) != "off" for name in ("sound", "steps", "controls")},
    }
    first = edition_place(address, edition.number) / FIRST
    picture = first.read_bytes() if first.is_file() else b""
    context = {
        "title": edition.title,
        "length": clock_text(edition.length_ms).split(".")[0],
        "start": start,
        "loops": start["loops"],
        "transcript": reverse("transcript", args=[address]),
    }
    # A stranger's page has no form, so that it needs no cookie.
    context |= {"first": data_url("image/webp", picture) if picture else "", "csrf_token": ""}
    response = render(request, "releases/watch.html", context)
    if "line" in request.GET:
        # As at a stranger's: nothing of the program lies in the browser from before.
        fresh = hashlib.sha256(request.GET["line"].encode()).hexdigest()[:LETTERS]
        response.content = response.content.replace(settings.STATIC_STAMP.encode(), fresh.encode())
    if release.audience == "anyone":
        # It may stand in somebody else's page; everything else of the policy stays.
        response.headers["Content-Security-Policy"] = PAGE.replace("frame-ancestors 'self'", "frame-ancestors *")
    return response


@gzip_page
@require_GET
def transcript(request: HttpRequest, address: str) -> HttpResponse:
    """The newest edition as text, for people who read it instead of watching."""
    release = _release(request, address)
    if visitor_of(request, release) is None:
        return door(request, release)
    edition = release.editions.first()
    if edition is None:
        raise Http404("There is no show at this address.")
    show = from_json(bytes(edition.document), ShowValue, "The edition")
    slides = transcript_of(perform(show))
    about = {
        "title": edition.title,
        "language": show.language,
        "length": clock_text(edition.length_ms).split(".")[0],
        "slides": [{"value": slide, "at": clock_text(slide.starts_ms).split(".")[0]} for slide in slides],
        "watch": reverse("watch", args=[address]),
        "csrf_token": "",
    }
    return render(request, "releases/transcript.html", about)


@require_GET
def news(request: HttpRequest, address: str) -> HttpResponse:
    """Server-sent events for viewers: the number of the newest edition whenever it changes, and "over" when they lose
    access.
    """
    release = _release(request, address)
    visitor = visitor_of(request, release)
    if visitor is None:
        raise Http404("There is no show at this address.")
    return stream_reply(
        request, ReleaseFeed.name, (release.pk, visitor.guest_id, visitor.owns), {"release": release.pk}
    )


@require_GET
def edition_file(request: HttpRequest, address: str, number: int, name: str) -> HttpResponseBase:
    """A file of an edition; no other file can be reached here."""
    edition = _edition(request, address, number)
    found = served_file(edition.release.address, edition.number, name)
    if found is None:
        raise Http404("There is no such file.")
    path, media_type = found
    if media_type != TYPES[".json"]:
        cache = f"{'public' if edition.release.audience == 'anyone' else 'private'}, max-age=60"
        return file_reply(request, path, media_type, cache)
    packed = "gzip" in request.headers.get("Accept-Encoding", "")
    headers = {"Cache-Control": "no-cache", "Vary": "Accept-Encoding"} | (
        {"Content-Encoding": "gzip"} if packed else {}
    )
    return HttpResponse(
        (packed_beside(path) if packed else path).read_bytes(), content_type=media_type, headers=headers
    )
