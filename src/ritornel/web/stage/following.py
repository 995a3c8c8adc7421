"""What devices without a sign-in reach by a run's addresses: the House to look at, the remote to press; and the line between them and the Lectern."""

import json
from typing import Any

from asgiref.sync import sync_to_async
from django.apps import apps
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import perform
from ritornel.web.people.services import access_of
from ritornel.web.shows.models import Show
from ritornel.web.shows.ranges import file_reply
from ritornel.web.shows.replies import json_reply
from ritornel.web.shows.services import light_path, media_path, tempo_path, value_of
from ritornel.web.stage.lectern import inks
from ritornel.web.stage.models import Run
from ritornel.web.stage.rooms import Room, Rooms

LASTING = ("state", "drawings", "spot", "level")
"""Messages that somebody who comes later has to know."""
ACTS = ("next", "back", "black")
MESSAGE_BYTES = 400_000
NOTHING_HERE = "Nothing is played at this address now."


def _room(run: Run) -> Room:
    rooms: Rooms = apps.get_app_config("stage").rooms  # type: ignore[attr-defined]
    return rooms.room(run.pk)


def _open(**code: str) -> Run:
    run = Run.objects.filter(**code).select_related("show").first()
    if run is None or not run.open:
        raise Http404(NOTHING_HERE)
    return run


@require_GET
def house_at(request: HttpRequest, code: str) -> HttpResponse:
    """The audience's screen on another device."""
    run = _open(house_code=code)
    start = {"performance": reverse("house-performance", args=[code]), "channel": None, "events": reverse("house-events", args=[code]), **inks()}
    return render(request, "stage/house.html", {"title": run.show.title, "start": start})


@require_GET
def house_performance(request: HttpRequest, code: str) -> HttpResponse:
    """What the House paints. The presenter's notes stay with the presenter."""
    row = _open(house_code=code).show
    staged = perform(value_of(row))
    media = staged.media(lambda asset, rate_pct: reverse("house-media", args=[code, asset.id, rate_pct]))
    return json_reply({"runs": row.runs, "revision": row.revision, **audience_show(staged, media)})


@require_GET
def house_media(request: HttpRequest, code: str, asset_id: str, rate_pct: int) -> HttpResponseBase:
    """A medium of the show that is played."""
    asset = value_of(_open(house_code=code).show).asset(asset_id)
    if asset is None:
        raise Http404("There is no such medium.")
    if rate_pct != 100:
        path, media_type = tempo_path(asset.sha256, rate_pct), "audio/flac"
    else:
        path, media_type = (light_path(asset.sha256), "video/mp4") if asset.heavy else (media_path(asset.sha256), asset.media_type)
    if not path.is_file():
        raise Http404("There is no such medium.")
    return file_reply(request, path, media_type)


def _stream(room: Room) -> StreamingHttpResponse:
    return StreamingHttpResponse(room.heard(), content_type="text/event-stream", headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"})


async def _following(**code: str) -> Run:
    run = await Run.objects.filter(**code).afirst()
    if run is None or not run.open:
        raise Http404(NOTHING_HERE)
    return run


async def house_events(request: HttpRequest, code: str) -> StreamingHttpResponse:
    """What the House hears."""
    return _stream(_room(await _following(house_code=code)))


@require_GET
def remote(request: HttpRequest, code: str) -> HttpResponse:
    """A phone as the remote."""
    run = _open(remote_code=code)
    start = {"events": reverse("remote-events", args=[code]), "press": reverse("remote-press", args=[code]), "slides": _slides(run.show)}
    return render(request, "stage/remote.html", {"title": run.show.title, "start": start})


def _slides(row: Show) -> list[dict[str, Any]]:
    performance = perform(value_of(row))
    return [{"id": staged.slide.id, "name": staged.slide.name, "beats": len(staged.schedule.beats)} for staged in performance.slides]


async def remote_events(request: HttpRequest, code: str) -> StreamingHttpResponse:
    """What the remote hears."""
    return _stream(_room(await _following(remote_code=code)))


@csrf_exempt
@require_POST
async def remote_press(request: HttpRequest, code: str) -> HttpResponse:
    """A press on the remote: {"act": "next" | "back" | "black"}. The code is what allows it, and nothing else is carried by a cookie."""
    run = await _following(remote_code=code)
    act = _said(request).get("act")
    if act not in ACTS:
        return json_reply({"error": f"A remote cannot do “{act}”; it can do {', '.join(ACTS)}."}, 400)
    _room(run).say("press", json.dumps({"kind": "press", "act": act}), lasting=False)
    return json_reply({"pressed": act})


def _said(request: HttpRequest) -> dict[str, Any]:
    try:
        value = json.loads(request.body) if len(request.body) <= MESSAGE_BYTES else {}
    except ValueError:
        value = {}
    return value if isinstance(value, dict) else {}


async def _owned_run(request: HttpRequest, show_id: str) -> Run:
    person = await request.auser()
    async for run in Run.objects.filter(show_id=show_id, person_id=person.pk, ended=False).select_related("show").order_by("-pk"):
        access = await sync_to_async(access_of)(show_id, run.show.owner_id, person)  # type: ignore[arg-type]
        if run.open and access is not None and access.may("edit"):
            return run
    raise Http404(NOTHING_HERE)


@login_required
async def run_events(request: HttpRequest, show_id: str) -> StreamingHttpResponse:
    """What the Lectern hears."""
    return _stream(_room(await _owned_run(request, show_id)))


@login_required
@require_POST
async def run_say(request: HttpRequest, show_id: str) -> HttpResponse:
    """What the Lectern says: {"kind": "state", ...}. It goes to all that follow, as it is."""
    run = await _owned_run(request, show_id)
    message = _said(request)
    kind = message.get("kind")
    if not isinstance(kind, str):
        return json_reply({"error": "A message needs a kind, and at most 400 kB in all."}, 400)
    _room(run).say(kind, json.dumps(message), lasting=kind in LASTING)
    return json_reply({"heard": _room(run).listeners})
