"""OpenDocument presentations in and out: what would be lost is told before anything is made."""

import tempfile
from collections.abc import Sequence
from typing import Any

from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import FileResponse, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia
from ritornel.core.formats.opendocument.names import MEDIA_TYPE, Loss
from ritornel.core.formats.opendocument.writing import opendocument_losses, write_opendocument
from ritornel.core.schedule.performance import perform
from ritornel.web.people.services import person_of
from ritornel.web.shows.intake import unpack_presentation
from ritornel.web.shows.models import Show
from ritornel.web.shows.naming import file_title
from ritornel.web.shows.replies import json_reply, telling_errors
from ritornel.web.shows.services import create_rows, media_path, show_for, value_of
from ritornel.web.shows.tasks import begin_work


def _lines(losses: Sequence[Loss]) -> list[dict[str, Any]]:
    return [{"slide": loss.slide, "words": loss.words} for loss in losses]


def plan_of(show: ShowValue, losses: Sequence[Loss]) -> dict[str, Any]:
    """What a file would become: {"title", "slides", "media", "losses": [{"slide" (0: all), "words"}]}."""
    return {"title": show.title, "slides": len(show.slides), "media": len(show.assets), "losses": _lines(losses)}


@login_required
@require_POST
@telling_errors
def show_from_presentation(request: HttpRequest) -> HttpResponse:
    """A new show from a presentation. With `look`, only what it would become and what would be lost."""
    upload = request.FILES.get("file")
    if upload is None:
        raise BadMedia("Choose a presentation first; its name ends in .odp.")
    looks = bool(request.POST.get("look"))
    row = Show(owner=person_of(request))
    show, losses = unpack_presentation(upload, row.id, not looks)
    perform(show)
    if looks:
        return json_reply(plan_of(show, losses))
    with transaction.atomic():
        create_rows(row, show)
    for asset in show.assets:
        begin_work(asset)
    return json_reply({"address": reverse("compose", args=[row.id]), "notices": []})


@login_required
@require_GET
@telling_errors
def losses_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """What would be lost if the show were saved as a presentation: {"losses": [{"slide", "words"}]}."""
    return json_reply({"losses": _lines(opendocument_losses(value_of(show_for(show_id, request))))})


@login_required
@require_GET
@telling_errors
def presentation_out(request: HttpRequest, show_id: str) -> HttpResponseBase:
    """The show as a presentation."""
    show = value_of(show_for(show_id, request))
    out = tempfile.TemporaryFile()  # noqa: SIM115 (closed with the response)
    try:
        write_opendocument(show, out, media_path)
    except BaseException:
        out.close()
        raise
    out.seek(0)
    return FileResponse(out, as_attachment=True, filename=f"{file_title(show.title)}.odp", content_type=MEDIA_TYPE)
