"""The presenter's own screen, and the addresses by which other devices follow it."""

import io
from typing import Any

import msgspec
import segno
from django.apps import apps
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.ink import EDGE_PX, INKS
from ritornel.core.document.sections import Section, shown_sections
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.rehearsal.beats import beat_lines
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.schedule.show_schedule import ShowSchedule
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.editor.services import style_stamp, thumb_address
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Show, show_for, value_of
from ritornel.web.stage.models import Run, open_runs


def inks() -> dict[str, Any]:
    """The look of the inks, for pages that draw with them."""
    return {"edge_px": EDGE_PX, "inks": msgspec.to_builtins(dict(INKS))}


def ends_of(sections: tuple[Section, ...], schedule: ShowSchedule) -> list[tuple[Section, int]]:
    """The end of each section on the show's clock."""
    ends = {
        slide.slide_id: start + slide.length_ms
        for slide, start in zip(schedule.slides, schedule.starts_ms, strict=True)
    }
    return [(section, ends[section.slide_ids[-1]]) for section in sections]


def _bars(show: ShowValue, performance: Performance) -> list[dict[str, Any]]:
    """Each shown slide with its thumbnail and what its beats bring."""
    style, numbers = style_stamp(show), show.numbers
    opened = {section.slide_ids[0]: section.name for section in shown_sections(show)}
    return [
        {
            "id": staged.slide.id,
            "opens_section": opened.get(staged.slide.id, ""),
            "given_to": staged.slide.given_to,
            "cues": performance.schedule.cues_of(index),
            "thumb": thumb_address(show, staged.slide, style, numbers[staged.slide.id]),
            "beats": msgspec.to_builtins(
                beat_lines(staged.slide, staged.schedule, performance.schedule.starts_ms[index])
            ),
        }
        for index, staged in enumerate(performance.slides)
    ]


@login_required
@require_GET
def lectern(request: HttpRequest, show_id: str) -> HttpResponse:
    """The page that only the presenter sees. `?from=` names the first slide, `?back=` the one to return to."""
    row = show_for(show_id, request)
    show = value_of(row)
    performance = perform(show)
    last = row.takes.order_by("-number").values_list("number", flat=True).first()
    start = {
        "show_id": row.id,
        "revision": row.revision,
        "bars": _bars(show, performance),
        "sections": [
            {"name": section.name, "ends_ms": ends_ms}
            for section, ends_ms in ends_of(shown_sections(show), performance.schedule)
        ],
        "next_take": (last or 0) + 1,
        "house": reverse("house", args=[row.id]),
        **inks(),
    }
    return render(request, "stage/lectern.html", {"show": row, "start": start})


@login_required
@require_GET
def house(request: HttpRequest, show_id: str) -> HttpResponse:
    """The audience's screen in the presenter's own browser."""
    row = show_for(show_id, request)
    start = {
        "performance": reverse("performance", args=[row.id]),
        "channel": f"ritornel {row.id}",
        "events": None,
        **inks(),
    }
    return render(request, "stage/house.html", {"title": row.title, "start": start})


def _square(address: str) -> str:
    """The address as a QR code, as SVG."""
    out = io.BytesIO()
    segno.make(address, error="m").save(
        out, kind="svg", scale=5, border=3, dark="#16262e", light="#ffffff", xmldecl=False
    )
    return out.getvalue().decode()


def run_line(request: HttpRequest, run: Run) -> dict[str, Any]:
    """A run's addresses, for the Lectern."""
    house_address = request.build_absolute_uri(reverse("house-at", args=[run.house_code]))
    remote_address = request.build_absolute_uri(reverse("remote", args=[run.remote_code]))
    return {
        "house": {"address": house_address, "square": _square(house_address)},
        "remote": {"address": remote_address, "square": _square(remote_address)},
        "events": reverse("run-events", args=[run.show_id]),
        "say": reverse("run-say", args=[run.show_id]),
        "end": reverse("run-end", args=[run.show_id]),
    }


def open_run(show: Show, person_id: int) -> Run | None:
    """The person's open run of the show, if there is one."""
    runs = list(Run.objects.filter(show=show, person_id=person_id, ended=False).order_by("-pk"))
    still = open_runs(runs)
    return next((run for run in runs if run.pk in still), None)


@login_required
@require_POST
@answer_errors
def begin_run(request: HttpRequest, show_id: str) -> HttpResponse:
    """Starts a run that other devices may follow; one that is open already keeps its addresses."""
    row, person = show_for(show_id, request), person_of(request)
    run = open_run(row, person.pk) or Run.objects.create(show=row, person=person)
    return json_reply(run_line(request, run))


@login_required
@require_GET
@answer_errors
def run_state(request: HttpRequest, show_id: str) -> HttpResponse:
    """The open run, or null."""
    row = show_for(show_id, request)
    run = open_run(row, person_of(request).pk)
    return json_reply(run_line(request, run) if run else None)


@login_required
@require_POST
@answer_errors
def end_run(request: HttpRequest, show_id: str) -> HttpResponse:
    """Ends the run: its addresses become invalid, and listening devices are told."""
    row = show_for(show_id, request)
    for run in Run.objects.filter(show=row, person=person_of(request), ended=False):
        run.ended = True
        run.save(update_fields=["ended"])
        rooms = apps.get_app_config("stage").rooms  # type: ignore[attr-defined]
        rooms.room(run.pk).say("over", '{"kind":"over"}', lasting=False)
        rooms.close(run.pk)
    return json_reply({"ended": True})
