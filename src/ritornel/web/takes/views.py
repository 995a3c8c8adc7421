"""Rehearsing: runs become takes, and a take's timing comes into the show."""

import io
import zipfile
from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.db.models import Max
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils.http import content_disposition_header
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins, from_json, to_json
from ritornel.core.document.edits import ChangeShow, Several
from ritornel.core.document.integrity import cue_ids
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.rehearsal.take import check_take, follow_timing, timing_of, use_timing
from ritornel.core.render.ink import drawn_pictures
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.web.config.file_names import file_title
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Edited, edit_show, history_labels, media_path, show_for, value_of
from ritornel.web.takes.models import Take

TIMINGS = {"own holds": use_timing, "followed take": follow_timing}
"""How a take's timing is used: written into the show, or followed by it."""


def _line(take: Take, show: ShowValue) -> dict[str, Any]:
    """A take for the page's list: each slide's time and its holds in order; None where the take has no time for it."""
    value = from_json(bytes(take.body), TakeValue, "The take")
    timing = timing_of(value)
    return {
        "number": take.number,
        "name": take.name,
        "at": take.at,
        "length_ms": value.ended_ms,
        "drawings": reverse("take-drawings", args=[take.show_id, take.number])
        if any(value.drawings.values())
        else None,
        "slides": [
            {
                "id": slide.id,
                "ms": timing.slide_ms.get(slide.id),
                "holds_ms": [timing.hold_ms.get(cue) for cue in cue_ids(slide)],
            }
            for slide in show.shown
        ],
    }


def _plan(show: ShowValue) -> dict[str, Any]:
    schedule = compile_show(show)
    names = {slide.id: slide.name for slide in show.slides}
    return {
        "length_ms": schedule.length_ms,
        "follows": show.follows_take,
        "slides": [
            {"id": slide.slide_id, "name": names[slide.slide_id], "ms": slide.length_ms} for slide in schedule.slides
        ],
    }


@login_required
@require_GET
def rehearse(request: HttpRequest, show_id: str) -> HttpResponse:
    """The page for running the show and looking at its takes."""
    row = show_for(show_id, request)
    show = value_of(row)
    start = {
        "show_id": row.id,
        "history": history_labels(row),
        "plan": _plan(show),
        "takes": [_line(take, show) for take in row.takes.all()],
    }
    return render(request, "takes/rehearse.html", {"show": row, "way": "rehearse", "start": msgspec.to_builtins(start)})


@login_required
@require_GET
def plan(request: HttpRequest, show_id: str) -> HttpResponse:
    """The present plan."""
    return json_reply(_plan(value_of(show_for(show_id, request))))


def _take(show_id: str, number: int, request: HttpRequest) -> Take:
    take = Take.objects.filter(show=show_for(show_id, request), number=number).first()
    if take is None:
        raise Http404("There is no such take.")
    return take


@login_required
@require_POST
@answer_errors
def keep(request: HttpRequest, show_id: str) -> HttpResponse:
    """Saves a run: {"events": [...], "ended_ms": n}."""
    row = show_for(show_id, request)
    value = from_builtins(body_of(request), TakeValue, "The take")
    check_take(value)
    with transaction.atomic():
        number = (Take.everywhere.filter(show=row).aggregate(last=Max("number"))["last"] or 0) + 1
        take = row.takes.create(person=person_of(request), number=number, body=to_json(value))
    return json_reply(_line(take, value_of(row)))


@login_required
@require_POST
@answer_errors
def use(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Writes the take's timing into the show, as one edit: {"as": "own holds"}; with {"as": "followed take"} the show
    follows it.
    """
    take = _take(show_id, number, request)
    show = value_of(take.show)
    way = body_of(request).get("as", "own holds")
    if way not in TIMINGS:
        raise BadValue(f"A timing is used as {' or '.join(TIMINGS)}, not “{str(way)[:40]}”.", "as")
    edit, notices = TIMINGS[way](show, timing_of(from_json(bytes(take.body), TakeValue, "The take")), take.name)
    edited = edit_show(show_id, person_of(request), edit)
    return _used(show_id, request, edited, notices)


def _used(show_id: str, request: HttpRequest, edited: Edited, notices: tuple[str, ...]) -> HttpResponse:
    history = history_labels(show_for(show_id, request))
    return json_reply(
        {"revision": edited.revision, "notices": notices, "history": history, "plan": _plan(edited.after)}
    )


@login_required
@require_POST
@answer_errors
def follow_none(request: HttpRequest, show_id: str) -> HttpResponse:
    """Stops following a take: waits without a hold of their own last as long as the default."""
    show = value_of(show_for(show_id, request))
    edit = Several(
        f"Follow {show.follows_take or 'the take'} no longer", (ChangeShow({"holds_by_cue": {}, "follows_take": ""}),)
    )
    return _used(show_id, request, edit_show(show_id, person_of(request), edit), ())


@login_required
@require_GET
def drawings(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """The slides of a take with ink, as pictures in a zip file."""
    take = _take(show_id, number, request)
    performance = perform(value_of(take.show))
    value = from_json(bytes(take.body), TakeValue, "The take")
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
        for name, png in drawn_pictures(
            performance, value.drawings, performance.frame.width_px, performance.frame.height_px, media_path
        ):
            archive.writestr(name, png)
    name = file_title(f"{take.show.title} {take.name} drawings")
    headers = {"Content-Disposition": content_disposition_header(True, f"{name}.zip") or "attachment"}
    return HttpResponse(out.getvalue(), content_type="application/zip", headers=headers)


@login_required
@require_POST
def remove(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Puts a take into the bin."""
    take = _take(show_id, number, request)
    take.put_into_bin(person_of(request))
    return json_reply({"in_bin": take.pk})
