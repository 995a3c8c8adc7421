"""What is made of media for browsers: lighter copies of heavy clips, and sounds at other speeds. It can be made again at any time."""

from pathlib import Path

from django.conf import settings

from ritornel.core.render.lighter import write_lighter
from ritornel.core.sound.tempo import write_at_tempo
from ritornel.web.shows.confined import Bounds
from ritornel.web.shows.smalls import keep_made
from ritornel.web.shows.storage import media_path

LONG = Bounds(wall_s=3600)
"""A long film in a new codec takes its time."""


def light_path(sha256: str) -> Path:
    """Where the lighter copy of a clip lies once the worker has made it."""
    return Path(settings.VAR) / "light" / sha256[:2] / f"{sha256}.mp4"


def make_light(sha256: str) -> None:
    """Makes the lighter copy of a clip."""
    keep_made(light_path(sha256), write_lighter, media_path(sha256), bounds=LONG)


def tempo_path(sha256: str, rate_pct: int) -> Path:
    """Where a sound at that speed lies. It is made now where it is not there yet; it may be missing where that failed."""
    path = Path(settings.VAR) / "tempo" / sha256[:2] / f"{sha256}-{rate_pct}.flac"
    keep_made(path, write_at_tempo, media_path(sha256), rate_pct)
    return path
