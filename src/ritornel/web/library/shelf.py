"""The shelf: uploads, their bytes and thumbnails, and copies from another show."""

from typing import Any

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins, from_json, to_builtins
from ritornel.core.document.edits import AddAssets
from ritornel.core.document.objects import Object
from ritornel.core.document.show import Asset
from ritornel.core.document.transfer import bring_objects, bring_slides
from ritornel.core.document.uses import clip_rates, uses_of
from ritornel.core.errors import BadMedia, BadValue, UnknownName
from ritornel.core.formats.media import asset_from, read_medium
from ritornel.core.formats.webvtt import read_captions
from ritornel.core.render.filmstrips import STRIP_PICTURES
from ritornel.core.sound.waveform import LEVELS_PER_S, Wave
from ritornel.sounds import AUTHOR, LICENCE, library_sound
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import answer_errors, body_of, edit_id_of, json_reply
from ritornel.web.editor.services import reply_to_edit
from ritornel.web.jobs.derived_files import failure_of
from ritornel.web.library.browser_copies import light_path, tempo_path
from ritornel.web.library.shelf_entries import shelf_line, shelf_line_at
from ritornel.web.library.tasks import ask_for_copy, ask_for_strip, ask_for_thumbnail, ask_for_wave, begin_work
from ritornel.web.library.thumbnails import strip_path, thumbnail_path
from ritornel.web.library.uploads import heal_media, take_in
from ritornel.web.library.waveforms import PART, wave_of, wave_part
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import (
    asset_of_row,
    edit_show,
    entries_elsewhere,
    history_labels,
    keep_media,
    media_path,
    new_id,
    seen_slides,
    show_for,
    value_of,
)

CAPTIONS_BYTES = 2_000_000
NO_MEDIUM = "There is no such medium."


@login_required
@require_POST
@answer_errors
def add_to_shelf(request: HttpRequest, show_id: str) -> HttpResponse:
    """Accepts a file.

    Its content decides its kind, and it is on the shelf before the answer. One undo removes all files of one `batch`.
    The worker makes its thumbnail.
    """
    show_for(show_id, request)
    upload = request.FILES.get("file")
    if upload is None:
        raise BadMedia("No file came with the request.")
    intake = take_in(upload, new_id(), folder=request.POST.get("folder", "")[:200])
    asset = intake.asset
    edited = edit_show(
        show_id, person_of(request), AddAssets((asset,)), batch=request.POST.get("batch", "")[:40], stored=(asset,)
    )
    begin_work(asset)
    row = show_for(show_id, request)
    line = shelf_line(edited.after, asset)
    return json_reply(
        {"revision": edited.revision, "history": history_labels(row), "asset": line, "notices": intake.notes}
    )


@login_required
@require_POST
@answer_errors
def add_from_library(request: HttpRequest, show_id: str, name: str) -> HttpResponse:
    """Puts one of the sounds that ship on the shelf; one that is there already is returned."""
    row = show_for(show_id, request)
    sound = library_sound(name)
    if sound is None:
        raise UnknownName(f"There is no sound “{name}” in the library.")
    medium = read_medium(sound.path, settings.MEDIA_LIMITS)
    show = value_of(row)
    known = next((asset for asset in show.assets if asset.sha256 == medium.sha256), None)
    if known is not None:
        return json_reply({"revision": row.revision, "history": history_labels(row), "asset": shelf_line(show, known)})
    asset = asset_from(medium, new_id(), sound.title, author=AUTHOR, licence=LICENCE)
    keep_media(medium.sha256, medium.data)
    edited = edit_show(show_id, person_of(request), AddAssets((asset,)), stored=(asset,))
    return json_reply(
        {
            "revision": edited.revision,
            "history": history_labels(show_for(show_id, request)),
            "asset": shelf_line(edited.after, asset),
        }
    )


