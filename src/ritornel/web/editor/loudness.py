"""The loudness of a whole show: the worker measures each version of its sound once."""

import hashlib
import tempfile
from pathlib import Path
from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_GET

from ritornel.core.document.decoding import to_builtins, to_json
from ritornel.core.document.show import Show
from ritornel.core.render.soundtrack import write_loudness
from ritornel.core.schedule.measurements import ShowLoudness
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.sound.mastering import TARGET_LUFS
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.jobs.derived_files import ask_once, derived_path, make_once
from ritornel.web.jobs.sandbox import Bounds, run_confined
from ritornel.web.shows.services import media_path, show_for, value_of

LONG = Bounds(wall_s=1800, cpu_s=1800)


def stamp_of(performance: Performance) -> str:
    """A stamp of everything that the sound of a show depends on: its sounds, their times, and its length."""
    sounds = sorted((asset.id, asset.sha256) for asset in performance.assets.values() if asset.heard)
    return hashlib.sha256(
        to_json((performance.music, performance.events, performance.schedule.length_ms, sounds))
    ).hexdigest()


def loudness_path(stamp: str) -> Path:
    """The place of the measurement."""
    return derived_path("loudness", stamp, ".json")


def measure(show: Show) -> None:
    """Measures a show."""
    media = {asset.sha256: media_path(asset.sha256) for asset in show.assets if asset.heard}
    with tempfile.TemporaryDirectory(prefix="ritornel-heard-") as folder:
        make_once(
            loudness_path(stamp_of(perform(show))),
            lambda target: run_confined(
                write_loudness, to_json(show), media, Path(folder), target, what=show.title, bounds=LONG
            ),
            wait=False,
        )


def known_loudness(performance: Performance) -> ShowLoudness | None:
    """How loud the show is, where the worker has measured it."""
    path = loudness_path(stamp_of(performance))
    return msgspec.json.decode(path.read_bytes(), type=ShowLoudness) if path.is_file() else None


@login_required
@require_GET
@answer_errors
def loudness(request: HttpRequest, show_id: str) -> HttpResponse:
    """{"ready": ..., "target_lufs": ..., and the measurement}. With `?ask=1` the worker is asked to measure, unless it
    does already.
    """
    from ritornel.web.editor.tasks import hearing

    show = value_of(show_for(show_id, request))
    staged = perform(show)
    known = known_loudness(staged)
    found: dict[str, Any] = {"ready": known is not None, "target_lufs": TARGET_LUFS}
    if known is not None:
        found |= to_builtins(known)
    elif request.GET.get("ask"):
        ask_once(loudness_path(stamp_of(staged)), lambda: hearing(show_id))
    return json_reply(found)
