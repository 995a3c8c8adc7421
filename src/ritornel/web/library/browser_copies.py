"""Copies of media for browsers: lighter ones of heavy clips, and sounds at other speeds."""

from pathlib import Path

from ritornel.core.render.lighter_copies import write_checked_lighter
from ritornel.core.sound.tempo import write_at_tempo
from ritornel.web.jobs.derived_files import derived_path, failure_of, make_once
from ritornel.web.jobs.sandbox import Bounds, run_confined
from ritornel.web.shows.services import media_path

LONG = Bounds(wall_s=3600, cpu_s=3600)
"""A long film in a new codec takes its time."""


def light_path(sha256: str) -> Path:
    """The place of a clip's lighter copy, which the worker makes."""
    return derived_path("lighter", sha256, ".mp4")


def make_light(sha256: str) -> None:
    """Makes the lighter copy of a clip."""
    make_once(
        light_path(sha256),
        lambda target: run_confined(write_checked_lighter, media_path(sha256), target, what=sha256, bounds=LONG),
        wait=False,
    )


def copy_failure(sha256: str) -> str | None:
    """Why a clip has no lighter copy, where making it failed recently."""
    return failure_of(light_path(sha256))


def tempo_path(sha256: str, rate_pct: int) -> Path:
    """The place of a sound at that speed. The sound is made now where it is missing; the file may be missing where that
    failed.
    """
    path = derived_path("tempo", f"{sha256}-{rate_pct}", ".flac")
    make_once(path, lambda target: run_confined(write_at_tempo, media_path(sha256), rate_pct, target, what=sha256))
    return path
