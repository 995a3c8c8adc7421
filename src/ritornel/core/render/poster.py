"""The poster: the picture a film shows before it plays."""

import skia

from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.schedule.performance import Performance, frame_state_at

QUALITY = 88
"""Of a JPEG picture, of 100."""
MOST_PX = 1280
"""A poster is at most so wide; players show it small."""


def poster_ms(performance: Performance) -> float:
    """The instant of the poster: the end of the last beat of the first slide that has a length, just before it goes on.

    A slide of 6 000 ms whose last beat ends at 2 000: 2 000.
    """
    schedule = performance.schedule
    for start, slide in zip(schedule.starts_ms, schedule.slides, strict=True):
        if slide.length_ms > 0:
            return float(start + min(slide.beats[-1].end_ms, slide.length_ms - 1))
    return 0.0


def draw_poster(performance: Performance, order: FilmOrder, media: MediaPath) -> bytes:
    """The poster of a film as a JPEG picture in the film's form, at most 1280 px wide. Raises BadMedia."""
    scale = min(1.0, MOST_PX / order.width_px)
    width, height = (max(2, round(size * scale / 2) * 2) for size in (order.width_px, order.height_px))
    state = frame_state_at(performance, poster_ms(performance), first_pass=True)
    picture = Painter(performance, width, height, media).image(state).encodeToData(skia.kJPEG, QUALITY)
    return bytes(picture)
