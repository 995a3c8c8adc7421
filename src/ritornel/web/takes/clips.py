"""Short recordings by camera or microphone: a greeting, a farewell, or one for a slide.

They are stored like takes.
"""

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins, to_json
from ritornel.core.document.edits import AddAssets, Edit
from ritornel.core.document.edits.greetings import PutGreeting, PutRecorded
from ritornel.core.document.objects import Id
from ritornel.core.document.show import Asset
from ritornel.core.errors import BadValue
from ritornel.core.layout.clear_place import clear_place
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.rehearsal.recording import RecordedSlide
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.sound.recording_file import recorded_ms
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.editor.services import reply_to_edit
from ritornel.web.library.services import begin_work
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import edit_show, media_path, new_id, show_for, value_of
from ritornel.web.takes.models import Recording
from ritornel.web.takes.recording import Writer, recording_of
from ritornel.web.takes.recording_files import clip_of, segments_of, size_of, sound_path


class BeginClip(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The window that records it."""

    writer: Writer


class Place(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where it goes; `slide_id` is the slide it is put onto, `viewing` the slide on the stage."""

    role: str
    slide_id: Id | None = None
    viewing: str | None = None


@login_required
@require_POST
@answer_errors
def begin_clip(request: HttpRequest, show_id: str) -> HttpResponse:
    """Starts a short recording; its parts are sent like those of other recordings."""
    row = show_for(show_id, request, "edit")
    wanted = from_builtins(body_of(request), BeginClip, "The recording")
    take = TakeValue((), 0)
    recording = Recording.objects.create(
        show=row, person=person_of(request), number=0, body=to_json(take), writer=wanted.writer
    )
    return json_reply({"id": recording.pk, "number": 0, "bytes": 0, "take": take})


def _asset(recording: Recording) -> Asset:
    """The recording as an asset for the shelf: a clip where a camera ran, else a voice.

    Raises BadValue for an empty one.
    """
    lasts_ms = recorded_ms(size_of(sound_path(recording.pk)))
    whole = RecordedSlide(0, "", 0, lasts_ms, {}, {}, True)
    if not lasts_ms and not segments_of(recording.pk, whole):
        raise BadValue("Nothing was recorded yet.", "recording")
    return clip_of(recording, whole)


@login_required
@require_GET
@answer_errors
def clip(request: HttpRequest, show_id: str, recording_id: str) -> HttpResponseBase:
    """The recording, to check it before it is used."""
    show_for(show_id, request, "edit")
    asset = _asset(recording_of(show_id, recording_id, request))
    return file_reply(request, media_path(asset.sha256), asset.media_type, cache="no-store")


@login_required
@require_POST
@answer_errors
def place(request: HttpRequest, show_id: str, recording_id: str) -> HttpResponse:
    """Puts it on the shelf, and before or after the show or onto a slide, as one edit.

    A medium that is on the shelf already is not added twice.
    """
    row = show_for(show_id, request, "edit")
    recording = recording_of(show_id, recording_id, request)
    wanted = from_builtins(body_of(request), Place, "The recording")
    asset = _asset(recording)
    stem = new_id()[:12]
    edit: Edit
    show = value_of(row)
    if wanted.role == "shelf":
        if show.asset(asset.id) is not None:
            raise BadValue("It lies on the shelf already.", "role")
        edit = AddAssets((asset,))
    elif wanted.role in ("greeting", "farewell"):
        edit = PutGreeting(stem, asset, "before" if wanted.role == "greeting" else "after")
    elif wanted.role == "slide" and wanted.slide_id is not None:
        slide = show.slide(wanted.slide_id)
        clear = clear_place(slide, show.frame, scenery_of(show)) if slide and asset.kind == "clip" else None
        edit = PutRecorded(wanted.slide_id, stem, asset, clear)
    else:
        raise Http404("There is no such place.")
    edited = edit_show(show_id, person_of(request), edit, stored=(asset,))
    begin_work(asset)
    return reply_to_edit(show_for(row.pk, request, "edit"), edited, wanted.viewing)
