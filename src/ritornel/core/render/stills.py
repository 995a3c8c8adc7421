"""Single pictures of a show."""

from pathlib import Path

import skia

from ritornel.core.render.film import Report
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import FrameState, Performance, frame_state_at_rest

LIGHT_QUALITY = 60


def png_of(performance: Performance, frame_state: FrameState, width_px: int, height_px: int, media: MediaPath) -> bytes:
    """The frame state as a PNG file."""
    image = Painter(performance, width_px, height_px, media).image(frame_state)
    return bytes(image.encodeToData(skia.EncodedImageFormat.kPNG, 100))


def first_picture(performance: Performance, width_px: int, media: MediaPath) -> bytes:
    """The picture that a visitor sees before anything else has loaded: the first slide at the end of its first beat, as
    a WebP of some ten kilobytes.
    """
    return _light(performance, frame_state_at_rest(performance, 0, 0), width_px, media)


def last_picture(performance: Performance, index: int, width_px: int, media: MediaPath) -> bytes:
    """A slide at the end of its last beat, equally small."""
    return _light(
        performance,
        frame_state_at_rest(performance, index, len(performance.slides[index].schedule.beats) - 1),
        width_px,
        media,
    )


def _light(performance: Performance, frame_state: FrameState, width_px: int, media: MediaPath) -> bytes:
    height_px = max(round(width_px * performance.frame.height_px / performance.frame.width_px), 1)
    image = Painter(performance, width_px, height_px, media).image(frame_state)
    return bytes(image.encodeToData(skia.EncodedImageFormat.kWEBP, LIGHT_QUALITY))


def write_stills(
    performance: Performance,
    folder: Path,
    width_px: int,
    height_px: int,
    media: MediaPath,
    report: Report | None = None,
) -> list[Path]:
    """One PNG a beat, each at the beat's end: `01-0.png` is slide 1, beat 0.

    Returns the files in order. Raises every error of `report`.
    """
    total = sum(len(staged.schedule.beats) for staged in performance.slides)
    painter = Painter(performance, width_px, height_px, media)
    folder.mkdir(parents=True, exist_ok=True)
    written: list[Path] = []
    for index, staged in enumerate(performance.slides):
        for beat in range(len(staged.schedule.beats)):
            if report is not None:
                report(Progress(len(written), total, index + 1))
            path = folder / f"{index + 1:02d}-{beat}.png"
            image = painter.image(frame_state_at_rest(performance, index, beat))
            path.write_bytes(bytes(image.encodeToData(skia.EncodedImageFormat.kPNG, 100)))
            written.append(path)
    return written
