"""A show as an animated picture without sound: WebP, which browsers and mail programs show like any picture."""

import contextlib
from fractions import Fraction
from pathlib import Path

import av
import numpy as np

from ritornel.core.errors import BadValue
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import Report, check_order
from ritornel.core.render.frames import changing_frames
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.render.surfaces import surface_over
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import Performance
from ritornel.core.time.edges import frame_count, frame_time_ms
from ritornel.core.time.milliseconds import clock_text, round_half_up

LONGEST_MS = 5 * 60_000
"""Nobody waits for a picture that goes on for longer."""
WEBP = {"lossless": "0", "quality": "80", "compression_level": "4", "loop": "0"}


def write_animated(
    performance: Performance, path: Path, order: FilmOrder, media: MediaPath, report: Report | None = None
) -> None:
    """Writes the picture.

    A still span is one long frame; at its end it starts again. Times are whole ms, rounded half up; the last frame
    stays as long as the one before it. The file is written beside `path` and moved there when complete. Raises BadValue
    for an impossible order, an empty show or one longer than five minutes, BadMedia for missing media, and every error
    of `report`.
    """
    check_order(order)
    length_ms = performance.schedule.length_ms
    if length_ms == 0:
        raise BadValue(f"“{performance.title}” lasts 0 s: there is nothing to see.", "show")
    if length_ms > LONGEST_MS:
        raise BadValue(
            f"“{performance.title}” lasts {clock_text(length_ms)}; an animated picture has at most "
            f"{clock_text(LONGEST_MS)}. Make a film.",
            "show",
        )
    unfinished = path.with_name(f".{path.stem}.unfinished{path.suffix}")
    painter = Painter(performance, order.width_px, order.height_px, media)
    pixels = np.zeros((order.height_px, order.width_px, 4), dtype=np.uint8)
    surface = surface_over(pixels)
    total = frame_count(length_ms, order.rate)
    try:
        with av.open(str(unfinished), "w", format="webp", options={"loop": "0"}) as container:
            stream = container.add_stream("libwebp_anim", rate=order.rate, options=WEBP)
            stream.width, stream.height, stream.pix_fmt = order.width_px, order.height_px, "bgra"
            stream.codec_context.time_base = Fraction(1, 1000)
            for number, frame_state, new in changing_frames(performance, order):
                if report is not None:
                    report(Progress(number, total, max((layer.index for layer in frame_state.layers), default=0) + 1))
                if not new and number < total - 1:
                    continue
                with surface as canvas:
                    painter.paint(canvas, frame_state)
                frame = av.VideoFrame.from_ndarray(pixels, format="bgra")
                frame.pts, frame.time_base = round_half_up(frame_time_ms(number, order.rate)), Fraction(1, 1000)
                container.mux(stream.encode(frame))
            container.mux(stream.encode(None))
        unfinished.replace(path)
    finally:
        with contextlib.suppress(OSError):
            unfinished.unlink(missing_ok=True)
    if report is not None:
        report(Progress(total, total, len(performance.slides)))
