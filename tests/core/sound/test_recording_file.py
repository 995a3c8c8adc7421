"""Raw recordings: how long they are, and their peaks."""

import tempfile
from pathlib import Path

import numpy as np
from django.test import SimpleTestCase

from ritornel.core.sound.recording_file import PEAK_SAMPLES, peaks_from, recorded_ms


class LengthTest(SimpleTestCase):
    def test_96_000_bytes_are_a_second_and_half_a_sample_is_none(self) -> None:
        self.assertEqual([recorded_ms(size) for size in (96_000, 96_001, 95, 96, 1, 0)], [1000, 1000, 0, 1, 0, 0])


class PeaksTest(SimpleTestCase):
    def peaks(self, samples: np.ndarray, first: int = 0) -> list[int]:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "raw"
            path.write_bytes(samples.astype("<i2").tobytes())
            return list(peaks_from(path, first))

    def test_silence_has_none_and_the_loudest_sample_of_each_part_is_told(self) -> None:
        samples = np.zeros(3 * PEAK_SAMPLES)
        samples[PEAK_SAMPLES + 7], samples[PEAK_SAMPLES + 9] = -32_768, 16_384
        samples[2 * PEAK_SAMPLES] = 16_384
        self.assertEqual(self.peaks(samples), [0, 255, 127])

    def test_a_part_that_is_not_full_is_left_out_and_those_before_the_first_too(self) -> None:
        samples = np.repeat([1000, 2000, 3000], PEAK_SAMPLES)[: 3 * PEAK_SAMPLES - 1]
        self.assertEqual(self.peaks(samples), [7, 15])
        self.assertEqual(self.peaks(samples, 1), [15])
