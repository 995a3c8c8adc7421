"""A show on a disk: one file, or a folder, that plays in a browser without any server or network."""

import json
import posixpath
import re
import tempfile
import zipfile
from functools import lru_cache
from pathlib import Path

import msgspec
from django.contrib.auth.decorators import login_required
from django.contrib.staticfiles import finders
from django.http import HttpRequest, HttpResponse
from django.template.loader import render_to_string
from django.views.decorators.http import require_GET

from ritornel.core.document.show import Asset
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia, BadValue
from ritornel.core.layout.faces import FONTS, Face
from ritornel.core.layout.marks import TextMark
from ritornel.core.schedule.calm import calmed
from ritornel.core.schedule.performance import Performance, builtins_of, perform
from ritornel.core.sound.tempo import asset_and_rate
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.modules import modules_of
from ritornel.web.releases.models import Release
from ritornel.web.releases.public import served_name
from ritornel.web.shows.naming import data_url, file_title
from ritornel.web.shows.replies import json_reply, telling_errors
from ritornel.web.shows.services import Show, light_path, media_path, show_for, tempo_path, value_of

ENTRY = "ritornel/watch.js"
LATER = ("ritornel/player/footage.js",)
"""Modules that are imported only when they are wanted."""
SHEETS = ("ritornel/ritornel.css", "ritornel/pages.css")
OWN_FACES = (Face("Hanken Grotesk", 400, False), Face("Hanken Grotesk", 600, False), Face("Spectral", 600, False))
"""What the start plate and the controls are set in."""
SINGLE_BYTES = 300_000_000
"""A single file is read into memory as a whole; what is larger plays from a folder."""
_SPECIFIER = re.compile(r'((?:from\s*|import\s*\(\s*|^import\s+)")(\.{1,2}/[^"]+\.js)(")', re.MULTILINE)
_FACE = re.compile(r'@font-face \{[^}]*url\("/static/fonts/([^"]+)"\)[^}]*\}')


def _static(name: str) -> Path:
    found = finders.find(name)
    if found is None:
        raise FileNotFoundError(f"There is no “{name}” among the static files.")
    return Path(found)


@lru_cache
def module_map() -> str:
    """The player's modules as an import map whose addresses are the modules themselves: browsers import nothing from a disk."""
    names = dict.fromkeys((*modules_of(ENTRY), *(entry for late in LATER for entry in modules_of(late))))
    imports = {}
    for name in names:
        imports[name] = data_url("text/javascript", _bare(_static(name).read_text(encoding="utf-8"), posixpath.dirname(name)).encode())
    return json.dumps({"imports": imports})


def _bare(source: str, folder: str) -> str:
    """A module with what it imports called by name: an address that is the module itself has no folder to look beside."""
    return _SPECIFIER.sub(lambda match: match[1] + posixpath.normpath(posixpath.join(folder, match[2])) + match[3], source)


def faces_of(performance: Performance) -> frozenset[str]:
    """The font files that the show's words and the player's own need, below the folder of fonts."""
    faces = {
        Face(mark.family, mark.weight, mark.italic)
        for staged in performance.slides
        for item in staged.drawing.objects
        for part in item.parts
        for mark in part.marks
        if isinstance(mark, TextMark)
    }
    return frozenset(face.path.relative_to(FONTS).as_posix() for face in {*faces, *OWN_FACES})


def style_of(performance: Performance) -> str:
    """The player's style, with the fonts that are needed in it."""
    wanted = faces_of(performance)
    rules = []
    for match in _FACE.finditer(_static("ritornel/fonts.css").read_text(encoding="utf-8")):
        if match[1] in wanted:
            rules.append(match[0].replace(f"/static/fonts/{match[1]}", data_url("font/ttf", (FONTS / match[1]).read_bytes())))
    return "\n".join([*rules, *(_static(name).read_text(encoding="utf-8") for name in SHEETS)])


def _file_of(asset: Asset, rate_pct: int = 100) -> tuple[Path, str]:
    """Where a medium lies as browsers get it, and its type. Raises BadMedia where it is missing."""
    if rate_pct != 100:
        path, media_type = tempo_path(asset.sha256, rate_pct), "audio/flac"
    elif asset.heavy:
        path, media_type = light_path(asset.sha256), "video/mp4"
    else:
        path, media_type = media_path(asset.sha256), asset.media_type
    if not path.is_file():
        what = "The lighter copy of" if asset.heavy and rate_pct == 100 else "The file of"
        raise BadMedia(f"{what} “{asset.name}” is missing, or still being made. Replace it on the shelf, or try again in a moment.")
    return path, str(media_type)


