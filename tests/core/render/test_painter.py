"""What the painter keeps between frames."""

import tempfile
from pathlib import Path

import numpy as np
import skia
from django.test import SimpleTestCase
from PIL import Image

from ritornel.core.document import AdvanceAfter, Asset, Box, Picture, Show, Slide
from ritornel.core.render.painter import Painter
from ritornel.core.render.pictures import Pictures
from ritornel.core.schedule.performance import frame_state_at, frame_state_at_rest, perform
from ritornel.demo.orlmere import FILES, MEDIA, media
from tests.kinds import every_effect


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
            Asset(name, name, f"{number:064x}", "image/png", size_bytes=1, width_px=100, height_px=100)
            for number, name in enumerate("abcdef")
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
        asset = Asset("a", "a", "0" * 64, "image/png", size_bytes=1, width_px=100, height_px=100)
        self.assertEqual(
            [(kept.image(asset, "a").width(), kept.image(asset, "a").height()) for _ in range(2)], [(40, 40)] * 2
        )
        self.assertEqual(len(self.read), 1)


class SizeTest(SimpleTestCase):
    """A film of another size than the show's shows the same."""

    def pixels(self, painter: Painter, at_ms: float) -> np.ndarray:
        image = painter.image(frame_state_at(painter.performance, at_ms))
        return image.toarray(colorType=skia.kRGBA_8888_ColorType)[:, :, :3].astype(np.uint8)

    def test_every_effect_and_transition_is_at_a_quarter_of_the_size_what_it_is_at_a_half(self) -> None:
        show = every_effect()
        performance = perform(show)
        paths = {asset.sha256: MEDIA / FILES[asset_id][0] for asset_id, (asset, _) in media().items()}
        sizes = ((640, 360), (320, 180))
        usual, *others = (Painter(performance, *size, paths.__getitem__) for size in sizes)
        for start, slide in zip(performance.schedule.starts_ms, show.slides, strict=True):
            at_ms = start + (slide.transition.lasts_ms or 1200) * 0.35
            small = (160, 90)
            wanted = np.asarray(Image.fromarray(self.pixels(usual, at_ms)).resize(small, Image.Resampling.BOX))
            for painter in others:
                found = Image.fromarray(self.pixels(painter, at_ms)).resize(small, Image.Resampling.BOX)
                off = np.abs(np.asarray(found).astype(int) - wanted.astype(int)).mean()
                self.assertLess(off, 1.5, f"{slide.name} at {painter.width_px} px")
