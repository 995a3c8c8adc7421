"""Waveforms of sounds, made by the worker and read while they grow."""

import contextlib
from pathlib import Path

import msgspec

from ritornel.core.sound.waveform import ABOUT, LEVELS_PER_S, Wave, write_wave
from ritornel.web.config.atomic_files import atomic_folder
from ritornel.web.jobs.derived_files import derived_path, failure_of, make_once, unfinished_place
from ritornel.web.jobs.sandbox import run_confined
from ritornel.web.shows.services import media_path

PART = 8192
"""How many peaks are answered at a time."""
NO_WAVE = Wave(0, 0, True)
"""Of what cannot be read: empty and whole, so that nobody waits for it."""


def wave_folder(sha256: str) -> Path:
    """The place of a complete waveform."""
    return derived_path("waveforms", sha256)


def _place(sha256: str) -> Path | None:
    """The place where it can be read now: the complete one, or the growing one."""
    whole = wave_folder(sha256)
    return whole if whole.is_dir() else unfinished_place(whole)


def wave_of(sha256: str) -> Wave | None:
    """The progress of a sound's waveform; None where it has to be started, or started again."""
    place = _place(sha256)
    if place is not None:
        with contextlib.suppress(OSError, msgspec.DecodeError):
            return msgspec.json.decode((place / ABOUT).read_bytes(), type=Wave)
    return NO_WAVE if failure_of(wave_folder(sha256)) is not None else None


def wave_part(sha256: str, per_s: int, first: int) -> bytes:
    """At most `PART` peaks of a level from number `first` on, as far as they exist."""
    place = _place(sha256)
    if per_s not in LEVELS_PER_S or place is None:
        return b""
    try:
        with (place / f"{per_s}.u8").open("rb") as source:
            source.seek(first)
            return source.read(PART)
    except OSError:
        return b""


def make_wave(sha256: str, lasts_ms: int) -> None:
    """Makes the waveform of a sound."""
    target = wave_folder(sha256)
    make_once(
        target,
        lambda folder: run_confined(write_wave, media_path(sha256), lasts_ms, folder, what=sha256),
        wait=False,
        place=atomic_folder,
    )
