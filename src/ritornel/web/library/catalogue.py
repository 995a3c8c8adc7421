"""Media from outside services for the shelf: requested with a time limit, examined like any file, credited as their
authors want.
"""

import concurrent.futures
from collections.abc import Callable
from functools import cache
from typing import Any, TypeVar, cast, get_args

import msgspec
from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.core.files.uploadedfile import SimpleUploadedFile
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.utils.module_loading import import_string
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.edits import AddAssets, ChangeAsset, Several
from ritornel.core.errors import BadValue, UnknownName
from ritornel.outside import Catalogue, CatalogueEntry, Kind, NoAnswer, VideoSite
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.library.shelf_entries import shelf_line
from ritornel.web.library.tasks import begin_work
from ritornel.web.library.uploads import take_in
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import edit_show, history_labels, new_id, show_for, value_of

Answer = TypeVar("Answer")
_THREADS = concurrent.futures.ThreadPoolExecutor(max_workers=8, thread_name_prefix="outside")


@cache
def _service(path: str, manner: str) -> Any:
    return import_string(path)(manner)


def catalogue() -> Catalogue:
    """The catalogue named in the settings."""
    return cast(Catalogue, _service(settings.CATALOGUE, settings.OUTSIDE_MANNER))


def video_site() -> VideoSite:
    """The video site named in the settings."""
    return cast(VideoSite, _service(settings.VIDEO_SITE, settings.OUTSIDE_MANNER))


def ask_service(what: str, work: Callable[[], Answer]) -> Answer:
    """The answer of a service. Raises NoAnswer, with a sentence, where it fails or takes longer than the settings
    allow.
    """
    try:
        return _THREADS.submit(work).result(timeout=settings.OUTSIDE_S)
    except concurrent.futures.TimeoutError as error:
        raise NoAnswer(
            f"{what} did not answer within {settings.OUTSIDE_S:g} s. Nothing was changed; try again in a while."
        ) from error
    except NoAnswer as error:
        raise NoAnswer(f"{what} cannot be asked now: {error} Nothing was changed; try again in a while.") from error


@login_required
@require_GET
@answer_errors
def search(request: HttpRequest, show_id: str) -> HttpResponse:
    """The entries of the catalogue: {"found": [...]} for `?words=` and `?kind=`."""
    show_for(show_id, request)
    kind = request.GET.get("kind") or None
    if kind is not None and kind not in get_args(Kind):
        raise BadValue(f"The catalogue has {', '.join(get_args(Kind))}; it has no “{kind}”.", "kind")
    found = ask_service(
        "The catalogue", lambda: catalogue().search(request.GET.get("words", "")[:200], cast(Kind | None, kind))
    )
    return json_reply({"found": [msgspec.structs.replace(entry, words=()) for entry in found]})


def _entry(entry_id: str) -> CatalogueEntry:
    entry = ask_service("The catalogue", lambda: catalogue().entry(entry_id))
    if entry is None:
        raise UnknownName(f"The catalogue has no “{entry_id}” any more.")
    return entry


@login_required
@require_GET
def sample(request: HttpRequest, show_id: str, entry_id: str) -> HttpResponseBase:
    """An entry of the catalogue, to see or hear it before it is used."""
    show_for(show_id, request)
    try:
        entry = _entry(entry_id)
        data = ask_service("The catalogue", lambda: catalogue().fetch(entry))
    except (NoAnswer, UnknownName) as error:
        raise Http404(str(error)) from error
    kinds = {"picture": "image/jpeg", "clip": "video/mp4"}
    response = HttpResponse(data, content_type=kinds.get(entry.kind, "audio/ogg"))
    response.headers["Cache-Control"] = "private, max-age=3600"
    return response


def _put_on_shelf(request: HttpRequest, show_id: str, entry: CatalogueEntry, data: bytes) -> HttpResponse:
    """Puts a medium on the shelf with its credit in one step; one that is there already is returned instead."""
    intake = take_in(
        SimpleUploadedFile(entry.file_name, data),
        new_id(),
        author=entry.author,
        licence=entry.licence,
        credit=entry.credit,
    )
    asset = msgspec.structs.replace(
        intake.asset, name=entry.name, alternative=entry.name if intake.asset.width_px else ""
    )
    row = show_for(show_id, request)
    show = value_of(row)
    known = next((own for own in show.assets if own.sha256 == asset.sha256), None)
    if known is not None and known.credit:
        return json_reply(
            {"revision": row.revision, "history": history_labels(row), "asset": shelf_line(show, known), "notices": ()}
        )
    if known is not None:
        credit = {"author": entry.author, "licence": entry.licence, "credit": entry.credit}
        edited = edit_show(
            show_id, person_of(request), Several(f"Credit {known.name}", (ChangeAsset(known.id, credit),))
        )
        asset = msgspec.structs.replace(known, **credit)
    else:
        edited = edit_show(show_id, person_of(request), AddAssets((asset,)), stored=(asset,))
        begin_work(asset)
    labels = history_labels(show_for(show_id, request))
    return json_reply(
        {
            "revision": edited.revision,
            "history": labels,
            "asset": shelf_line(edited.after, asset),
            "notices": intake.notes,
        }
    )


@login_required
@require_POST
@answer_errors
def bring_entry(request: HttpRequest, show_id: str, entry_id: str) -> HttpResponse:
    """Puts an entry of the catalogue on the shelf."""
    show_for(show_id, request)
    entry = _entry(entry_id)
    data = ask_service("The catalogue", lambda: catalogue().fetch(entry))
    return _put_on_shelf(request, show_id, entry, data)


@login_required
@require_POST
@answer_errors
def bring_video(request: HttpRequest, show_id: str) -> HttpResponse:
    """Puts the video at an address on the shelf as a clip: {"address": ...}."""
    show_for(show_id, request)
    address = str(body_of(request).get("address", "")).strip()[:500]
    if not address:
        raise BadValue("Put in the address of a video, as your browser shows it.", "address")
    entry = ask_service("The video site", lambda: video_site().lookup(address))
    if entry is None:
        raise UnknownName(
            f"There is no video at “{address}”. Check the address, or whether it is still there. Nothing was added."
        )
    data = ask_service("The video site", lambda: video_site().fetch(entry))
    return _put_on_shelf(request, show_id, entry, data)
