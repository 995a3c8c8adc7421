"""What strangers see: the newest edition at its address, with nothing of the application around it."""

import asyncio
import re
import time
from collections.abc import AsyncIterator
from functools import cache

import msgspec
from asgiref.sync import sync_to_async
from django.db.models import F, Max
from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.gzip import gzip_page
from django.views.decorators.http import require_GET

from ritornel.core.document.decoding import from_json
from ritornel.core.document.objects import Clip
from ritornel.core.document.show import Asset
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.formats.media import file_name
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.policy import PAGE
from ritornel.web.releases.guests import door, let_in
from ritornel.web.releases.models import Edition, Release
from ritornel.web.shows.naming import data_url
from ritornel.web.shows.ranges import file_reply
from ritornel.web.shows.services import light_path, media_path, tempo_path

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
    editions = release.editions.defer("document", "calm")
    asked = request.GET.get("edition", "")
    edition = editions.filter(number=int(asked)).first() if asked.isdecimal() and len(asked) < 8 and _owns(request, release) else editions.first()
    if edition is None:
        raise Http404("There is no show at this address.")
    Edition.objects.filter(pk=edition.pk).update(opened=F("opened") + 1)
    start = {
        "performance": reverse("edition-performance", args=[address, edition.number]),
        "calm": reverse("edition-calm", args=[address, edition.number]),
        "news": reverse("release-news", args=[address]),
        "edition": edition.number,
        "starts_itself": release.starts_itself and request.GET.get("start") != "press",
        "loops": {"on": True, "off": False}.get(request.GET.get("loop", ""), release.loops),
        **{name: request.GET.get(name) != "off" for name in ("sound", "steps", "controls")},
    }
    title = msgspec.json.decode(bytes(edition.performance))["title"]
    context = {"title": title, "length": clock_text(edition.length_ms).split(".")[0], "start": start, "loops": start["loops"]}
    # A stranger's page has no form, so that it needs no cookie.
    context |= {"first": data_url("image/webp", bytes(edition.first)) if edition.first else "", "csrf_token": ""}
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


@gzip_page
@require_GET
def performance(request: HttpRequest, address: str, number: int) -> HttpResponse:
    """The edition as painters read it."""
    return _performance_reply(bytes(_edition(request, address, number).performance))


@gzip_page
@require_GET
def calm(request: HttpRequest, address: str, number: int) -> HttpResponse:
    """The edition for people who ask for less motion."""
    edition = _edition(request, address, number)
    return _performance_reply(bytes(edition.calm) or bytes(edition.performance))


def _performance_reply(body: bytes) -> HttpResponse:
    return HttpResponse(body, content_type="application/json", headers={"Cache-Control": "no-cache"})


@require_GET
def media(request: HttpRequest, address: str, number: int, name: str) -> HttpResponseBase:
    """A medium of the edition, by its hash; nothing else can be reached through here."""
    edition = _edition(request, address, number)
    show = from_json(bytes(edition.document), ShowValue, "The edition")
    cache = f"{'public' if edition.release.audience == 'anyone' else 'private'}, max-age=60"
    for asset in show.assets:
        if served_name(asset) == name:
            path, media_type = (light_path(asset.sha256), "video/mp4") if asset.heavy else (media_path(asset.sha256), asset.media_type)
            return file_reply(request, path, media_type, cache)
        sped = re.fullmatch(rf"{asset.sha256}-(\d{{2,3}})\.flac", name)
        if sped and any(clip.asset_id == asset.id and clip.rate_pct == int(sped[1]) for clip in clips_of(show)):
            return file_reply(request, tempo_path(asset.sha256, int(sped[1])), "audio/flac", cache)
    raise Http404("There is no such medium.")


def clips_of(show: ShowValue) -> list[Clip]:
    """All clips that stand on slides."""
    return [item for slide in show.slides for item in slide.objects if isinstance(item, Clip)]


def served_name(asset: Asset, rate_pct: int = 100) -> str:
    """Under which name an edition serves a medium, or its sound at another speed."""
    if rate_pct != 100:
        return f"{asset.sha256}-{rate_pct}.flac"
    return f"{asset.sha256}-light.mp4" if asset.heavy else file_name(asset)
