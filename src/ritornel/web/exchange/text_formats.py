"""A show's words and times as files of open formats: outline, table of timings, schedule; and shows and timings from
such files.
"""

from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils.http import content_disposition_header
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.show import AdvanceAfter
from ritornel.core.errors import BadMedia
from ritornel.core.formats.opendocument.names import Loss
from ritornel.core.formats.otio import write_otio
from ritornel.core.formats.outline import read_outline, write_outline
from ritornel.core.formats.timings import read_timings, timing_lines, write_timings
from ritornel.core.formats.webvtt import write_srt
from ritornel.core.rehearsal.lengths import read_through
from ritornel.core.schedule.captions import compile_captions
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.reading import reading_ms
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.file_names import file_title
from ritornel.web.config.replies import json_reply, telling_errors
from ritornel.web.exchange.plans import plan_of
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Show, create_rows, edit_show, history_labels, show_for, value_of


def _saved(text: str, name: str, content_type: str) -> HttpResponse:
    headers = {"Content-Disposition": content_disposition_header(True, name) or "attachment"}
    return HttpResponse(text, content_type=f"{content_type}; charset=utf-8", headers=headers)


@login_required
@require_GET
def outline_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show's words as Markdown."""
    show = value_of(show_for(show_id, request))
    return _saved(write_outline(show), f"{file_title(show.title)}.md", "text/markdown")


@login_required
@require_GET
def timings_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show's times as a table."""
    show = value_of(show_for(show_id, request))
    return _saved(
        write_timings(timing_lines(show, compile_show(show))), f"{file_title(show.title)}-timings.csv", "text/csv"
    )


@login_required
@require_GET
def schedule_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """What starts when, as JSON: the schedule, music, voices and the sounds of builds, transitions and clips."""
    show = value_of(show_for(show_id, request))
    performance = perform(show)
    sounds = {
        "music": performance.music,
        "voices": performance.voices,
        "effects": performance.effects,
        "clips": performance.clips,
    }
    body = {
        "title": show.title,
        **to_builtins(performance.schedule),
        **{name: to_builtins(value) for name, value in sounds.items()},
    }
    return _saved(
        msgspec.json.format(msgspec.json.encode(body), indent=2).decode(),
        f"{file_title(show.title)}-schedule.json",
        "application/json",
    )


@login_required
@require_GET
def otio_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """The self-running show as an OpenTimelineIO timeline."""
    show = value_of(show_for(show_id, request))
    return _saved(write_otio(perform(show)), f"{file_title(show.title)}.otio", "application/json")


@login_required
@require_GET
def srt_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """The captions of the self-running show as SRT."""
    show = value_of(show_for(show_id, request))
    return _saved(write_srt(compile_captions(perform(show))), f"{file_title(show.title)}.srt", "application/x-subrip")


def _upload(request: HttpRequest) -> tuple[bytes, str]:
    """The uploaded file and its name. Raises BadMedia where there is none, or it is far too large for words."""
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
@telling_errors
def timings_in(request: HttpRequest, show_id: str) -> HttpResponse:
    """Takes lengths and holds from a table, as one edit; what did not fit is told."""
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
@telling_errors
def show_from_outline(request: HttpRequest) -> HttpResponse:
    """A new show from an outline; each slide stays as long as reading it takes. With `look`, only what it would
    become.
    """
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
