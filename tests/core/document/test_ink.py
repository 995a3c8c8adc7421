import numpy as np
import skia
from django.test import SimpleTestCase

from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.ink import INKS, InkStroke, erase_strokes
from ritornel.core.errors import RitornelError
from ritornel.core.rehearsal.take import Arrived, Take
from ritornel.core.render.ink import drawn_pictures, paint_strokes
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import orlmere
from tests.core.render.test_film import media


class DrawingTest(SimpleTestCase):
    def test_what_is_touched_is_rubbed_out_whole(self) -> None:
        across, dot = InkStroke("plum", ((0, 0), (100, 0))), InkStroke("slate", ((50, 90),))
        self.assertEqual(erase_strokes((across, dot), 50, 16, 16), (dot,))
        self.assertEqual(erase_strokes((across, dot), 50, 16.1, 16), (across, dot))
        self.assertEqual(erase_strokes((across, dot), 50, 80, 16), (across,))

    def test_inks_differ_by_more_than_colour(self) -> None:
        self.assertEqual(len({(ink.width_px, ink.dash_px) for ink in INKS.values()}), len(INKS))

    def test_a_stroke_is_painted_with_its_edge(self) -> None:
        surface = skia.Surface(100, 40)
        with surface as canvas:
            canvas.clear(skia.ColorWHITE)
            paint_strokes(canvas, (InkStroke("slate", ((10, 20), (90, 20))),))
        pixels = surface.makeImageSnapshot().toarray(colorType=skia.kRGBA_8888_ColorType)
        self.assertEqual(pixels[20, 50, :3].tolist(), [0x16, 0x26, 0x2E])
        self.assertEqual(pixels[35, 50, :3].tolist(), [255, 255, 255])

    def test_only_slides_that_were_drawn_on_become_pictures(self) -> None:
        performance = perform(orlmere())
        drawings = {"esc-s": (InkStroke("plum", ((100, 100), (900, 600))),), "gone": (InkStroke("plum", ((0, 0),)),)}
        [(name, png)] = list(drawn_pictures(performance, drawings, 640, 360, media))
        self.assertEqual(name, "03 The escapement.png")
        plain = dict(drawn_pictures(performance, {"esc-s": (InkStroke("plum", ((-500, -500),)),)}, 640, 360, media))[
            name
        ]
        read = lambda data: skia.Image.MakeFromEncoded(skia.Data.MakeWithCopy(data)).toarray()  # noqa: E731
        self.assertGreater(int((np.abs(read(png).astype(int) - read(plain)) > 30).any(axis=2).sum()), 1500)

    def test_a_take_keeps_its_drawings_and_refuses_an_ink_that_is_none(self) -> None:
        take = Take((Arrived("a", 0),), 100, {"a": (InkStroke("chalk", ((1, 2),)),)})
        self.assertEqual(from_json(to_json(take), Take, "The take"), take)
        self.assertEqual(
            from_json(b'{"events": [], "ended_ms": 5}', Take, "The take").drawings, {}, "takes of before have none"
        )
        with self.assertRaisesRegex(RitornelError, "drawings"):
            from_json(to_json(take).replace(b"chalk", b"mud"), Take, "The take")
