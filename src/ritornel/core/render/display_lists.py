"""Objects recorded as what Skia is to draw, so that what stands as it is costs one call a frame instead of one for each
of its marks.
"""

from collections.abc import Callable

import skia

from ritornel.core.layout.marks import ImageMark, ObjectDrawing

_ENDLESS = skia.Rect.MakeLTRB(-1e6, -1e6, 1e6, 1e6)


class Recordings:
    """The marks of objects of words and paths.

    Pictures are not among them: a recording would hold them when nobody wants them any more.
    """

    KEPT = 512

    def __init__(self) -> None:
        self._kept: dict[tuple[int, str], skia.Picture | None] = {}

    def of(self, index: int, item: ObjectDrawing, paint: Callable[[skia.Canvas], None]) -> skia.Picture | None:
        """What `paint` draws of an object of slide number `index` that is there whole; None for one with pictures."""
        key = (index, item.object_id)
        if key not in self._kept:
            while len(self._kept) >= self.KEPT:
                del self._kept[next(iter(self._kept))]
            self._kept[key] = _recorded(item, paint)
        return self._kept[key]


def _recorded(item: ObjectDrawing, paint: Callable[[skia.Canvas], None]) -> skia.Picture | None:
    if any(isinstance(mark, ImageMark) for part in item.parts for mark in part.marks):
        return None
    recorder = skia.PictureRecorder()
    paint(recorder.beginRecording(_ENDLESS))
    return recorder.finishRecordingAsPicture()