def _used(staged: Performance) -> dict[str, tuple[Asset, int]]:
    """By its name in the performance, each medium that the show needs, with its speed in per cent."""
    named = staged.media(lambda asset, rate_pct: asset.id)
    return {key: (staged.assets[asset_and_rate(key)[0]], asset_and_rate(key)[1]) for key in named if asset_and_rate(key)[0] in staged.assets}


def _performed(show: ShowValue) -> Performance:
    if not any(not slide.skipped for slide in show.slides):
        raise BadValue(f"“{show.title}” has no slides to save.")
    return perform(show)


def _page(row: Show, staged: Performance, media: dict[str, str], heard: dict[str, str]) -> bytes:
    release = Release.objects.filter(show=row).first()
    loops = release.loops if release else row.end == "loop"
    both = [{**builtins_of(entry, media), "heard": heard} for entry in (staged, calmed(staged))]
    start = {"performance": both[0], "calm": both[1], "starts_itself": release.starts_itself if release else True, "loops": loops}
    context = {
        "title": staged.title,
        "length": clock_text(staged.schedule.length_ms).split(".")[0],
        "loops": loops,
        "start": msgspec.to_builtins(start),
        "style": style_of(staged),
        "modules": module_map(),
        "entry": ENTRY,
    }
    return render_to_string("releases/offline.html", context).encode()


@login_required
@require_GET
@telling_errors
def weight(request: HttpRequest, show_id: str) -> HttpResponse:
    """How much the show weighs, and what weighs most: {"bytes", "heaviest": [{"name", "bytes"}], "single": whether one file will do}. Raises what saving
    it would raise."""
    row = show_for(show_id, request, "edit")
    staged = _performed(value_of(row))
    sizes: dict[str, int] = {}
    for asset, rate_pct in _used(staged).values():
        sizes[asset.name] = sizes.get(asset.name, 0) + _file_of(asset, rate_pct)[0].stat().st_size
    total = sum(sizes.values())
    heaviest = sorted(sizes.items(), key=lambda entry: -entry[1])[:3]
    return json_reply({"bytes": total, "heaviest": [{"name": name, "bytes": size} for name, size in heaviest], "single": total <= SINGLE_BYTES})


def _saved(response: HttpResponse, name: str) -> HttpResponse:
    response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@login_required
@require_GET
@telling_errors
def single_file(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show as one page with everything in it."""
    row = show_for(show_id, request, "edit")
    staged = _performed(value_of(row))
    files = {key: _file_of(*entry) for key, entry in _used(staged).items()}
    if sum(path.stat().st_size for path, _ in files.values()) > SINGLE_BYTES:
        raise BadValue(f"The show's media have more than {SINGLE_BYTES // 1_000_000} MB, too much for one file. Save it as a folder.")
    media = {key: data_url(media_type, path.read_bytes()) for key, (path, media_type) in files.items()}
    return _saved(HttpResponse(_page(row, staged, media, {}), content_type="text/html; charset=utf-8"), f"{file_title(row.title)}.html")


@login_required
@require_GET
@telling_errors
def folder(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show as a folder in a zip file."""
    row = show_for(show_id, request, "edit")
    return folder_of(row, value_of(row), "-folder")


def folder_of(row: Show, show: ShowValue, ending: str) -> HttpResponse:
    """A folder in a zip file: a page, and its pictures and clips beside it. Sounds are in the page: browsers read none from a disk. Raises BadValue for a show
    without slides, BadMedia where something is missing."""
    staged = _performed(show)
    sounds = set(staged.sound_ids())
    media, heard, beside = {}, {}, {}
    for key, (asset, rate_pct) in _used(staged).items():
        path, media_type = _file_of(asset, rate_pct)
        if asset.kind == "sound" or rate_pct != 100:
            media[key] = data_url(media_type, path.read_bytes())
            continue
        media[key] = f"media/{served_name(asset)}"
        beside[media[key]] = path
        if asset.kind == "clip" and (key in sounds or asset.heard):
            heard[key] = data_url(media_type, path.read_bytes())
    with tempfile.TemporaryFile() as out:
        with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as archive:
            top = file_title(row.title)
            archive.writestr(f"{top}/index.html", _page(row, staged, media, heard))
            for name, path in beside.items():
                archive.write(path, f"{top}/{name}")
        out.seek(0)
        return _saved(HttpResponse(out.read(), content_type="application/zip"), f"{file_title(row.title)}{ending}.zip")
