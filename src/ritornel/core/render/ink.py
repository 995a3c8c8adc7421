"""Slides with the ink drawn on them by hand."""

from collections.abc import Iterator

import skia

from ritornel.core.document.ink import EDGE_PX, INKS, Drawings, InkStroke
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.render.strokes import pen
from ritornel.core.render.surfaces import new_surface
from ritornel.core.schedule.performance import Performance, frame_state_at_rest


def paint_strokes(canvas: skia.Canvas, strokes: tuple[InkStroke, ...]) -> None:
    """Paints each stroke over the ones before: its edge, then its ink. The canvas counts in px of the frame."""
    for stroke in strokes:
        ink = INKS[stroke.ink]
        path = skia.Path()
        path.moveTo(*stroke.points[0])
        for x, y in stroke.points[1:] or stroke.points[:1]:
            path.lineTo(x, y)
        for colour, width_px in ((ink.edge, ink.width_px + 2 * EDGE_PX), (ink.colour, ink.width_px)):
            line = pen(colour, width_px, skia.Paint.kRound_Join)
            line.setStrokeCap(skia.Paint.kRound_Cap)
            if ink.dash_px and len(stroke.points) > 1:
                line.setPathEffect(skia.DashPathEffect.Make(list(ink.dash_px), 0))
            canvas.drawPath(path, line)


def drawn_pictures(
    performance: Performance, drawings: Drawings, width_px: int, height_px: int, media: MediaPath
) -> Iterator[tuple[str, bytes]]:
    """A file name and a PNG for each shown slide with ink, as it is when its last beat is complete."""
    painter = Painter(performance, width_px, height_px, media)
    for index, staged in enumerate(performance.slides):
        strokes = drawings.get(staged.slide.id, ())
        if not strokes:
            continue
        surface = new_surface(width_px, height_px)
        with surface as canvas:
            painter.paint(canvas, frame_state_at_rest(performance, index, len(staged.schedule.beats) - 1))
            canvas.scale(width_px / performance.frame.width_px, height_px / performance.frame.height_px)
            paint_strokes(canvas, strokes)
        png = bytes(surface.makeImageSnapshot().encodeToData(skia.EncodedImageFormat.kPNG, 100))
        yield f"{index + 1:02d} {staged.slide.name or 'slide'}.png".replace("/", "-"), png
