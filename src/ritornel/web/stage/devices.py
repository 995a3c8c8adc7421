"""What devices without a sign-in can open by a run's addresses: the House to watch, the remote to press; and their
connection with the Lectern.
"""

import json
from functools import lru_cache
from typing import Any

from django.apps import apps
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.errors import BadValue
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import perform
from ritornel.core.sound.tempo import sound_key
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.link_secrets import hash_code
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.library.services import light_path, tempo_path
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Show, media_path, show_for, value_of
from ritornel.web.stage.lectern import inks, open_run
from ritornel.web.stage.models import Run
from ritornel.web.stage.rooms import Room, Rooms, RunFeed
from ritornel.web.streams.services import stream_reply

LASTING = ("state", "drawings", "spot", "level")
"""Messages that somebody who comes later has to know."""
ACTS = ("next", "back", "black")
MESSAGE_BYTES = 400_000
NOTHING_HERE = "Nothing is played at this address now."


def _room(run: Run) -> Room:
    rooms: Rooms = apps.get_app_config("stage").rooms  # type: ignore[attr-defined]
    return rooms.room(run.pk)


def _house_run(code: str) -> Run:
    """The run whose House the code opens. Raises Http404."""
    return _followed(house_hash=hash_code(code))


def _remote_run(code: str) -> Run:
    """The run that the code controls. Raises Http404."""
    return _followed(remote_hash=hash_code(code))


def _followed(**code: str) -> Run:
    run = Run.objects.filter(**code).select_related("show").first()
    if run is None or not run.open:
        raise Http404(NOTHING_HERE)
    return run


def _stream(request: HttpRequest, run: Run) -> HttpResponse:
    return stream_reply(request, RunFeed.name, (run.pk,), {"run": run.pk})


@require_GET
def house_at(request: HttpRequest, code: str) -> HttpResponse:
    """The audience's screen on another device."""
    run = _house_run(code)
    start = {
        "performance": reverse("house-performance", args=[code]),
        "channel": None,
        "events": reverse("house-events", args=[code]),
        **inks(),
    }
    return render(request, "stage/house.html", {"title": run.show.title, "start": start})


@require_GET
def house_performance(request: HttpRequest, code: str) -> HttpResponse:
    """The performance for the House, without the presenter's notes."""
    row = _house_run(code).show
    staged = perform(value_of(row))
    media = staged.media(lambda asset, rate_pct: reverse("house-media", args=[code, asset.id, rate_pct]))
    return json_reply({"runs": row.runs, "revision": row.revision, **audience_show(staged, media)})


@lru_cache(maxsize=100)
def _media_keys(show_id: str, revision: int) -> frozenset[str]:
    """The media of a show at a revision (media keys of core/schedule/performance.py)."""
    return frozenset(perform(value_of(Show.objects.get(pk=show_id))).media_keys())


@require_GET
def house_media(request: HttpRequest, code: str, asset_id: str, rate_pct: int) -> HttpResponseBase:
    """A medium of the show that is played: only what is shown or heard in it, at a speed that it uses."""
    row = _house_run(code).show
    asset = value_of(row).asset(asset_id)
    if asset is None or sound_key(asset_id, rate_pct) not in _media_keys(row.pk, row.revision):
        raise Http404("There is no such medium.")
    if rate_pct != 100:
        path, media_type = tempo_path(asset.sha256, rate_pct), "audio/flac"
    else:
        path, media_type = (
            (light_path(asset.sha256), "video/mp4") if asset.heavy else (media_path(asset.sha256), asset.media_type)
        )
    if not path.is_file():
        raise Http404("There is no such medium.")
    return file_reply(request, path, media_type)


@require_GET
def house_events(request: HttpRequest, code: str) -> HttpResponse:
    """The stream for the House."""
    return _stream(request, _house_run(code))


@require_GET
def remote(request: HttpRequest, code: str) -> HttpResponse:
    """A phone as the remote."""
    run = _remote_run(code)
    start = {
        "events": reverse("remote-events", args=[code]),
        "press": reverse("remote-press", args=[code]),
        "slides": _slides(run.show),
    }
    return render(request, "stage/remote.html", {"title": run.show.title, "start": start})


def _slides(row: Show) -> list[dict[str, Any]]:
    performance = perform(value_of(row))
    return [
        {"id": staged.slide.id, "name": staged.slide.name, "beats": len(staged.schedule.beats)}
        for staged in performance.slides
    ]


@require_GET
def remote_events(request: HttpRequest, code: str) -> HttpResponse:
    """The stream for the remote."""
    return _stream(request, _remote_run(code))


@csrf_exempt
@require_POST
@answer_errors
def remote_press(request: HttpRequest, code: str) -> HttpResponse:
    """A press on the remote: {"act": "next" | "back" | "black"}. Only the code allows it; no cookie is involved."""
    run = _remote_run(code)
    act = body_of(request).get("act")
    if act not in ACTS:
        raise BadValue(f"A remote cannot do “{str(act)[:40]}”; it can do {', '.join(ACTS)}.", "act")
    _room(run).say("press", json.dumps({"kind": "press", "act": act}), lasting=False)
    return json_reply({"pressed": act})


def _led_run(request: HttpRequest, show_id: str) -> Run:
    """The person's own run of a show. Raises Http404."""
    row, person = show_for(show_id, request), person_of(request)
    run = open_run(row, person.pk)
    if run is None:
        raise Http404(NOTHING_HERE)
    return run


@login_required
@require_GET
def run_events(request: HttpRequest, show_id: str) -> HttpResponse:
    """The stream for the Lectern."""
    return _stream(request, _led_run(request, show_id))


@login_required
@require_POST
@answer_errors
def run_say(request: HttpRequest, show_id: str) -> HttpResponse:
    """A message of the Lectern: {"kind": "state", ...}. It is passed on unchanged to all devices that follow."""
    run = _led_run(request, show_id)
    message = body_of(request)
    kind = message.get("kind")
    if not isinstance(kind, str) or len(request.body) > MESSAGE_BYTES:
        raise BadValue(f"A message needs a kind, and at most {MESSAGE_BYTES // 1000} kB in all.", "kind")
    _room(run).say(kind, json.dumps(message), lasting=kind in LASTING)
    return json_reply({"heard": _room(run).listeners})
