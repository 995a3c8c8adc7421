"""Thumbnails of slides at the end of their last beat: each is drawn once and kept."""

import contextlib
import hashlib
from collections.abc import Callable
from pathlib import Path

import msgspec

from ritornel.core.document.decoding import to_json
from ritornel.core.document.show import Show, Slide
from ritornel.core.errors import DiskFull
from ritornel.core.render.stills import png_of
from ritornel.core.schedule.performance import frame_state_at_rest, perform
from ritornel.web.config.atomic_files import atomic_file
from ritornel.web.jobs.derived_files import derived_path
from ritornel.web.shows.services import media_path

WIDTHS_PX = {"small": 192, "large": 640}


def slide_picture(show: Show, slide: Slide, width_px: int, number: int) -> bytes:
    """The slide as a PNG, with `number` as its number. Raises BadMedia where a picture is missing."""
    alone = msgspec.structs.replace(show, slides=(msgspec.structs.replace(slide, skipped=False),), music=())

    def draw() -> bytes:
        shown = perform(alone, first_number=number)
        height_px = round(width_px * show.frame.height_px / show.frame.width_px)
        return png_of(
            shown,
            frame_state_at_rest(shown, 0, len(shown.slides[0].schedule.beats) - 1),
            width_px,
            height_px,
            media_path,
        )

    about = to_json((show.frame, show.theme, show.furniture, slide))
    media = sorted((asset.id, asset.sha256) for asset in show.assets if asset.id.encode() in about)
    key = hashlib.sha256(about + to_json((media, width_px, number, show.default_hold_ms))).hexdigest()
    return kept_picture(derived_path("slides", key, ".png"), draw)


def kept_picture(path: Path, draw: Callable[[], bytes]) -> bytes:
    """The kept picture; a missing one is drawn and kept. On a full disk it is drawn every time."""
    with contextlib.suppress(FileNotFoundError):
        return path.read_bytes()
    png = draw()
    with contextlib.suppress(DiskFull), atomic_file(path) as unfinished:
        unfinished.write_bytes(png)
    return png
