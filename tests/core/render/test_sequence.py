"""FrameStates painted one after another look as each does painted by itself."""

import random
from collections.abc import Iterable

import msgspec
import numpy as np
import skia
from django.test import SimpleTestCase
from numpy.typing import NDArray

from ritornel.core.document import Show
from ritornel.core.layout.marks import ImageMark, ObjectDrawing
from ritornel.core.render.display_lists import Recordings
from ritornel.core.render.painter import Painter
from ritornel.core.render.pictures import Pictures
from ritornel.core.render.sequence import FrameSequence
from ritornel.core.schedule.performance import Performance, frame_state_at, perform
from ritornel.demo.orlmere import FILES, MEDIA, orlmere
from tests.kinds import every_effect

WIDTH, HEIGHT = 320, 180


class Counting(Painter):
    """Counts the objects it paints."""

    painted = 0

    def _paint_object(self, canvas: skia.Canvas, index: int, item: ObjectDrawing, *rest: object) -> None:
        self.painted += 1
        super()._paint_object(canvas, index, item, *rest)  # type: ignore[arg-type]


class Plain(Painter):
    """Paints every mark by itself."""

    def __init__(self, *given: object) -> None:
        super().__init__(*given)  # type: ignore[arg-type]

        class Nothing(Recordings):
            def of(self, *asked: object) -> None:
                return None

        self._recordings = Nothing()


def fresh() -> tuple[NDArray[np.uint8], skia.Surface]:
    pixels = np.zeros((HEIGHT, WIDTH, 4), dtype=np.uint8)
    info = skia.ImageInfo.Make(WIDTH, HEIGHT, skia.kBGRA_8888_ColorType, skia.kPremul_AlphaType)
    return pixels, skia.Surface.MakeRasterDirect(info, pixels, WIDTH * 4)


class SequenceTest(SimpleTestCase):
    def compare(self, performance: Performance, instants_ms: Iterable[float]) -> tuple[int, int]:
        """Holds a sequence to a painter that has no memory; how many objects each had to paint."""
        paths = {asset.sha256: MEDIA / FILES[asset.id][0] for asset in performance.assets.values()}
        pictures = Pictures(paths.__getitem__)
        pixels, surface = fresh()
        alone, onto = fresh()
        quick = Counting(performance, WIDTH, HEIGHT, paths.__getitem__, pictures)
        slow = type("Slow", (Counting, Plain), {})(performance, WIDTH, HEIGHT, paths.__getitem__, pictures)
        sequence = FrameSequence(quick, surface)
        for at_ms in instants_ms:
            frame_state = frame_state_at(performance, at_ms)
            sequence.paint(frame_state)
            with onto as canvas:
                slow.paint(canvas, frame_state)
            differ = np.abs(pixels.astype(int) - alone.astype(int)).max()
            self.assertLessEqual(differ, 0, f"at {at_ms} ms")
        return quick.painted, slow.painted

    def without_clips(self, show: Show) -> Show:
        """Clips are decoded in order, which takes its time; they are compared elsewhere."""
        kept = tuple(
            slide
            for slide in perform(show).slides
            if not any(isinstance(mark, ImageMark) and hasattr(mark, "in_ms") for mark in marks_of(slide))
        )
        return msgspec.structs.replace(show, slides=tuple(staged.slide for staged in kept))

    def test_the_demo_in_order_and_with_less_to_paint(self) -> None:
        performance = perform(self.without_clips(orlmere()))
        quick, slow = self.compare(performance, range(0, performance.schedule.length_ms, 120))
        self.assertLess(quick, slow * 0.7)

    def test_every_effect_in_order(self) -> None:
        performance = perform(every_effect())
        self.compare(performance, range(0, performance.schedule.length_ms, 350))

    def test_any_order(self) -> None:
        performance, chance = perform(self.without_clips(orlmere())), random.Random(3)
        self.compare(performance, [chance.random() * performance.schedule.length_ms for _ in range(120)])


def marks_of(staged: object) -> list[object]:
    drawing = staged.drawing  # type: ignore[attr-defined]
    return [*drawing.ground, *(mark for item in drawing.objects for part in item.parts for mark in part.marks)]
