import tempfile
from pathlib import Path

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.sound.decoding import decode_sound, keep_in_file
from ritornel.core.sound.tempo import asset_and_rate, at_tempo, sound_key, write_at_tempo
from ritornel.demo.orlmere import MEDIA


def tone(seconds: float, hz: float = 440.0) -> np.ndarray:
    wave = (0.4 * np.sin(np.arange(round(seconds * 48_000)) * 2 * np.pi * hz / 48_000)).astype(np.float32)
    return np.repeat(wave[:, None], 2, axis=1)


def pitch_hz(samples: np.ndarray) -> float:
    """Of a steady tone, by its spectrum's highest line."""
    middle = samples[len(samples) // 4 : len(samples) * 3 // 4, 0]
    return float(np.abs(np.fft.rfft(middle * np.hanning(len(middle)))).argmax()) * 48_000 / len(middle)


class TempoTest(SimpleTestCase):
    def test_at_every_speed_it_lasts_as_it_should_and_keeps_its_pitch(self) -> None:
        whole = tone(4)
        for rate in (25, 40, 75, 150, 400):
            parts = [whole[at : at + 5000] for at in range(0, len(whole), 5000)]
            sped = np.concatenate(list(at_tempo(iter(parts), rate)))
            with self.subTest(rate):
                self.assertAlmostEqual(len(sped) / 48_000, 4 * 100 / rate, delta=0.1)
                self.assertAlmostEqual(pitch_hz(sped), 440, delta=4)

    def test_at_its_own_speed_it_is_the_very_same(self) -> None:
        whole = tone(0.5)
        np.testing.assert_array_equal(np.concatenate(list(at_tempo(iter([whole]), 100))), whole)

    def test_a_file_of_it_is_written_for_browsers(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "fast.flac"
            write_at_tempo(MEDIA / "winders-waltz.ogg", 200, path)
            samples = keep_in_file(decode_sound(path), Path(folder) / "raw", "sound")
            self.assertAlmostEqual(len(samples) / 48_000, 12, delta=0.05)

    @given(st.from_regex(r"[A-Za-z0-9_-]{1,40}", fullmatch=True), st.integers(25, 400))
    def test_a_name_says_which_sound_at_which_speed(self, asset_id: str, rate: int) -> None:
        self.assertEqual(asset_and_rate(sound_key(asset_id, rate)), (asset_id, rate))
