"""What the painter keeps between frames."""

import tempfile
from pathlib import Path

from django.test import SimpleTestCase
from PIL import Image

from ritornel.core.document import AdvanceAfter, Asset, Box, Picture, Show, Slide
from ritornel.core.render.painter import Painter
from ritornel.core.render.pictures import Pictures
from ritornel.core.schedule.performance import frame_state_at_rest, perform


class Few(Pictures):
    """Pictures whose limits are a picture and a half, and three pictures and a half, of 100 × 100 px."""

    KEPT_PIXELS, MOST_PIXELS = 15_000, 35_000


class KeptPicturesTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "brass.png"
        Image.new("RGB", (100, 100), "#b08040").save(self.path)
        self.read: list[str] = []

    def media(self, sha256: str) -> Path:
        self.read.append(sha256[-1])
        return self.path

    def painter(self, *pictures: tuple[str, ...]) -> Painter:
        """For a show with a slide for each group of pictures."""
        slides = tuple(
            Slide(
                f"s{number}",
                objects=tuple(Picture(name, name, Box(0, 0, 50, 50), name) for name in names),
                advance=AdvanceAfter(1000),
            )
            for number, names in enumerate(pictures)
        )
        assets = tuple(
            Asset(name, name, f"{number:064x}", "image/png", 1, 100, 100) for number, name in enumerate("abcdef")
        )
        return Painter(perform(Show("s", "S", slides=slides, assets=assets)), 160, 90, self.media, Few(self.media))

    def paint(self, painter: Painter, index: int) -> None:
        painter.image(frame_state_at_rest(painter.performance, index, 0))

    def test_a_picture_is_read_once_for_all_frames_that_show_it(self) -> None:
        painter = self.painter(("a", "b", "c"))
        for _ in range(3):
            self.paint(painter, 0)
        self.assertEqual(
            self.read, ["0", "1", "2"], "all three are kept, though only one and a half fit where none is shown"
        )

    def test_what_is_no_longer_shown_is_let_go_of_first(self) -> None:
        painter = self.painter(("a", "b"), ("c",), ("b",))
        for index in (0, 1, 2, 1):
            self.paint(painter, index)
        self.assertEqual(self.read, ["0", "1", "2", "1", "2"])

    def test_what_one_frame_shows_is_bounded_too(self) -> None:
        painter = self.painter(tuple("abcdef"))
        self.paint(painter, 0)
        self.paint(painter, 0)
        self.assertEqual(len(self.read), 12, "more than three and a half are read again")

    def test_small_painters_share_small_pictures(self) -> None:
        kept = Pictures(self.media, 40)
        asset = Asset("a", "a", "0" * 64, "image/png", 1, 100, 100)
        self.assertEqual(
            [(kept.image(asset, "a").width(), kept.image(asset, "a").height()) for _ in range(2)], [(40, 40)] * 2
        )
        self.assertEqual(len(self.read), 1)
