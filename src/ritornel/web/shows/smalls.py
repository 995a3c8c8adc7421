"""Small pictures of what is on the shelf, by the hash of the large ones. They can be made again at any time, so they are kept apart
from what must never be lost."""

import logging
from pathlib import Path

from django.conf import settings
from PIL import Image, ImageOps

from ritornel.web.shows.storage import media_path

SIDE_PX = 240
log = logging.getLogger(__name__)


def small_path(sha256: str) -> Path:
    """Where the small picture lies once it is made."""
    return Path(settings.VAR) / "smalls" / sha256[:2] / f"{sha256}.webp"


def make_small(sha256: str) -> None:
    """Makes the small picture; what cannot be read is noted and left without one."""
    target = small_path(sha256)
    if target.is_file():
        return
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_suffix(".part")
    try:
        with Image.open(media_path(sha256)) as picture:
            picture.draft("RGB", (SIDE_PX * 2, SIDE_PX * 2))
            small = ImageOps.contain(picture.convert("RGBA" if "A" in picture.getbands() or "transparency" in picture.info else "RGB"), (SIDE_PX, SIDE_PX))
            small.save(unfinished, "WEBP", quality=80)
    except OSError as error:
        log.warning("No small picture of %s: %s", sha256, error)
        return
    unfinished.replace(target)
