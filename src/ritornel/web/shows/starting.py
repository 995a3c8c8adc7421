"""Starting a show: blank, from a starter, or from many pictures."""

import functools
import hashlib
from pathlib import Path
from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins, to_json
from ritornel.core.document.edits import AddSlide, Edit, RemoveSlides, Several
from ritornel.core.document.show import RUNS, Runs, Transition
from ritornel.core.errors import BadValue
from ritornel.core.formats.pictures import natural_key, slides_of
from ritornel.core.render.stills import png_of
from ritornel.core.schedule.performance import Performance, frame_state_at_rest, perform
from ritornel.core.time.milliseconds import LONGEST_MS, clock_text
from ritornel.core.wording import count_text
from ritornel.demo.orlmere import FILES, MEDIA, media
from ritornel.starters import STARTERS, starter_show
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.jobs.derived_files import derived_path
from ritornel.web.library.services import kept_picture
from ritornel.web.people.services import person_of
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.models import Show
from ritornel.web.shows.services import create_rows, edit_show, keep_media, new_id, show_for, value_of

UNTITLED = "Untitled show"
STILL_PX = 640


@functools.cache
def _staged(name: str) -> Performance:
    """A starter, staged. Starters ship and never change, so each is staged once."""
    return perform(starter_show(name, name, "")[0])


@functools.cache
def _shipped() -> dict[str, Path]:
    """The places of the starters' media, by hash."""
    return {asset.sha256: MEDIA / FILES[asset_id][0] for asset_id, (asset, _) in media().items()}


def starter_picture(name: str, number: int) -> bytes:
    """A slide of a starter as a PNG, drawn once and kept under a key of the starter's content."""

    def draw() -> bytes:
        shown = _staged(name)
        frame = shown.frame
        scale = STILL_PX / max(frame.width_px, frame.height_px)
        frame_state = frame_state_at_rest(shown, number, len(shown.slides[number].schedule.beats) - 1)
        return png_of(
            shown,
            frame_state,
            round(frame.width_px * scale),
            round(frame.height_px * scale),
            lambda sha256: _shipped()[sha256],
        )

    return kept_picture(derived_path("slides", f"{_written(name)}-{number}", ".png"), draw)


@functools.cache
def _written(name: str) -> str:
    return hashlib.sha256(to_json(starter_show(name, name, "")[0])).hexdigest()


@login_required
@require_GET
def start_page(request: HttpRequest) -> HttpResponse:
    """The page where a show is started: starters, a blank show, a folder of pictures. `?starter=` chooses one."""
    chosen = request.GET.get("starter", "")
    if chosen and chosen not in STARTERS:
        raise Http404("There is no such starter.")
    starters = [
        {"starter": entry, "chosen": entry.name == chosen, "first": reverse("starter-still", args=[entry.name, 0])}
        for entry in STARTERS.values()
    ]
    return render(
        request,
        "shows/start.html",
        {"starters": starters, "chosen": _chosen(chosen) if chosen else None, "runs": _answers()},
    )


def _answers() -> list[dict[str, str]]:
    """The two answers to how a new show runs."""
    return [{"value": value, "title": title, "words": words} for value, (title, words) in RUNS.items()]


def _chosen(name: str) -> dict[str, Any]:
    shown = _staged(name)
    stills = [
        {"address": reverse("starter-still", args=[name, n]), "name": staged.slide.name}
        for n, staged in enumerate(shown.slides)
    ]
    runs = RUNS[starter_show(name, name, "")[0].runs][0]
    facts = f"{runs} · {count_text(len(shown.slides), 'slide')} · {clock_text(shown.schedule.length_ms).split('.')[0]}"
    return {
        "starter": STARTERS[name],
        "title": shown.title,
        "stills": stills,
        "facts": facts,
        "tall": shown.frame.height_px > shown.frame.width_px,
    }


@login_required
@require_GET
def starter_still(request: HttpRequest, name: str, number: int) -> HttpResponse:
    """A slide of a starter."""
    if name not in STARTERS or number >= len(_staged(name).slides):
        raise Http404("There is no such slide.")
    return HttpResponse(
        starter_picture(name, number), content_type="image/png", headers={"Cache-Control": "private, max-age=86400"}
    )


def runs_asked(request: HttpRequest) -> Runs:
    """The chosen way in which the new show runs. Raises BadValue."""
    runs = request.POST.get("runs", "self-running")
    if runs not in RUNS:
        raise BadValue(f"A show runs {' or '.join(RUNS)}, not “{runs[:40]}”.", "runs")
    return runs


@login_required
@require_POST
@answer_errors
def new_show(request: HttpRequest) -> HttpResponse:
    """A new show: from the chosen starter, else one slide with an empty title.

    A request for JSON gets its id.
    """
    title = request.POST.get("title", "").strip()[:200]
    name = request.POST.get("starter", "")
    row = Show(owner=person_of(request))
    if name:
        if name not in STARTERS:
            raise Http404("There is no such starter.")
        show, data = starter_show(name, row.id, title)
        for sha256, content in data.items():
            keep_media(sha256, content)
    else:
        show = blank_show(row.id, title or UNTITLED, runs_asked(request))
    with transaction.atomic():
        create_rows(row, show)
    if request.headers.get("Accept") == "application/json":
        return json_reply({"id": row.id})
    return redirect("compose", row.id)


@login_required
@require_POST
@answer_errors
def slides_from_pictures(request: HttpRequest, show_id: str) -> HttpResponse:
    """Replaces the show's slides by its pictures, sorted by name: {"each_ms": n, "transition": {...}, "fills": whether
    pictures of another proportion are cropped}.
    """
    show = value_of(show_for(show_id, request))
    body = body_of(request)
    each_ms = body.get("each_ms")
    if not isinstance(each_ms, int) or not 0 < each_ms <= LONGEST_MS:
        raise BadValue(f"Each picture needs a length of at most {LONGEST_MS // 3_600_000} hours.", "each_ms")
    transition = from_builtins(body.get("transition", {}), Transition, "The transition")
    pictures = sorted((asset for asset in show.assets if asset.width_px), key=lambda asset: natural_key(asset.name))
    if not pictures:
        raise BadValue("None of the files is a picture that can be shown, so there are no slides.", "pictures")
    fresh = slides_of(pictures, each_ms, transition, show.frame, f"{new_id()[:8]}-", fills=body.get("fills") is True)
    edits: list[Edit] = [AddSlide(len(show.slides) + number, slide) for number, slide in enumerate(fresh)]
    if show.slides:
        edits.append(RemoveSlides(tuple(slide.id for slide in show.slides)))
    edit_show(show_id, person_of(request), Several(f"Make {len(fresh)} slides of pictures", tuple(edits)))
    return json_reply({"slides": len(fresh), "show": msgspec.to_builtins(show.id)})
