"""Waves of sounds, made by the worker and read while they grow. Like small pictures they can be made again at any time."""

import logging
import time
from pathlib import Path

import msgspec
from django.conf import settings

from ritornel.core.errors import BadMedia
from ritornel.core.sound.waves import ABOUT, LEVELS_PER_S, Wave, write_wave
from ritornel.web.shows.confined import confined
from ritornel.web.shows.storage import media_path

PART = 8192
"""How many peaks are answered at a time."""
SILENT_S = 20
"""A wave that is not whole and has not grown for so long has lost its worker."""
log = logging.getLogger(__name__)


def wave_folder(sha256: str) -> Path:
    """Where the wave of a sound lies."""
    return Path(settings.VAR) / "waves" / sha256[:2] / sha256


def wave_of(sha256: str) -> Wave | None:
    """How far the wave of a sound has come; None where it has to be begun, or begun again."""
    about = wave_folder(sha256) / ABOUT
    try:
        found = msgspec.json.decode(about.read_bytes(), type=Wave)
        lost = not found.whole and time.time() - about.stat().st_mtime > SILENT_S
    except (OSError, msgspec.DecodeError):
        return None
    return None if lost else found


def wave_part(sha256: str, per_s: int, first: int) -> bytes:
    """At most `PART` peaks of a level from number `first` on, as far as they are there."""
    if per_s not in LEVELS_PER_S:
        return b""
    try:
        with (wave_folder(sha256) / f"{per_s}.u8").open("rb") as source:
            source.seek(first)
            return source.read(PART)
    except OSError:
        return b""


def make_wave(sha256: str, lasts_ms: int) -> None:
    """Makes the wave of a sound, unless it is there. One that cannot be made is empty and whole, so that nobody waits for it."""
    if wave_of(sha256) is not None:
        return
    folder = wave_folder(sha256)
    try:
        confined(write_wave, media_path(sha256), lasts_ms, folder, what=sha256)
    except (OSError, BadMedia) as error:
        log.warning("No wave of %s: %s", sha256, error)
        folder.mkdir(parents=True, exist_ok=True)
        (folder / ABOUT).write_bytes(msgspec.json.encode(Wave(0, 0, True)))
