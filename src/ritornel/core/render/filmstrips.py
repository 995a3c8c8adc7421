"""Thumbnails of assets, and filmstrips of clips."""

from pathlib import Path

from PIL import Image, ImageOps, UnidentifiedImageError

from ritornel.core.render.footage import ClipReader

SIDE_PX = 240
STRIP_PICTURES, STRIP_WIDTH_PX, STRIP_HEIGHT_PX = 24, 80, 45


def write_small(path: Path, target: Path) -> None:
    """Writes the picture at `path`, or the first of the clip there, small enough for a square of 240 px.

    Raises BadMedia or OSError.
    """
    _small_of(path).save(target, "WEBP", quality=80)


def _small_of(path: Path) -> Image.Image:
    try:
        with Image.open(path) as picture:
            picture.draft("RGB", (SIDE_PX * 2, SIDE_PX * 2))
            return ImageOps.contain(
                picture.convert("RGBA" if "A" in picture.getbands() or "transparency" in picture.info else "RGB"),
                (SIDE_PX, SIDE_PX),
            )
    except UnidentifiedImageError:
        with ClipReader(path, path.name) as clip:
            return ImageOps.contain(clip.picture_at(0), (SIDE_PX, SIDE_PX))


def write_strip(path: Path, lasts_ms: int, target: Path) -> None:
    """Writes `STRIP_PICTURES` pictures of a clip side by side, each from the middle of its part of the clip.

    Raises BadMedia or OSError.
    """
    strip = Image.new("RGB", (STRIP_WIDTH_PX * STRIP_PICTURES, STRIP_HEIGHT_PX))
    with ClipReader(path, path.name) as clip:
        for number in range(STRIP_PICTURES):
            part = clip.picture_at(lasts_ms * (2 * number + 1) / (2 * STRIP_PICTURES))
            strip.paste(ImageOps.fit(part, (STRIP_WIDTH_PX, STRIP_HEIGHT_PX)), (number * STRIP_WIDTH_PX, 0))
    strip.save(target, "WEBP", quality=80)
