"""Thumbnails of what is on the shelf, and filmstrips of clips."""

from pathlib import Path

from ritornel.core.render.filmstrips import write_small, write_strip
from ritornel.web.jobs.derived_files import derived_path, make_once
from ritornel.web.jobs.sandbox import run_confined
from ritornel.web.shows.services import media_path


def thumbnail_path(sha256: str) -> Path:
    """The place of the thumbnail of a picture or clip."""
    return derived_path("thumbnails", sha256, ".webp")


def make_thumbnail(sha256: str) -> None:
    """Makes the thumbnail."""
    make_once(
        thumbnail_path(sha256),
        lambda target: run_confined(write_small, media_path(sha256), target, what=sha256),
        wait=False,
    )


def strip_path(sha256: str) -> Path:
    """The place of the filmstrip of a clip."""
    return derived_path("filmstrips", sha256, ".webp")


def make_strip(sha256: str, lasts_ms: int) -> None:
    """Makes a clip's filmstrip."""
    make_once(
        strip_path(sha256),
        lambda target: run_confined(write_strip, media_path(sha256), lasts_ms, target, what=sha256),
        wait=False,
    )
