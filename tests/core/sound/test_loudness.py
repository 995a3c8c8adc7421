import math

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.sound.gain import Samples, gain_of
from ritornel.core.sound.loudness import LoudnessMeter, true_peak_db
from ritornel.core.sound.mastering import CEILING_DBTP, CONTEXT, MARGIN_DB, Master, master_block, master_of

RATE = 48_000


def tone(level_db: float, seconds: float, hz: float = 1000.0, phase: float = 0.0) -> Samples:
    wave = gain_of(level_db) * np.sin(2 * np.pi * hz * np.arange(round(seconds * RATE)) / RATE + phase)
    return np.repeat(wave[:, None], 2, axis=1).astype(np.float32)


def loudness(*parts: Samples) -> float:
    meter = LoudnessMeter()
    for part in parts:
        meter.take(part)
    return meter.integrated_lufs()


class LoudnessTest(SimpleTestCase):
    """Signals and values of EBU Tech 3341, which tests meters of BS.1770; its tolerance is 0.1 LU."""

    def test_a_stereo_tone_of_1_khz_has_the_loudness_of_its_level(self) -> None:
        self.assertAlmostEqual(loudness(tone(-23.0, 20)), -23.0, delta=0.1)
        self.assertAlmostEqual(loudness(tone(-33.0, 20)), -33.0, delta=0.1)

    def test_quiet_stretches_are_gated_out(self) -> None:
        self.assertAlmostEqual(loudness(tone(-36.0, 10), tone(-23.0, 60), tone(-36.0, 10)), -23.0, delta=0.1)
        self.assertAlmostEqual(
            loudness(tone(-72.0, 10), tone(-36.0, 10), tone(-23.0, 60), tone(-36.0, 10), tone(-72.0, 10)),
            -23.0,
            delta=0.1,
        )
        self.assertAlmostEqual(loudness(tone(-26.0, 20), tone(-20.0, 20.1), tone(-26.0, 20)), -23.0, delta=0.1)

    def test_it_is_the_same_in_whatever_pieces_it_is_taken_in(self) -> None:
        whole = np.concatenate([tone(-20.0, 3, 300), tone(-30.0, 2, 5000)])
        pieces = np.split(whole, [7, 4801, 100_000, 200_001])
        self.assertAlmostEqual(loudness(*pieces), loudness(whole), places=9)

    def test_what_is_below_minus_70_lufs_is_silence(self) -> None:
        self.assertAlmostEqual(loudness(tone(-69.8, 5)), -69.8, delta=0.1)
        self.assertEqual(loudness(tone(-70.4, 5)), -math.inf)

    def test_silence_and_moments_have_none(self) -> None:
        self.assertEqual(true_peak_db(np.zeros((RATE, 2), np.float32)), -math.inf)
        self.assertEqual(loudness(np.zeros((RATE, 2), np.float32)), -math.inf)
        self.assertEqual(loudness(tone(-10, 0.3)), -math.inf)

    def test_a_true_peak_lies_between_the_samples(self) -> None:
        wave = tone(-6.0206, 0.5, RATE / 4, math.pi / 4)
        self.assertAlmostEqual(20 * math.log10(float(np.abs(wave).max())), -9.03, places=1)
        # BS.1770 lets a meter read 0.8 dB under and 0.2 dB over.
        self.assertTrue(-6.82 < true_peak_db(wave[2000:-2000]) < -5.82)


class MasteringTest(SimpleTestCase):
    def published(self, mix: Samples) -> tuple[Samples, Master]:
        def read(first: int, count: int) -> Samples:
            return mix[first : first + count]

        master = master_of(read, len(mix))
        return master_block(read, master, 0, len(mix), len(mix)), master

    def test_a_mix_lands_at_minus_16_lufs(self) -> None:
        for level in (-40.0, -23.0, -10.0):
            out, master = self.published(np.concatenate([tone(level, 8, 220), tone(level - 4, 8, 440)]))
            self.assertAlmostEqual(loudness(out), -16.0, delta=0.2)
            self.assertLessEqual(true_peak_db(out), CEILING_DBTP)
            self.assertFalse(master.limits)

    def test_peaks_are_limited_and_the_loudness_is_kept(self) -> None:
        chance = np.random.default_rng(4)
        speech = (chance.standard_normal((12 * RATE, 2)) * 0.02).astype(np.float32)
        speech[:: RATE // 2] = 0.95
        out, master = self.published(speech)
        self.assertTrue(master.limits)
        self.assertAlmostEqual(loudness(out), -16.0, delta=0.5)
        self.assertLessEqual(true_peak_db(out), CEILING_DBTP)

    def test_room_for_the_codec_lowers_the_ceiling_by_as_much(self) -> None:
        chance = np.random.default_rng(4)
        speech = (chance.standard_normal((6 * RATE, 2)) * 0.02).astype(np.float32)
        speech[:: RATE // 2] = 0.95
        master = Master(gain_db=6.0, limits=True, room_db=3.0)
        out = master_block(lambda first, count: speech[first : first + count], master, 0, len(speech), len(speech))
        ceiling_dbtp = CEILING_DBTP - 3.0
        self.assertTrue(ceiling_dbtp - 2 * MARGIN_DB <= true_peak_db(out) <= ceiling_dbtp, true_peak_db(out))

    def test_a_mix_that_can_hardly_be_heard_is_raised_by_30_db_at_most(self) -> None:
        faint = tone(-60.0, 8, 220)
        _, master = self.published(faint)
        self.assertEqual(master.gain_db, 30.0)
        self.assertAlmostEqual(master.reached_lufs, loudness(faint) + 30.0, places=3)

    def test_silence_stays_silence(self) -> None:
        out, master = self.published(np.zeros((RATE, 2), np.float32))
        self.assertEqual(float(np.abs(out).max()), 0.0)
        self.assertEqual((master.gain_db, master.limits, master.room_db), (0.0, False, 0.0))

    @given(st.lists(st.integers(1, 3 * CONTEXT), min_size=1, max_size=6))
    def test_any_block_comes_out_as_in_the_whole(self, cuts: list[int]) -> None:
        chance = np.random.default_rng(sum(cuts))
        mix = (chance.standard_normal((sum(cuts), 2)) * 0.4).astype(np.float32)
        master = Master(6.0, True)

        def read(first: int, count: int) -> Samples:
            return mix[first : first + count]

        whole = master_block(read, master, 0, len(mix), len(mix))
        at = 0
        for count in cuts:
            part = master_block(read, master, at, count, len(mix))
            self.assertLess(float(np.abs(part - whole[at : at + count]).max()), 2e-4)
            at += count
