"""Successive frame states: the still part beneath everything that changes is painted once."""

import skia

from ritornel.core.motion.channels import STILL
from ritornel.core.render.painter import Painter
from ritornel.core.schedule.performance import FrameState, Layer


def count_resting(order: dict[str, int], before: Layer, now: Layer) -> int:
    """How many objects from the back are the same in both; -1 where the slide's ground or the view differs.

    `order` has each object's place from the back. Both are the same slide, so their objects stand in one order.
    """
    if before.view != now.view or before.ground_played != now.ground_played or len(before.objects) != len(now.objects):
        return -1
    # What rests is mostly the very same value, which is known at once.
    changed = (
        order[key[0]]
        for (key, own), (_, new) in zip(before.objects, now.objects, strict=True)
        if own is not new and own != new
    )
    return min(changed, default=len(order))


class FrameSequence:
    """Paints frame states onto a raster surface of the painter's size.

    The content never depends on earlier frames; the time it takes does: a list that grows on a photograph costs the new
    line, not the photograph.
    """

    def __init__(self, painter: Painter, surface: skia.Surface) -> None:
        self._painter, self._surface = painter, surface
        self._before: Layer | None = None
        self._beneath: skia.Image | None = None
        self._count = -1
        self._order: dict[str, int] = {}

    def paint(self, frame_state: FrameState) -> None:
        """Covers the whole surface."""
        (layer, *others) = frame_state.layers or (None,)
        if layer is None or others or layer.values != STILL or layer.ground < 1:
            self._before = None
            with self._surface as canvas:
                self._painter.paint(canvas, frame_state)
            return
        count = self._resting(layer)
        self._before = layer
        with self._surface as canvas:
            self._painter.begin(canvas)
            self._paint_up_to(canvas, layer, count)
            if count >= 0:
                self._painter.paint_slide(canvas, layer, first=count, ground=False)
            self._painter.end(canvas, frame_state.blackness)

    def _resting(self, layer: Layer) -> int:
        if self._before is None or self._before.index != layer.index:
            drawing = self._painter.performance.slides[layer.index].drawing
            self._order = {item.object_id: place for place, item in enumerate(drawing.objects)}
            count = -1
        else:
            count = count_resting(self._order, self._before, layer)
        if count < self._count or count < 0:
            self._beneath, self._count = None, -1
        return count

    def _paint_up_to(self, canvas: skia.Canvas, layer: Layer, count: int) -> None:
        """Paints ground and objects as far as they rest, and keeps them; the whole slide where nothing is known to
        rest.
        """
        if count < 0:
            self._painter.paint_slide(canvas, layer)
            return
        if self._beneath is not None:
            canvas.save()
            canvas.resetMatrix()
            canvas.drawImage(self._beneath, 0, 0, skia.SamplingOptions(), skia.Paint(BlendMode=skia.BlendMode.kSrc))
            canvas.restore()
        if self._count < count:
            self._painter.paint_slide(canvas, layer, first=max(self._count, 0), end=count, ground=self._beneath is None)
            self._beneath, self._count = self._surface.makeImageSnapshot(), count
