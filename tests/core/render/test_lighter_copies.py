import tempfile
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from django.test import SimpleTestCase

from ritornel.core.errors import BadMedia
from ritornel.core.render.lighter_copies import write_lighter
from tests.footage import ROUND, footage, number_of


class LighterTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.source, self.target = Path(folder.name) / "clip.mp4", Path(folder.name) / "light.mp4"

    def lighter(self, data: bytes) -> tuple[list[int], list[Fraction], tuple[int, int]]:
        """The numbers and times of its pictures, and its size."""
        self.source.write_bytes(data)
        write_lighter(self.source, self.target)
        with av.open(str(self.target)) as container:
            stream = container.streams.video[0]
            self.assertEqual(stream.codec_context.name, "h264")
            frames = list(container.decode(stream))
        return (
            [number_of(frame) for frame in frames],
            [Fraction(frame.pts) * frame.time_base for frame in frames],
            (frames[0].width, frames[0].height),
        )

    def test_every_picture_is_there_at_its_own_time(self) -> None:
        numbers, times, size = self.lighter(footage(60, codec="libvpx-vp9"))
        self.assertEqual(numbers, [n % ROUND for n in range(60)])
        for number, at in enumerate(times):
            self.assertAlmostEqual(float(at), number / 30, delta=0.001)
        self.assertEqual(size, (64, 48))

    def test_a_rate_that_varies_is_kept(self) -> None:
        _, times, _ = self.lighter(footage(5, times=[0, 40, 100, 500, 520]))
        self.assertEqual([round(at * 1000) for at in times], [0, 40, 100, 500, 520])

    def test_it_is_at_most_1280_px_wide_and_even(self) -> None:
        _, _, size = self.lighter(footage(2, width=2560, height=98))
        self.assertEqual(size, (1280, 50))

    def test_its_sound_is_where_it_was(self) -> None:
        self.lighter(footage(60))
        with av.open(str(self.target)) as container:
            sound = np.concatenate([frame.to_ndarray()[0] for frame in container.decode(audio=0)])
        self.assertAlmostEqual(len(sound) / 48_000, 2, delta=0.06)
        self.assertGreater(float(np.abs(sound).max()), 0.2)

    def test_what_has_no_picture_is_told(self) -> None:
        with self.assertRaises((BadMedia, av.FFmpegError)):
            self.lighter(footage(30)[:3000])
