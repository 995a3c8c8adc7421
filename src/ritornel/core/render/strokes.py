"""Outlines on a canvas: filled, bordered, dashed, and partly drawn."""

import skia

from ritornel.core.layout.marks import PathMark, Shade
from ritornel.core.render.outline import skia_path


def paint_colour(text: str) -> int:
    """`#rrggbb` or `#rrggbbaa` as Skia has it."""
    value = int(text[1:7], 16)
    alpha = int(text[7:9], 16) if len(text) == 9 else 255
    return int(skia.ColorSetARGB(alpha, value >> 16, value >> 8 & 255, value & 255))


def filled_share(drawn: float) -> float:
    """The opacity of the fill while an outline is drawn: 0 up to the half, then growing."""
    return max(0.0, min(drawn * 2 - 1, 1.0))


def pen(colour: str, width_px: float, join: skia.Paint.Join = skia.Paint.kMiter_Join) -> skia.Paint:
    """A paint for borders."""
    return skia.Paint(
        AntiAlias=True,
        Color=paint_colour(colour),
        Style=skia.Paint.kStroke_Style,
        StrokeWidth=width_px,
        StrokeJoin=join,
    )


def _first_part(d: str, share: float) -> skia.Path:
    """Each contour of the outline up to a share of its own length."""
    result = skia.Path()
    for contour in d.split("M ")[1:]:
        measure = skia.PathMeasure(skia_path(f"M {contour.strip()}"), False)
        piece = skia.Path()
        measure.getSegment(0, measure.getLength() * share, piece, True)
        result.addPath(piece)
    return result


def paint_path(canvas: skia.Canvas, mark: PathMark, drawn: float = 1.0) -> None:
    """Paints the mark. With `drawn` below 1 only that share of its border, as a solid line, and its fill as faint as
    `filled_share` says.
    """
    path = skia_path(mark.d)
    if mark.fill is not None:
        paint = skia.Paint(AntiAlias=True)
        if isinstance(mark.fill, Shade):
            points = [skia.Point(mark.fill.x1, mark.fill.y1), skia.Point(mark.fill.x2, mark.fill.y2)]
            paint.setShader(
                skia.GradientShader.MakeLinear(points, [paint_colour(mark.fill.first), paint_colour(mark.fill.second)])
            )
        else:
            paint.setColor(paint_colour(mark.fill))
        if drawn < 1:
            paint.setAlphaf(paint.getAlphaf() * filled_share(drawn))
        canvas.drawPath(path, paint)
    if mark.stroke is not None and mark.stroke_px > 0:
        line = pen(mark.stroke, mark.stroke_px)
        if drawn < 1:
            canvas.drawPath(_first_part(mark.d, drawn), line)
            return
        if mark.dash:
            line.setPathEffect(skia.DashPathEffect.Make(list(mark.dash), 0))
        if mark.round:
            line.setStrokeCap(skia.Paint.kRound_Cap)
        canvas.drawPath(path, line)
