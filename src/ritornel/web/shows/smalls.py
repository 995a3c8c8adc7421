"""Small pictures of what is on the shelf, by the hash of the large ones. They can be made again at any time, so they are kept apart
from what must never be lost."""

import logging
from collections.abc import Callable
from pathlib import Path

from django.conf import settings
from PIL import Image, ImageOps, UnidentifiedImageError

from ritornel.core.errors import BadMedia
from ritornel.core.render.footage import Footage
from ritornel.web.shows.storage import media_path

SIDE_PX = 240
STRIP_PICTURES, STRIP_WIDTH_PX, STRIP_HEIGHT_PX = 24, 80, 45
log = logging.getLogger(__name__)


def small_path(sha256: str) -> Path:
    """Where the small picture lies once it is made."""
    return Path(settings.VAR) / "smalls" / sha256[:2] / f"{sha256}.webp"


def _small_of(path: Path) -> Image.Image:
    """A picture made small; of a clip its first picture."""
    try:
        with Image.open(path) as picture:
            picture.draft("RGB", (SIDE_PX * 2, SIDE_PX * 2))
            return ImageOps.contain(picture.convert("RGBA" if "A" in picture.getbands() or "transparency" in picture.info else "RGB"), (SIDE_PX, SIDE_PX))
    except UnidentifiedImageError:
        with Footage(path, path.name) as clip:
            return ImageOps.contain(clip.picture_at(0), (SIDE_PX, SIDE_PX))


def strip_path(sha256: str) -> Path:
    """Where the filmstrip of a clip lies once it is made."""
    return Path(settings.VAR) / "strips" / sha256[:2] / f"{sha256}.webp"


def _strip_of(path: Path, lasts_ms: int) -> Image.Image:
    """`STRIP_PICTURES` pictures side by side, each from the middle of its part of the clip."""
    strip = Image.new("RGB", (STRIP_WIDTH_PX * STRIP_PICTURES, STRIP_HEIGHT_PX))
    with Footage(path, path.name) as clip:
        for number in range(STRIP_PICTURES):
            part = clip.picture_at(lasts_ms * (2 * number + 1) / (2 * STRIP_PICTURES))
            strip.paste(ImageOps.fit(part, (STRIP_WIDTH_PX, STRIP_HEIGHT_PX)), (number * STRIP_WIDTH_PX, 0))
    return strip


def _keep(target: Path, make: Callable[[], Image.Image]) -> None:
    """Makes a picture and keeps it, whole or not at all; where it cannot be made, that is noted and there is none."""
    if target.is_file():
        return
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_suffix(".part")
    try:
        make().save(unfinished, "WEBP", quality=80)
    except (OSError, BadMedia) as error:
        log.warning("No picture %s: %s", target.name, error)
        return
    unfinished.replace(target)


def make_strip(sha256: str, lasts_ms: int) -> None:
    """Makes a clip's filmstrip."""
    _keep(strip_path(sha256), lambda: _strip_of(media_path(sha256), lasts_ms))


def make_small(sha256: str) -> None:
    """Makes the small picture."""
    _keep(small_path(sha256), lambda: _small_of(media_path(sha256)))