def _asset(request: HttpRequest, show_id: str, asset_id: str) -> Asset:
    """An asset that the person may see: any asset of a show that they may open, or those used in the section that they
    record. Raises Http404.
    """
    row = show_for(show_id, request, "see")
    entry = row.assets.filter(asset_id=asset_id).first()
    if entry is None:
        raise Http404(NO_MEDIUM)
    if not row.access.may("watch"):
        show = value_of(row)
        if not ({*seen_slides(row, show), "style"} & set(uses_of(show).get(asset_id, ()))):
            raise Http404(NO_MEDIUM)
    asset: Asset = from_json(bytes(entry.body), Asset, "The shelf")
    return asset


@login_required
@require_GET
def media(request: HttpRequest, show_id: str, asset_id: str) -> HttpResponseBase:
    """A medium's bytes, for people who may open the show."""
    asset = _asset(request, show_id, asset_id)
    return file_reply(request, media_path(asset.sha256), asset.media_type)


@login_required
@require_POST
@answer_errors
def add_again(request: HttpRequest, show_id: str, asset_id: str) -> HttpResponse:
    """Accepts the file of a missing or damaged medium again.

    Another file is refused, and nothing changes.
    """
    row = show_for(show_id, request)
    entry = row.assets.filter(asset_id=asset_id).first()
    upload = request.FILES.get("file")
    if entry is None:
        raise Http404(NO_MEDIUM)
    if upload is None:
        raise BadMedia("No file came with the request.")
    asset = asset_of_row(entry.body)
    heal_media(upload, asset)
    begin_work(asset)
    return json_reply({"asset": shelf_line(value_of(row), asset)})


@login_required
@require_GET
def lighter(request: HttpRequest, show_id: str, asset_id: str, renderer: int) -> HttpResponseBase:
    """The lighter copy of a heavy clip, once the worker has made it. Where none is being made, it is requested."""
    asset = _asset(request, show_id, asset_id)
    if not asset.heavy:
        raise Http404("There is no such clip.")
    path = light_path(asset.sha256)
    if not path.is_file():
        if request.GET.get("ask"):
            ask_for_copy(asset)
        return HttpResponse(status=404, headers={"Cache-Control": "no-store"})
    return file_reply(request, path, "video/mp4")


@login_required
@require_GET
def at_tempo(request: HttpRequest, show_id: str, asset_id: str, renderer: int, rate_pct: int) -> HttpResponseBase:
    """The sound of a clip at another speed with the same pitch; only at speeds that the show uses."""
    asset = _asset(request, show_id, asset_id)
    if not asset.heard or (asset_id, rate_pct) not in clip_rates(value_of(show_for(show_id, request, "see"))):
        raise Http404("There is no such sound.")
    return file_reply(request, tempo_path(asset.sha256, rate_pct), "audio/flac")


@login_required
@require_POST
@answer_errors
def captions_in(request: HttpRequest, show_id: str) -> HttpResponse:
    """Reads a WebVTT or SRT file: {"captions": [...], "notices": [...]}. Nothing is changed."""
    show_for(show_id, request)
    upload = request.FILES.get("file")
    if upload is None or upload.size is None or upload.size > CAPTIONS_BYTES:
        raise BadMedia(f"Choose a WebVTT or SRT file of at most {CAPTIONS_BYTES // 1_000_000} MB.")
    captions, notices = read_captions(upload.read(), (upload.name or "captions")[:120])
    return json_reply({"captions": captions, "notices": notices})


@login_required
@require_GET
def small(request: HttpRequest, show_id: str, asset_id: str, renderer: int) -> HttpResponseBase:
    """The thumbnail of a picture, once the worker has made it."""
    return file_reply(request, thumbnail_path(_asset(request, show_id, asset_id).sha256), "image/webp")


@login_required
@require_GET
def strip(request: HttpRequest, show_id: str, asset_id: str, renderer: int) -> HttpResponseBase:
    """The filmstrip of a clip, once the worker has made it."""
    return file_reply(request, strip_path(_asset(request, show_id, asset_id).sha256), "image/webp")


@login_required
@require_GET
def strip_ready(request: HttpRequest, show_id: str, asset_id: str, renderer: int) -> HttpResponse:
    """{"ready": whether the filmstrip exists, "pictures": its number of pictures}. A filmstrip that was never requested
    is requested now.
    """
    asset = _asset(request, show_id, asset_id)
    if asset.kind != "clip":
        raise Http404("There is no such clip.")
    ready = strip_path(asset.sha256).is_file()
    if not ready and request.GET.get("ask"):
        ask_for_strip(asset)
    return json_reply({"ready": ready, "pictures": STRIP_PICTURES})


