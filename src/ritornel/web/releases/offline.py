"""A show for offline use: one file, or a folder, that plays in a browser without a server or network."""

import zipfile
from typing import IO

from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.views.decorators.http import require_GET

from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadValue
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.schedule.reduced_motion import calm_performance
from ritornel.web.config.downloads import saved_reply
from ritornel.web.config.file_names import data_url, file_title
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.releases.browser_media import file_of, served_name, used_media
from ritornel.web.releases.models import Release
from ritornel.web.releases.page_alone import page_of
from ritornel.web.shows.services import Show, show_for, value_of

SINGLE_BYTES = 300_000_000
"""A single file is read into memory as a whole; what is larger plays from a folder."""


def _performed(show: ShowValue) -> Performance:
    if not show.shown:
        raise BadValue(f"“{show.title}” has no slides to save.")
    return perform(show)


@login_required
@require_GET
@answer_errors
def weight(request: HttpRequest, show_id: str) -> HttpResponse:
    """The size of the show, and its largest media: {"bytes", "heaviest": [{"name", "bytes"}], "single": whether one
    file is possible}. Raises what saving it would raise.
    """
    row = show_for(show_id, request, "edit")
    staged = _performed(value_of(row))
    sizes: dict[str, int] = {}
    for asset, rate_pct in used_media(staged).values():
        sizes[asset.name] = sizes.get(asset.name, 0) + file_of(asset, rate_pct)[0].stat().st_size
    total = sum(sizes.values())
    heaviest = sorted(sizes.items(), key=lambda entry: -entry[1])[:3]
    return json_reply(
        {
            "bytes": total,
            "heaviest": [{"name": name, "bytes": size} for name, size in heaviest],
            "single": total <= SINGLE_BYTES,
        }
    )


def _page(row: Show, staged: Performance, media: dict[str, str], heard: dict[str, str]) -> bytes:
    release = Release.objects.filter(show=row).first()
    both = [{**audience_show(entry, media), "heard": heard} for entry in (staged, calm_performance(staged))]
    starts, loops = (release.starts_itself, release.loops) if release else (True, row.end == "loop")
    return page_of(staged, {"performance": both[0], "calm": both[1], "starts_itself": starts, "loops": loops})


def _saved(response: HttpResponse, name: str) -> HttpResponse:
    response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@login_required
@require_GET
@answer_errors
def single_file(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show as one page with everything in it."""
    row = show_for(show_id, request, "edit")
    staged = _performed(value_of(row))
    files = {key: file_of(*entry) for key, entry in used_media(staged).items()}
    if sum(path.stat().st_size for path, _ in files.values()) > SINGLE_BYTES:
        raise BadValue(
            f"The show's media have more than {SINGLE_BYTES // 1_000_000} MB, too much for one file. "
            "Save it as a folder."
        )
    media = {key: data_url(media_type, path.read_bytes()) for key, (path, media_type) in files.items()}
    return _saved(
        HttpResponse(_page(row, staged, media, {}), content_type="text/html; charset=utf-8"),
        f"{file_title(row.title)}.html",
    )


@login_required
@require_GET
@answer_errors
def folder(request: HttpRequest, show_id: str) -> HttpResponseBase:
    """The show as a folder in a zip file."""
    row = show_for(show_id, request, "edit")
    return folder_of(row, value_of(row), "-folder")


def folder_of(row: Show, show: ShowValue, ending: str) -> HttpResponseBase:
    """A folder in a zip file: a page, with its pictures and clips beside it.

    Sounds are inside the page: browsers do not load any from a disk. Raises BadValue for a show without slides,
    BadMedia where something is missing.
    """
    staged = _performed(show)
    sounds = set(staged.sound_ids())
    media, heard, beside = {}, {}, {}
    for key, (asset, rate_pct) in used_media(staged).items():
        path, media_type = file_of(asset, rate_pct)
        if asset.kind == "sound" or rate_pct != 100:
            media[key] = data_url(media_type, path.read_bytes())
            continue
        media[key] = f"media/{served_name(asset)}"
        beside[media[key]] = path
        if asset.kind == "clip" and (key in sounds or asset.heard):
            heard[key] = data_url(media_type, path.read_bytes())
    top = file_title(row.title)

    def write(out: IO[bytes]) -> None:
        with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
            archive.writestr(f"{top}/index.html", _page(row, staged, media, heard))
            for name, path in beside.items():
                archive.write(path, f"{top}/{name}")

    return saved_reply(write, f"{top}{ending}.zip", "application/zip")
