"""Small pictures of what is on the shelf, by the hash of the large ones. They can be made again at any time, so they are kept apart
from what must never be lost."""

import logging
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


def make_strip(sha256: str, lasts_ms: int) -> None:
    """Makes a clip's filmstrip: `STRIP_PICTURES` pictures side by side, each from the middle of its part of the clip."""
    target = strip_path(sha256)
    if target.is_file():
        return
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_suffix(".part")
    try:
        with Footage(media_path(sha256), sha256) as clip:
            parts = [
                ImageOps.fit(clip.picture_at(lasts_ms * (2 * n + 1) / (2 * STRIP_PICTURES)), (STRIP_WIDTH_PX, STRIP_HEIGHT_PX)) for n in range(STRIP_PICTURES)
            ]
    except (OSError, BadMedia) as error:
        log.warning("No filmstrip of %s: %s", sha256, error)
        return
    strip = Image.new("RGB", (STRIP_WIDTH_PX * STRIP_PICTURES, STRIP_HEIGHT_PX))
    for number, part in enumerate(parts):
        strip.paste(part, (number * STRIP_WIDTH_PX, 0))
    strip.save(unfinished, "WEBP", quality=80)
    unfinished.replace(target)


def make_small(sha256: str) -> None:
    """Makes the small picture; what cannot be read is noted and left without one."""
    target = small_path(sha256)
    if target.is_file():
        return
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_suffix(".part")
    try:
        _small_of(media_path(sha256)).save(unfinished, "WEBP", quality=80)
    except (OSError, BadMedia) as error:
        log.warning("No small picture of %s: %s", sha256, error)
        return
    unfinished.replace(target)
