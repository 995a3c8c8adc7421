"""A show as text in open formats, and shows and timings from such files."""

from typing import Any

from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.http import content_disposition_header
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.edits import apply_edit
from ritornel.core.document.show import AdvanceAfter
from ritornel.core.errors import BadMedia
from ritornel.core.formats.exports import EXPORTS
from ritornel.core.formats.opendocument.names import Loss
from ritornel.core.formats.outline import read_outline
from ritornel.core.formats.timings import read_timings
from ritornel.core.rehearsal.lengths import read_through
from ritornel.core.schedule.reading import reading_ms
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.file_names import file_title
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.exchange.plans import plan_of
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Show, create_rows, edit_show, history_labels, show_for, value_of


@login_required
@require_GET
def export_out(request: HttpRequest, show_id: str, address: str) -> HttpResponse:
    """The show in one of the formats of `core.formats.exports`; the file is named by its title."""
    show, export = value_of(show_for(show_id, request)), EXPORTS[address]
    name = f"{file_title(show.title)}{export.ending}"
    headers = {"Content-Disposition": content_disposition_header(True, name) or "attachment"}
    return HttpResponse(export.write(show), content_type=f"{export.content_type}; charset=utf-8", headers=headers)


def _upload(request: HttpRequest) -> tuple[bytes, str]:
    """The uploaded file and its name. Raises BadMedia where there is none, or it is too large for text."""
    upload = request.FILES.get("file")
    if upload is None:
        raise BadMedia("No file came with the request.")
    name = (upload.name or "file")[:120]
    if (upload.size or 0) > 5_000_000:
        raise BadMedia(
            f"“{name}” has {(upload.size or 0) / 1e6:.1f} MB; at most 5 MB can be read as text. Nothing was changed."
        )
    return upload.read(), name


@login_required
@require_POST
@answer_errors
def timings_in(request: HttpRequest, show_id: str) -> HttpResponse:
    """Sets lengths and holds from a table, as one edit; sentences say what did not fit."""
    show = value_of(show_for(show_id, request))
    data, name = _upload(request)
    edit, told = read_timings(show, data, name)
    edited = edit_show(show_id, person_of(request), edit)
    length = clock_text(compile_show(edited.after).length_ms)
    return json_reply(
        {
            "revision": edited.revision,
            "length": length,
            "notices": told,
            "history": history_labels(show_for(show_id, request)),
        }
    )


@login_required
@require_POST
@answer_errors
def show_from_outline(request: HttpRequest) -> HttpResponse:
    """A new show from an outline; each slide lasts as long as it takes to read. With `look`, only a preview of it."""
    data, name = _upload(request)
    row = Show(owner=person_of(request))
    show, told = read_outline(data, name, row.id)
    if request.POST.get("look"):
        return json_reply(plan_of(show, [Loss(0, words.partition(": ")[2].rstrip(".")) for words in told]))
    wordy = tuple(slide.id for slide in show.slides if reading_ms(slide) and isinstance(slide.advance, AdvanceAfter))
    if wordy:
        show = apply_edit(show, read_through(show, wordy)).show
    with transaction.atomic():
        create_rows(row, show)
    reply: dict[str, Any] = {"address": reverse("compose", args=[row.id]), "notices": told}
    return json_reply(reply)
