"""Previews: samples of all effects and transitions, and a build on the slide before it is added."""

from functools import cache

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins
from ritornel.core.document.integrity import check_slide
from ritornel.core.document.show import Build
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.schedule.performance import builtins_of, perform, stage_slide, staged_builtins
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.starters.samples import sample_show
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.shows.services import show_for, slide_of, value_of


@cache
def _samples() -> bytes:
    return msgspec.json.encode(builtins_of(perform(sample_show()), {}))


@login_required
@require_GET
def samples(request: HttpRequest) -> HttpResponse:
    """A small performance with a slide for each effect and transition, named after it."""
    return HttpResponse(_samples(), content_type="application/json", headers={"Cache-Control": "private, max-age=3600"})


@login_required
@require_POST
@answer_errors
def preview(request: HttpRequest, show_id: str) -> HttpResponse:
    """A slide with only these builds, staged; nothing is saved: {"slide_id": ..., "builds": [...]}."""
    body = body_of(request)
    show = value_of(show_for(show_id, request))
    found = slide_of(show, str(body.get("slide_id", "")))
    builds = from_builtins(body.get("builds", []), tuple[Build, ...], "The preview")
    slide = msgspec.structs.replace(found, order=builds)
    check_slide(slide)
    return json_reply(
        staged_builtins(
            stage_slide(slide, compile_slide(slide, show.default_hold_ms, {}, show.frame), scenery_of(show))
        )
    )
