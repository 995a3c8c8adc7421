"""Masks: hard ones clip the drawing, soft ones fade it along a line."""

import skia

from ritornel.core.layout.marks import ObjectDrawing
from ritornel.core.motion.channels import Values
from ritornel.core.motion.masks import Region, mask_outline, soft_edge
from ritornel.core.render.outline import skia_path

Edge = tuple[float, float, float, float]


def region_of(item: ObjectDrawing) -> Region:
    """The region of an object that a mask covers: its box and everything that reaches beyond it."""
    reach = item.reach_px
    return -reach, -reach, item.width + 2 * reach, item.height + 2 * reach


def begin_mask(canvas: skia.Canvas, values: Values, region: Region) -> Edge | None:
    """Clips the following drawing to the mask, until the canvas is restored. Returns the line of a soft edge, for
    `end_mask`.
    """
    if values.mask is None or values.reveal >= 1:
        return None
    edge = soft_edge(values.mask, values.reveal, region)
    if edge is None:
        canvas.clipPath(skia_path(mask_outline(values.mask, values.reveal, region)), True)
        return None
    canvas.saveLayer(None, None)
    return edge


def end_mask(canvas: skia.Canvas, edge: Edge | None) -> None:
    """Fades the drawing since `begin_mask` along the soft edge."""
    if edge is None:
        return
    points = [skia.Point(edge[0], edge[1]), skia.Point(edge[2], edge[3])]
    shader = skia.GradientShader.MakeLinear(points, [skia.ColorBLACK, skia.ColorTRANSPARENT])
    canvas.drawPaint(skia.Paint(Shader=shader, BlendMode=skia.BlendMode.kDstIn))
    canvas.restore()