@login_required
@require_GET
def smalls(request: HttpRequest, show_id: str) -> HttpResponse:
    """Which pictures of the shelf have thumbnails. Those never requested are requested now."""
    ready, missing = [], 0
    for asset in value_of(show_for(show_id, request)).assets:
        if not asset.width_px:
            continue
        if thumbnail_path(asset.sha256).is_file():
            ready.append(asset.id)
            continue
        missing += failure_of(thumbnail_path(asset.sha256)) is None
        if request.GET.get("ask"):
            ask_for_thumbnail(asset)
    return json_reply({"ready": ready, "missing": missing})


@login_required
@require_GET
@answer_errors
def elsewhere(request: HttpRequest, show_id: str) -> HttpResponse:
    """Media on the shelves of the person's other shows that are not on this one, each with the value to add here."""
    here = {asset.sha256 for asset in value_of(show_for(show_id, request)).assets}
    shelves = [
        {
            "id": other,
            "title": title,
            "assets": [{"value": to_builtins(asset), **shelf_line_at(other, asset)} for asset in assets],
        }
        for other, title, assets in entries_elsewhere(person_of(request), show_id, here)
    ]
    return json_reply({"shelves": shelves})


@login_required
@require_GET
def wave_ready(request: HttpRequest, show_id: str, asset_id: str, renderer: int) -> HttpResponse:
    """The progress of a sound's waveform: the values of core/sound/waveform.py, with its `levels` and the number of
    peaks in a `part`. Where it is not being made, it is requested.
    """
    asset = _asset(request, show_id, asset_id)
    if not asset.heard:
        raise Http404("There is no such sound.")
    about = wave_of(asset.sha256)
    if about is None:
        ask_for_wave(asset)
    response = json_reply({**to_builtins(about or Wave(asset.lasts_ms)), "levels": LEVELS_PER_S, "part": PART})
    response.headers["Cache-Control"] = "private, max-age=31536000, immutable" if about and about.whole else "no-store"
    return response


@login_required
@require_GET
def wave_peaks(
    request: HttpRequest, show_id: str, asset_id: str, renderer: int, per_s: int, first: int
) -> HttpResponse:
    """Peaks of a level of a sound's waveform from number `first` on, a byte each, as far as they exist."""
    sha256 = _asset(request, show_id, asset_id).sha256
    about = wave_of(sha256)
    if about is None or per_s not in LEVELS_PER_S:
        raise Http404("There is no such wave.")
    response = HttpResponse(wave_part(sha256, per_s, first), content_type="application/octet-stream")
    response.headers["Cache-Control"] = "private, max-age=31536000, immutable" if about.whole else "no-store"
    return response


@login_required
@require_POST
@answer_errors
def bring(request: HttpRequest, show_id: str) -> HttpResponse:
    """Copies slides, or objects onto a slide, from another show of the same person, with the media they use: {"from":
    show, "slide_ids": [...], "at": n} or {"from": show, "objects": [...], "slide_id": ...}.
    """
    body: dict[str, Any] = body_of(request)
    source = value_of(show_for(str(body.get("from", "")), request))
    target = value_of(show_for(show_id, request))
    stem = new_id()[:12]
    if "slide_ids" in body:
        at = body.get("at")
        if not isinstance(at, int):
            raise BadValue("Bringing slides needs the place where they go.", "at")
        edit = bring_slides(source, target, from_builtins(body["slide_ids"], tuple[str, ...], "The slides"), at, stem)
    else:
        objects = from_builtins(body.get("objects", []), tuple[Object, ...], "The objects")
        edit = bring_objects(source, target, objects, str(body.get("slide_id", "")), stem)
    edited = edit_show(show_id, person_of(request), edit, edit_id=edit_id_of(request))
    return reply_to_edit(show_for(show_id, request), edited, body.get("viewing"))
