"""Recording sections: sound and events arrive every second, and are stored before they are answered."""

from typing import Annotated

import msgspec
from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.camera import Placement
from ritornel.core.document.decoding import from_builtins, from_json, to_builtins, to_json
from ritornel.core.document.sections import Section
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadValue, DiskFull, RitornelError, UnknownName
from ritornel.core.rehearsal.recording import leaving_cues, pieces_of, section_with
from ritornel.core.rehearsal.take import Arrived, Cued, check_take
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.sound.recording_file import PEAKS_PER_S, SAMPLE_BYTES, peaks_from, recorded_ms
from ritornel.core.time.milliseconds import LONGEST_MS
from ritornel.web.config.bounded_input import json_object, whole_number
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.services import Show, seen_slides, show_for, value_of
from ritornel.web.takes.models import Pick, Recording
from ritornel.web.takes.recording_files import UploadGap, append, segment_path, size_of, sound_path
from ritornel.web.takes.tasks import cut_piece

PART_BYTES = settings.RECORDED_PART_BYTES
Writer = Annotated[str, msgspec.Meta(min_length=8, max_length=40)]


class Taken(RitornelError):
    """Somebody else is recording this."""


class Begin(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The section to record, and the window that records it; `go_on` names a recording to continue."""

    section: str
    writer: Writer
    go_on: str | None = None
    placement: Placement = Placement()


class Part(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """New parts of a recording: events from number `first` on; sound from byte `at`; of the camera, what follows byte
    `camera_at` of a segment.
    """

    writer: Writer
    first: Annotated[int, msgspec.Meta(ge=0)] = 0
    events: tuple[Arrived | Cued, ...] = ()
    at: Annotated[int, msgspec.Meta(ge=0)] = 0
    state: str = "recording"
    camera_piece: Annotated[int, msgspec.Meta(ge=0, le=10_000)] | None = None
    camera_from_ms: Annotated[int, msgspec.Meta(ge=0, le=LONGEST_MS)] = 0
    camera_at: Annotated[int, msgspec.Meta(ge=0)] = 0


def own_section(row: Show, show: ShowValue, slide_id: str) -> Section:
    """The section of the slide, if the person may see it. Raises UnknownName for any other."""
    if slide_id not in seen_slides(row, show):
        raise UnknownName(f"There is no section with the slide “{slide_id}” that could be recorded.")
    return section_with(show, slide_id)


def recording_of(show_id: str, recording_id: str, request: HttpRequest, in_bin: bool = False) -> Recording:
    """The recording of a show, if the person may see its section; `in_bin` also finds one in the bin.
    Raises Http404.
    """
    row = show_for(show_id, request, "record")
    rows = Recording.everywhere if in_bin else Recording.objects
    found = rows.filter(show=row, pk=recording_id).first()
    if found is None or not (row.access.may("watch") or set(found.slide_ids) & seen_slides(row, value_of(row))):
        raise Http404("There is no such recording.")
    return found


@login_required
@require_POST
@answer_errors
def begin(request: HttpRequest, show_id: str) -> HttpResponse:
    """Starts a recording of a section, or continues one. Two at once of the same slides are refused."""
    row = show_for(show_id, request, "record")
    wanted = from_builtins(body_of(request), Begin, "The recording")
    section = own_section(row, value_of(row), wanted.section)
    with transaction.atomic():
        others = [
            entry
            for entry in Recording.objects.select_for_update().filter(show=row)
            if set(entry.slide_ids) & set(section.slide_ids)
        ]
        busy = next(
            (entry for entry in others if entry.progress == "recording" and entry.writer != wanted.writer), None
        )
        if busy is not None:
            who = "You are" if busy.person_id == person_of(request).pk else f"{called(busy.person)} is"
            raise Taken(
                f"{who} recording this section right now, in another window. Nothing was begun; pause or "
                "stop there first."
            )
        if wanted.go_on is not None:
            recording = next((entry for entry in others if entry.pk == wanted.go_on), None)
            if recording is None or recording.progress == "ended":
                raise BadValue("This take was stopped, or is no longer there. Record another one.", "go_on")
            # Where sound was lost with a window that was closed, the take ends with what there is.
            take = _clipped(
                from_json(bytes(recording.body), TakeValue, "The recording"),
                recorded_ms(size_of(sound_path(recording.pk))),
            )
            recording.body = to_json(take)
        else:
            number = max((entry.number for entry in others), default=0) + 1
            recording = Recording(
                show=row,
                person=person_of(request),
                number=number,
                slide_ids=list(section.slide_ids),
                body=to_json(TakeValue((), 0)),
            )
        recording.writer, recording.state, recording.heard_at = wanted.writer, "recording", timezone.now()
        recording.placement = to_builtins(wanted.placement)
        recording.save()
    take = from_json(bytes(recording.body), TakeValue, "The recording")
    return json_reply(
        {"id": recording.pk, "number": recording.number, "bytes": size_of(sound_path(recording.pk)), "take": take}
    )


def _clipped(take: TakeValue, ended_ms: int) -> TakeValue:
    """The take up to the end of its sound."""
    return TakeValue(tuple(event for event in take.events if event.at_ms <= ended_ms), ended_ms)


@login_required
@require_POST
@answer_errors
def more(request: HttpRequest, show_id: str, recording_id: str) -> HttpResponse:
    """Stores new parts: `about` is a Part, `sound` and `camera` are bytes.

    What is answered is on the disk. 409 with `size` (of the sound) or `camera_size` where an earlier part is missing,
    507 where the disk is full.
    """
    recording = recording_of(show_id, recording_id, request)
    part = from_builtins(json_object(request.POST.get("about", "{}"), "What was recorded"), Part, "The recording")
    if recording.writer != part.writer:
        raise Taken("This take is being gone on with in another window. What was recorded here until then is kept.")
    files = {
        name: upload.read(PART_BYTES + 1) for name in ("sound", "camera") for upload in request.FILES.getlist(name)
    }
    if any(len(data) > PART_BYTES for data in files.values()):
        raise BadValue(f"At most {PART_BYTES // 1_000_000} MB can come at once.", "sound")
    if len(files.get("sound", b"")) % SAMPLE_BYTES:
        raise BadValue("Sound comes in samples of two bytes.", "sound")
    try:
        size = append(sound_path(recording.pk), part.at, files.get("sound", b""))
    except UploadGap as error:
        return json_reply({"error": str(error), "size": error.size}, 409)
    except DiskFull as error:
        return json_reply({"error": str(error), "full": True}, 507)
    try:
        if part.camera_piece is not None and "camera" in files:
            append(segment_path(recording.pk, part.camera_piece, part.camera_from_ms), part.camera_at, files["camera"])
    except UploadGap as error:
        # The sound is kept; of the camera something is missing, which is told apart from it.
        return json_reply({"error": str(error), "size": size, "camera_size": error.size}, 409)
    except DiskFull as error:
        return json_reply({"error": str(error), "full": True}, 507)
    with transaction.atomic():
        recording = Recording.everywhere.select_for_update().select_related("show").get(pk=recording.pk)
        before = from_json(bytes(recording.body), TakeValue, "The recording")
        if part.first > len(before.events):
            return json_reply(
                {"error": "Some presses before these are missing.", "events": len(before.events), "size": size}, 409
            )
        take = TakeValue(
            (*before.events[: part.first], *part.events),
            max(recorded_ms(size), *(event.at_ms for event in part.events), 0),
        )
        check_take(take)
        recording.body = to_json(take)
        recording.heard_at = timezone.now()
        if part.state in ("recording", "paused", "ended"):
            recording.state = part.state
        recording.save()
        _pick_new(recording, before, take)
    return json_reply({"bytes": size, "events": len(take.events), "kept_ms": recorded_ms(size)})


def _pick_new(recording: Recording, before: TakeValue, take: TakeValue) -> None:
    """Selects a new piece for its slide, until somebody selects another; a complete one is cut by the worker."""
    known, now = pieces_of(before), pieces_of(take)
    for piece in now[len(known) :]:
        Pick.objects.update_or_create(
            show=recording.show, slide_id=piece.slide_id, defaults={"recording": recording, "piece": piece.number}
        )
    ended = recording.state == "ended"
    if len(now) > len(known) or ended:
        leaving = leaving_cues(value_of(recording.show))
        done = len(now) if ended else len(now) - 1
        for piece in pieces_of(take, leaving)[max(len(known) - 1, 0) : done]:
            if piece.lasts_ms:
                cut_piece(recording.pk, piece.number)


@login_required
@require_POST
@answer_errors
def remove(request: HttpRequest, show_id: str, recording_id: str) -> HttpResponse:
    """Puts a take into the bin. What was kept of it stays in the show; `{"back": true}` restores it."""
    back = bool(body_of(request).get("back"))
    recording = recording_of(show_id, recording_id, request, in_bin=back)
    if recording.progress == "recording" and not back:
        raise BadValue("This take is being recorded right now; stop it first.", "recording")
    if back:
        recording.bring_back()
    else:
        recording.put_into_bin(person_of(request))
    return json_reply({"in_bin": not back})


@login_required
@require_GET
def peaks(request: HttpRequest, show_id: str, recording_id: str) -> HttpResponse:
    """The peaks of the recorded sound, 25 a second, a byte each, from number `?from=` on."""
    recording = recording_of(show_id, recording_id, request)
    first = whole_number(request.GET.get("from", "0")) or 0
    path = sound_path(recording.pk)
    found = peaks_from(path, first) if path.is_file() else b""
    response = HttpResponse(found, content_type="application/octet-stream")
    response.headers["X-Peaks-Per-Second"] = str(PEAKS_PER_S)
    response.headers["Cache-Control"] = "no-store"
    return response
