"""The help pages, and the example that plays for people without a show."""

from functools import lru_cache

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET

from ritornel.core.document.decoding import to_json
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import media, orlmere
from ritornel.web.help.first_show import first_show_id
from ritornel.web.help.topics import found_topics, help_topics, topic_named

DAY_S = 86_400


@login_required
@require_GET
def help_page(request: HttpRequest, name: str = "") -> HttpResponse:
    """All topics, or the one of a screen. `?q=` searches all of them."""
    query = " ".join(request.GET.get("q", "").split())[:80]
    topic = topic_named(name) if name else None
    if name and topic is None:
        raise Http404("There is no such page of help.")
    shown = found_topics(query) if query else (topic,) if topic else ()
    about = {"topics": help_topics(), "shown": shown, "topic": topic, "q": query, "first": first_show_id(request)}
    return render(request, "help/help.html", about)


@lru_cache(maxsize=1)
def _example() -> bytes:
    show = orlmere()
    # It plays on a page that nobody has pressed on yet, where browsers let nothing be heard.
    silent = perform(msgspec.structs.replace(show, music=(), end="loop"))
    places = silent.media(lambda asset, rate_pct: reverse("example-media", args=[asset.id]))
    return to_json(audience_show(silent, places))


@login_required
@require_GET
def example(request: HttpRequest) -> HttpResponse:
    """A finished show for the player."""
    return HttpResponse(_example(), content_type="application/json", headers=_kept())


@login_required
@require_GET
def example_media(request: HttpRequest, asset_id: str) -> HttpResponse:
    """A medium of the example."""
    asset, data = media().get(asset_id, (None, b""))
    if asset is None:
        raise Http404("There is no such medium.")
    return HttpResponse(data, content_type=asset.media_type, headers=_kept())


def _kept() -> dict[str, str]:
    return {"Cache-Control": f"private, max-age={DAY_S}"}
