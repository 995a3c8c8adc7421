"""Waves in levels of detail."""

import tempfile
import wave
from pathlib import Path
from unittest import mock

import msgspec
import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.errors import BadMedia
from ritornel.core.sound import waveform
from ritornel.core.sound.spoken_level import level_db
from ritornel.core.sound.waveform import ABOUT, LEVELS_PER_S, PeakMeter, Wave, heard_ms, sketch_of, write_wave
from ritornel.demo.orlmere import MEDIA
from tests.footage import footage


def told(folder: Path) -> Wave:
    return msgspec.json.decode((folder / ABOUT).read_bytes(), type=Wave)


class LevelTest(SimpleTestCase):
    def test_a_magnitude_is_told_in_db_of_full_scale_from_minus_60_on(self) -> None:
        for magnitude, db in ((1.0, 0.0), (0.5, -6.02), (0.1, -20.0), (0.0001, -60.0), (0.0, -60.0)):
            self.assertAlmostEqual(level_db(magnitude), db, places=2)


class PeakMeterTest(SimpleTestCase):
    def test_a_magnitude_is_a_byte_and_full_scale_is_255(self) -> None:
        pairs = np.array([[0, 0], [0.25, -0.1], [-0.7, 0.2], [0.1, 1.0], [-1.6, 0]], np.float32)
        self.assertEqual(waveform._bytes_of(pairs).tolist(), [0, 64, 178, 255, 255])

    @given(st.lists(st.integers(0, 9000), min_size=1, max_size=8), st.sampled_from(LEVELS_PER_S))
    def test_pieces_of_any_length_give_the_peaks_of_the_whole(self, lengths: list[int], per_s: int) -> None:
        magnitudes = np.random.default_rng(3).integers(0, 256, sum(lengths)).astype(np.uint8)
        meter, found, at = PeakMeter(per_s), b"", 0
        for length in lengths:
            found += meter.take(magnitudes[at : at + length])
            at += length
        found += meter.end()
        size = 48_000 // per_s
        self.assertEqual(list(found), [int(magnitudes[n : n + size].max()) for n in range(0, len(magnitudes), size)])


class WaveTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def sound(self, seconds: int, loud: int = 1) -> Path:
        """Quiet, but for some loud seconds from its middle on, in mono at 8 kHz."""
        samples = np.full(seconds * 8000, 500, dtype="<i2")
        samples[seconds * 4000 : seconds * 4000 + 8000 * loud] = 30_000
        path = self.folder / "bell.wav"
        with wave.open(str(path), "wb") as out:
            out.setnchannels(1)
            out.setsampwidth(2)
            out.setframerate(8000)
            out.writeframes(samples.tobytes())
        return path

    def test_every_level_tells_of_the_whole_sound(self) -> None:
        write_wave(MEDIA / "winders-waltz.ogg", 24_000, self.folder / "wave")
        about = told(self.folder / "wave")
        self.assertEqual((about.whole, about.lasts_ms, about.done_ms), (True, 24_000, 24_000))
        levels = {per_s: (self.folder / "wave" / f"{per_s}.u8").read_bytes() for per_s in LEVELS_PER_S}
        self.assertEqual({per_s: len(peaks) for per_s, peaks in levels.items()}, {2: 48, 25: 600, 200: 4800})
        self.assertEqual(max(levels[2]), max(levels[200]), "the loudest is the loudest on all of them")

    def test_a_long_sound_is_sketched_before_it_is_read(self) -> None:
        sketch = sketch_of(self.sound(240, loud=12), 240_000, 48)
        self.assertEqual(len(sketch), 48)
        self.assertGreater(max(sketch[24:26]), 200)
        self.assertLess(max(sketch[:20]), 10)

    def test_it_is_sketched_in_the_middle_of_each_place(self) -> None:
        # Loud from 60 to 90 s of 120 s: the middles of four places lie at 15, 45, 75 and 105 s.
        self.assertEqual(
            [peak > 200 for peak in sketch_of(self.sound(120, loud=30), 120_000, 4)], [False, False, True, False]
        )

    def test_what_is_done_is_told_while_it_is_read(self) -> None:
        with mock.patch.object(waveform, "_tell", wraps=waveform._tell) as tell:
            write_wave(self.sound(150), 150_000, self.folder / "wave")
        seen = [call.args[1] for call in tell.call_args_list]
        self.assertEqual([about.done_ms // 1000 for about in seen], [0, 60, 120, 150, 150])
        self.assertTrue(seen[0].sketch)
        for heard, meant in zip(seen[-1].heard_ms, (75_000 - 80, 76_000 + 80), strict=True):
            self.assertAlmostEqual(heard, meant, delta=40, msg="to a peak")

    def test_a_file_without_sound_is_told(self) -> None:
        path = self.folder / "silent.mp4"
        path.write_bytes(footage(sound=False))
        with self.assertRaisesMessage(BadMedia, "has no sound in it"):
            write_wave(path, 1000, self.folder / "wave")


class SilenceTest(SimpleTestCase):
    def test_silence_at_the_ends_is_found_but_for_a_breath(self) -> None:
        self.assertEqual(heard_ms([0] * 25 + [200] * 50 + [1] * 25, 4000), (920, 3080))
        self.assertEqual(heard_ms([200] * 100, 4000), (0, 4000))

    def test_what_is_silent_throughout_is_left_whole(self) -> None:
        self.assertEqual(heard_ms([0] * 100, 4000), (0, 4000))
        self.assertEqual(heard_ms([], 0), (0, 0))
