"""Objects recorded as Skia's drawing commands, so that an unchanged object costs one call a frame and not one for each
of its marks.
"""

from collections.abc import Callable

import skia

from ritornel.core.layout.marks import ImageMark, ObjectDrawing

_ENDLESS = skia.Rect.MakeLTRB(-1e6, -1e6, 1e6, 1e6)


class Recordings:
    """The recorded commands of objects with text and paths.

    Objects with pictures are left out: a recording would keep the pictures in memory.
    """

    KEPT = 512

    def __init__(self) -> None:
        self._kept: dict[tuple[int, str], skia.Picture | None] = {}

    def of(self, index: int, item: ObjectDrawing, paint: Callable[[skia.Canvas], None]) -> skia.Picture | None:
        """The commands that `paint` draws for a complete object of slide number `index`; None for an object with
        pictures.
        """
        key = (index, item.object_id)
        if key not in self._kept:
            while len(self._kept) >= self.KEPT:
                del self._kept[next(iter(self._kept))]
            self._kept[key] = _record(item, paint)
        return self._kept[key]


def _record(item: ObjectDrawing, paint: Callable[[skia.Canvas], None]) -> skia.Picture | None:
    if any(isinstance(mark, ImageMark) for part in item.parts for mark in part.marks):
        return None
    recorder = skia.PictureRecorder()
    paint(recorder.beginRecording(_ENDLESS))
    return recorder.finishRecordingAsPicture()
