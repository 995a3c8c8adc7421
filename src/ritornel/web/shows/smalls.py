"""Small pictures of what is on the shelf, by the hash of the large ones. They can be made again at any time, so they are kept apart
from what must never be lost."""

import logging
from collections.abc import Callable
from pathlib import Path
from typing import Any

from django.conf import settings

from ritornel.core.errors import BadMedia
from ritornel.core.render.strips import write_small, write_strip
from ritornel.web.shows.confined import Bounds, confined
from ritornel.web.shows.storage import media_path

log = logging.getLogger(__name__)


def small_path(sha256: str) -> Path:
    """Where the small picture lies once it is made."""
    return Path(settings.VAR) / "smalls" / sha256[:2] / f"{sha256}.webp"


def strip_path(sha256: str) -> Path:
    """Where the filmstrip of a clip lies once it is made."""
    return Path(settings.VAR) / "strips" / sha256[:2] / f"{sha256}.webp"


def keep_made(target: Path, work: Callable[..., None], *given: Any, bounds: Bounds = Bounds()) -> None:
    """Has `work` write a file, and keeps it, whole or not at all; where it cannot be made, that is noted and there is none."""
    if target.is_file():
        return
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_suffix(".part")
    try:
        confined(work, *given, unfinished, what=target.stem, bounds=bounds)
    except (OSError, BadMedia) as error:
        log.warning("No %s %s: %s", work.__name__, target.name, error)
        unfinished.unlink(missing_ok=True)
        return
    unfinished.replace(target)


def make_strip(sha256: str, lasts_ms: int) -> None:
    """Makes a clip's filmstrip."""
    keep_made(strip_path(sha256), write_strip, media_path(sha256), lasts_ms)


def make_small(sha256: str) -> None:
    """Makes the small picture."""
    keep_made(small_path(sha256), write_small, media_path(sha256))
