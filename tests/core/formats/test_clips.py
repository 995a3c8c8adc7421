import io
import tempfile
from pathlib import Path

import av
import numpy as np
from django.test import SimpleTestCase

from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Limits, Medium, probe_medium
from ritornel.core.render.footage import ClipReader, turn_upright
from tests.footage import HEIGHT, ROUND, WIDTH, footage, number_of


def came_in(data: bytes, name: str = "pendulum.mp4") -> Medium:
    return probe_medium(data, name, Limits())


class ExaminedTest(SimpleTestCase):
    def test_a_clip_is_told_by_its_content_with_size_length_and_loudness(self) -> None:
        medium = came_in(footage(90), "pendulum.txt")
        self.assertEqual(
            (medium.media_type, medium.width_px, medium.height_px, medium.lasts_ms, medium.silent),
            ("video/mp4", WIDTH, HEIGHT, 3000, False),
        )
        self.assertAlmostEqual(medium.loudness_lufs or 0, -12.7, delta=0.5)
        webm = came_in(footage(30, codec="libvpx-vp9"))
        self.assertEqual((webm.media_type, webm.lasts_ms), ("video/webm", 1000))

    def test_one_without_sound_comes_in_and_says_so(self) -> None:
        medium = came_in(footage(30, sound=False))
        self.assertEqual((medium.silent, medium.notes), (True, ("“pendulum.mp4” has no sound.",)))

    def test_a_varying_rate_and_odd_sizes_come_in_as_they_are(self) -> None:
        times = [0, 10, 300, 320, 900]
        medium = came_in(footage(5, times=times, width=65, height=49, pix_fmt="yuv444p", sound=False))
        self.assertEqual((medium.width_px, medium.height_px), (65, 49))
        self.assertGreaterEqual(medium.lasts_ms, 900)

    def test_a_wrong_length_in_its_header_is_not_believed(self) -> None:
        data = bytearray(footage(60, sound=False))
        at = data.find(b"mvhd") + 4 + 4 + 8 + 4
        data[at : at + 4] = (999_999).to_bytes(4, "big")
        self.assertEqual(came_in(bytes(data)).lasts_ms, 2000)

    def test_what_browsers_do_not_show_comes_in_and_they_get_a_lighter_copy(self) -> None:
        out = io.BytesIO()
        with av.open(out, "w", format="mp4") as container:
            stream = container.add_stream("mpeg4", rate=25)
            stream.width, stream.height, stream.pix_fmt = WIDTH, HEIGHT, "yuv420p"
            container.mux(
                stream.encode(av.VideoFrame.from_ndarray(np.zeros((HEIGHT, WIDTH, 3), dtype=np.uint8), format="rgb24"))
            )
            container.mux(stream.encode(None))
        medium = came_in(out.getvalue())
        self.assertTrue(medium.heavy)
        self.assertIn(
            "“pendulum.mp4” is in MPEG4, which browsers do not show: they get a lighter copy", medium.notes[-1]
        )

    def test_a_clip_larger_than_a_screen_is_heavy_and_a_small_one_is_not(self) -> None:
        self.assertFalse(came_in(footage(10)).heavy)
        self.assertTrue(came_in(footage(3, width=2000, height=64)).heavy)

    def test_a_file_that_was_cut_off(self) -> None:
        data = footage(90, codec="libvpx-vp9")
        medium = came_in(data[: len(data) * 2 // 3], "cut.webm")
        self.assertLess(medium.lasts_ms, 3000)
        with self.assertRaises(BadMedia) as told:
            came_in(footage(90)[:2000], "cut.mp4")
        self.assertIn("“cut.mp4”", str(told.exception))


class FootageTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "clip.mp4"
        self.path.write_bytes(footage(90, sound=False))

    def number_at(self, clip: ClipReader, at_ms: float) -> int:
        return number_of(clip.frame_at(at_ms))

    def test_every_instant_shows_its_own_picture_in_whatever_order_it_is_asked(self) -> None:
        with ClipReader(self.path, "clip") as clip:
            for at_ms, number in (
                (0, 0),
                (33.4, 1),
                (66, 1),
                (67, 2),
                (2000, 60),
                (1999, 59),
                (500, 15),
                (2966, 88),
                (2967, 89),
                (5000, 89),
                (0, 0),
            ):
                self.assertEqual(self.number_at(clip, at_ms), number % ROUND, at_ms)

    def test_the_last_picture_is_the_last_before_the_out_point(self) -> None:
        with ClipReader(self.path, "clip") as clip:
            self.assertEqual(self.number_at(clip, 2000 - 1), 59 % ROUND)

    def test_pictures_taken_with_the_camera_turned_stand_upright(self) -> None:
        pixels = np.zeros((2, 3, 4), dtype=np.uint8)
        pixels[0, 0] = 255
        self.assertEqual(turn_upright(pixels, 90).shape, (3, 2, 4))
        self.assertEqual(turn_upright(pixels, 180)[1, 2, 0], 255)

    def test_a_missing_file_is_told(self) -> None:
        with self.assertRaises(BadMedia) as told:
            ClipReader(Path("/nowhere.mp4"), "The pendulum")
        self.assertIn("The clip “The pendulum” is missing", str(told.exception))
