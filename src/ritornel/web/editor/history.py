"""A show's history: its steps by day and person, its named points, and the show at any of them."""

from itertools import groupby
from typing import Any

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.formats import date_format
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.errors import BadMedia
from ritornel.web.config.bounded_input import whole_number
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import answer_errors
from ritornel.web.library.services import WIDTHS_PX, light_path, slide_picture, tempo_path
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.services import Show, bring_back, media_path, now_and_then, show_for

AT_ONCE = 200
"""So many steps are listed on a page."""


def _lines(row: Show, before: int) -> list[dict[str, Any]]:
    """The steps and named points below a revision, the latest first."""
    steps = row.edits.filter(revision__lte=before).exclude(revision=0).order_by("-revision").select_related("person")
    ways = {"edit": "", "undo": "Undone: ", "redo": "Done again: ", "kept": ""}
    names: dict[int, list[str]] = {}
    for named in row.points.all():
        names.setdefault(named.revision, []).append(named.name)
    found = list(steps[:AT_ONCE])
    lines = [
        {
            "revision": step.revision,
            "at": step.at,
            "who": called(step.person) if step.person else "Several people" if step.kind == "kept" else "Somebody",
            "words": ways[step.kind] + step.label,
            "names": names.get(step.revision, []),
        }
        for step in found
    ]
    if len(found) < AT_ONCE and (not found or found[-1].first_revision == 1):
        began = {"revision": 0, "at": row.created_at, "who": called(row.owner), "words": "The show as it began"}
        lines.append({**began, "names": names.get(0, [])})
    return lines


def _when(row: Show, revision: int) -> str:
    """When the show reached a revision."""
    step = row.edits.filter(revision__lte=revision).order_by("-revision").first()
    return date_format(timezone.localtime(step.at), "j F, H:i") if step else "the beginning"


@login_required
@require_GET
@answer_errors
def history(request: HttpRequest, show_id: str) -> HttpResponse:
    """The steps by day and person. `?before=` goes further back."""
    row = show_for(show_id, request)
    asked = request.GET.get("before", "")
    before = whole_number(asked, most=10**9) if asked else row.revision
    lines = _lines(row, row.revision if before is None else before)
    days = [
        {
            "day": date_format(timezone.localtime(first["at"]), "l, j F Y"),
            "people": [
                {"who": who, "lines": list(part)} for who, part in groupby([first, *rest], key=lambda line: line["who"])
            ],
        }
        for first, *rest in (
            list(part) for _, part in groupby(lines, key=lambda line: timezone.localtime(line["at"]).date())
        )
    ]
    older = lines[-1]["revision"] - 1 if len(lines) == AT_ONCE else None
    return render(
        request,
        "editor/history.html",
        {"show": row, "way": "history", "days": days, "older": older, "whole_days": settings.HISTORY_DAYS},
    )


@login_required
@require_POST
@answer_errors
def name_point(request: HttpRequest, show_id: str) -> HttpResponse:
    """Gives the present state of the show a name, so that people can return to it."""
    row = show_for(show_id, request)
    name = " ".join(request.POST.get("name", "").split())[:120]
    if name:
        row.points.create(person=person_of(request), revision=row.revision, name=name)
    return redirect("history", show_id)


@login_required
@require_GET
@answer_errors
def point(request: HttpRequest, show_id: str, revision: int) -> HttpResponse:
    """The show at a point beside the present show, slide by slide."""
    row = show_for(show_id, request)
    now, then = now_and_then(row, revision)
    slides = []
    for slide in (*then.slides, *(slide for slide in now.slides if then.slide(slide.id) is None)):
        old, new = then.slide(slide.id), now.slide(slide.id)
        how = "new since" if old is None else "removed since" if new is None else "" if old == new else "changed since"
        slides.append({"id": slide.id, "name": slide.name or "Untitled", "then": old, "now": new, "how": how})
    names = list(row.points.filter(revision=revision).values_list("name", flat=True))
    about = {
        "when": _when(row, revision),
        "show": row,
        "way": "history",
        "revision": revision,
        "slides": slides,
        "plays": bool(then.shown),
        "names": names,
        "changed": sum(bool(slide["how"]) for slide in slides),
        "title": then.title if then.title != now.title else "",
    }
    return render(request, "editor/point.html", about)


@login_required
@require_GET
@answer_errors
def point_picture(request: HttpRequest, show_id: str, revision: int, slide_id: str) -> HttpResponse:
    """A slide at a point."""
    _, then = now_and_then(show_for(show_id, request), revision)
    slide = then.slide(slide_id)
    if slide is None:
        raise Http404("There was no such slide.")
    try:
        png = slide_picture(then, slide, WIDTHS_PX["large"], then.numbers[slide_id])
    except BadMedia as error:
        raise Http404(str(error)) from error
    return HttpResponse(png, content_type="image/png", headers={"Cache-Control": "private, max-age=3600"})


@login_required
@require_GET
@answer_errors
def point_media(request: HttpRequest, show_id: str, revision: int, asset_id: str, rate_pct: int) -> HttpResponseBase:
    """A medium that the show had at a point and no longer has, so that the point can be played."""
    _, then = now_and_then(show_for(show_id, request), revision)
    asset = then.asset(asset_id)
    if asset is None or not media_path(asset.sha256).is_file():
        raise Http404("There is no such medium.")
    made = tempo_path(asset.sha256, rate_pct)
    if rate_pct != 100 and made.is_file():
        return file_reply(request, made, "audio/flac")
    lighter = light_path(asset.sha256)
    if asset.heavy and lighter.is_file():
        return file_reply(request, lighter, "video/mp4")
    return file_reply(request, media_path(asset.sha256), asset.media_type)


@login_required
@require_POST
@answer_errors
def return_to(request: HttpRequest, show_id: str, revision: int) -> HttpResponse:
    """Returns the show to a point, or one slide of it, `slide`, or an entry of its shelf, `asset`. It can be undone
    like any edit.
    """
    row = show_for(show_id, request)
    slide_id, asset_id = request.POST.get("slide", ""), request.POST.get("asset", "")
    what = "a slide" if slide_id else "an entry of the shelf" if asset_id else "the show"
    label = f"Bring back {what} as of {_when(row, revision)}"
    bring_back(show_id, person_of(request), revision, label, slide_id, asset_id)
    return redirect("compose", show_id)
