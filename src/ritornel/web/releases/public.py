"""What strangers see: the newest edition at its address, with nothing of the application around it."""

import asyncio
import time
from collections.abc import AsyncIterator
from functools import cache

from asgiref.sync import sync_to_async
from django.db.models import F, Max
from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.gzip import gzip_page
from django.views.decorators.http import require_GET

from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.policy import PAGE
from ritornel.web.releases.folders import CALM, FIRST, PERFORMANCE, TYPES, edition_place, packed_beside, served_file
from ritornel.web.releases.guests import door, let_in
from ritornel.web.releases.models import Edition, Release
from ritornel.web.shows.naming import data_url
from ritornel.web.shows.ranges import file_reply

NEWS_S = 0.4
"""How often those who watch are looked after: a withdrawn show ends for them within a second."""
STILL_HERE_S = 15.0


def _owns(request: HttpRequest, release: Release) -> bool:
    return bool(request.user.is_authenticated) and request.user.pk == release.show.owner_id


def _release(request: HttpRequest, address: str) -> Release:
    """The release at an address; one that was withdrawn is there for nobody but its maker. To everybody else it is as if there had never been one."""
    release = Release.objects.filter(address=address).select_related("show").first()
    if release is None or (release.withdrawn and not _owns(request, release)):
        raise Http404("There is no show at this address.")
    return release


def _edition(request: HttpRequest, address: str, number: int) -> Edition:
    release = _release(request, address)
    if not let_in(request, release):
        raise Http404("There is no such edition.")
    edition = Edition.objects.filter(release=release, number=number).select_related("release").first()
    if edition is None:
        raise Http404("There is no such edition.")
    return edition


@gzip_page
@require_GET
def watch(request: HttpRequest, address: str) -> HttpResponse:
    """The page of the newest edition. Somebody else's page may say how it behaves there: `?start=press`, `?loop=on` or `off`, `?sound=off`, `?steps=off`,
    `?controls=off`; no word changes what the edition is. Its maker may look at an earlier one, `?edition=1`."""
    release = _release(request, address)
    if not let_in(request, release):
        return door(request, release)
    editions = release.editions.defer("document")
    asked = request.GET.get("edition", "")
    edition = editions.filter(number=int(asked)).first() if asked.isdecimal() and len(asked) < 8 and _owns(request, release) else editions.first()
    if edition is None:
        raise Http404("There is no show at this address.")
    Edition.objects.filter(pk=edition.pk).update(opened=F("opened") + 1)
    start = {
        "performance": reverse("edition-file", args=[address, edition.number, PERFORMANCE]),
        "calm": reverse("edition-file", args=[address, edition.number, CALM]),
        "news": reverse("release-news", args=[address]),
        "edition": edition.number,
        "starts_itself": release.starts_itself and request.GET.get("start") != "press",
        "loops": {"on": True, "off": False}.get(request.GET.get("loop", ""), release.loops),
        **{name: request.GET.get(name) != "off" for name in ("sound", "steps", "controls")},
    }
    first = edition_place(address, edition.number) / FIRST
    picture = first.read_bytes() if first.is_file() else b""
    context = {"title": edition.title, "length": clock_text(edition.length_ms).split(".")[0], "start": start, "loops": start["loops"]}
    # A stranger's page has no form, so that it needs no cookie.
    context |= {"first": data_url("image/webp", picture) if picture else "", "csrf_token": ""}
    response = render(request, "releases/watch.html", context)
    if release.audience == "anyone":
        # It may stand in somebody else's page; everything else of the policy stays.
        response.headers["Content-Security-Policy"] = PAGE.replace("frame-ancestors 'self'", "frame-ancestors *")
    return response


@require_GET
async def news(request: HttpRequest, address: str) -> HttpResponseBase:
    """Server-sent events for those who watch: the number of the newest edition whenever it changes, and "over" when the show was withdrawn."""
    release = await sync_to_async(_release)(request, address)
    if not await sync_to_async(let_in)(request, release):
        raise Http404("There is no show at this address.")
    return StreamingHttpResponse(_news(release.pk), content_type="text/event-stream", headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"})


class Newsroom:
    """What is newest of each release, looked up at most so often however many watch it."""

    def __init__(self) -> None:
        self._known: dict[int, tuple[float, int | None]] = {}

    async def newest(self, release_id: int) -> int | None:
        """The number of the newest edition, or None where the release is withdrawn or gone."""
        at, found = self._known.get(release_id, (0.0, None))
        now = time.monotonic()
        if now - at >= NEWS_S * 0.9:
            there = Release.objects.filter(pk=release_id, withdrawn=False).annotate(last=Max("editions__number"))
            found = await there.values_list("last", flat=True).afirst()
            self._known[release_id] = (now, found)
        return found


@cache
def newsroom() -> Newsroom:
    """The one of this process."""
    return Newsroom()


async def _news(release_id: int) -> AsyncIterator[str]:
    known, silent = 0, 0.0
    while True:
        found = await newsroom().newest(release_id)
        if found is None:
            yield "event: over\ndata: null\n\n"
            return
        if found != known or silent >= STILL_HERE_S:
            known, silent = found, 0.0
            yield f"event: edition\ndata: {found}\n\n"
        await asyncio.sleep(NEWS_S)
        silent += NEWS_S


@require_GET
def edition_file(request: HttpRequest, address: str, number: int, name: str) -> HttpResponseBase:
    """A file of an edition; nothing else can be reached through here."""
    edition = _edition(request, address, number)
    found = served_file(edition.release.address, edition.number, name)
    if found is None:
        raise Http404("There is no such file.")
    path, media_type = found
    if media_type != TYPES[".json"]:
        cache = f"{'public' if edition.release.audience == 'anyone' else 'private'}, max-age=60"
        return file_reply(request, path, media_type, cache)
    packed = "gzip" in request.headers.get("Accept-Encoding", "")
    headers = {"Cache-Control": "no-cache", "Vary": "Accept-Encoding"} | ({"Content-Encoding": "gzip"} if packed else {})
    return HttpResponse((packed_beside(path) if packed else path).read_bytes(), content_type=media_type, headers=headers)
