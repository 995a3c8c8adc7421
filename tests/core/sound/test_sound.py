import itertools
import tempfile
from pathlib import Path

import msgspec
import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import ShowEnd
from ritornel.core.errors import BadMedia
from ritornel.core.schedule import compile_show
from ritornel.core.schedule.music import compile_music
from ritornel.core.sound.decoding import decode_sound, keep_in_file
from ritornel.core.sound.ducking import duck_points, level_at
from ritornel.core.sound.events import SoundTime
from ritornel.core.sound.gain import fade_gain, gain_of
from ritornel.core.sound.mixing import mix_block
from ritornel.core.sound.passes import MusicTime
from ritornel.core.time.spans import Span
from ritornel.demo.orlmere import MEDIA
from tests.examples import example_a, with_music

ONES = np.ones((12 * 48_000, 2), dtype=np.float32)


def span(**more: object) -> tuple[MusicTime, ...]:
    show = with_music(example_a(), end=ShowEnd(), **more)
    return compile_music(show, compile_show(show))[0]


class GainTest(SimpleTestCase):
    def test_levels_in_db(self) -> None:
        self.assertAlmostEqual(gain_of(-20), 0.1)
        self.assertEqual(gain_of(0), 1)

    def test_an_equal_power_fade_in_and_out_keep_the_power(self) -> None:
        """Of two sounds that cross over 100 samples; half-way each is at sin(45°)."""
        comes, goes = fade_gain(0, 100, 0, 1000, 100, 0), fade_gain(0, 100, -900, 100, 0, 100)
        self.assertTrue(np.allclose(comes**2 + goes**2, 1))
        self.assertAlmostEqual(float(comes[50]), 0.5**0.5, places=6)

    def test_nothing_sounds_before_the_start_or_from_the_end_on(self) -> None:
        gain = fade_gain(0, 10, 3, 7, 0, 0)
        self.assertEqual(gain.tolist(), [0, 0, 0, 1, 1, 1, 1, 0, 0, 0])


class MixTest(SimpleTestCase):
    def test_a_crossfade_of_equal_sounds_has_its_middle_at_twice_the_half_power(self) -> None:
        out = mix_block(span(crossfade_ms=500), {"waltz": ONES}, 0, 13 * 48_000)
        middle = round(11.75 * 48_000)
        self.assertAlmostEqual(float(out[middle, 0]), 2 * np.sqrt(0.5), places=3)
        self.assertAlmostEqual(float(out[11 * 48_000, 0]), 1, places=6)

    def test_blocks_of_any_size_make_the_same_mix(self) -> None:
        music = span(crossfade_ms=500, fade_in_ms=1000, fade_out_ms=2000, gain_db=-6.0)
        noise = np.random.default_rng(1).standard_normal(ONES.shape).astype(np.float32)
        total = 32_400 * 48
        whole = mix_block(music, {"waltz": noise}, 0, total)
        parts = [
            mix_block(music, {"waltz": noise}, first, min(77_777, total - first)) for first in range(0, total, 77_777)
        ]
        np.testing.assert_allclose(np.concatenate(parts), whole, atol=1e-6)
        self.assertEqual(float(np.abs(whole[-1]).max()) < 0.01, True)

    def test_a_pass_starts_at_its_very_sample(self) -> None:
        ticks = np.zeros_like(ONES)
        ticks[0] = 1
        out = mix_block(span(), {"waltz": ticks}, 0, 32_400 * 48)
        self.assertEqual(np.flatnonzero(out[:, 0]).tolist(), [0, 576_000, 1_152_000])

    def test_nothing_sounds_past_the_end_of_the_show(self) -> None:
        self.assertEqual(float(np.abs(mix_block(span(), {"waltz": ONES}, 32_400 * 48, 1000)).max()), 0)


class FilesTest(SimpleTestCase):
    def test_a_sound_decodes_to_stereo_at_48_khz(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            samples = keep_in_file(decode_sound(MEDIA / "winders-waltz.ogg"), Path(folder) / "x.raw", "sound")
            self.assertEqual(samples.shape, (24 * 48_000, 2))

    def test_a_picture_is_not_a_sound(self) -> None:
        with tempfile.TemporaryDirectory() as folder, self.assertRaises(BadMedia):
            keep_in_file(decode_sound(MEDIA / "bell.jpg"), Path(folder) / "x.raw", "sound")


class DuckingTest(SimpleTestCase):
    def test_music_sinks_before_a_voice_and_rises_after_it_straight_in_db(self) -> None:
        points = duck_points([Span(5000, 8000)], 0, 20_000, 9.0)
        self.assertEqual(points, ((0, 0.0), (4700, 0.0), (5000, -9.0), (8000, -9.0), (8600, 0.0), (20_000, 0.0)))
        self.assertEqual([level_at(points, ms) for ms in (4000, 4850, 6000, 8300, 9000)], [0.0, -4.5, -9.0, -4.5, 0.0])

    def test_gaps_under_900_ms_are_bridged_and_the_ends_keep_their_level(self) -> None:
        near = duck_points([Span(1000, 2000), Span(2899, 4000)], 0, 9000, 6.0)
        self.assertEqual(near, ((0, 0.0), (700, 0.0), (1000, -6.0), (4000, -6.0), (4600, 0.0), (9000, 0.0)))
        far = duck_points([Span(1000, 2000), Span(2900, 4000)], 0, 9000, 6.0)
        self.assertEqual(level_at(far, 2600), 0.0)
        cut = duck_points([Span(1000, 2000)], 1500, 2300, 6.0)
        self.assertEqual(cut, ((1500, -6.0), (2000, -6.0), (2300, -3.0)))
        self.assertEqual(duck_points([Span(1000, 2000)], 5000, 9000, 6.0), ())

    @given(
        st.lists(st.tuples(st.integers(0, 30_000), st.integers(1, 9000))),
        st.integers(0, 20_000),
        st.integers(1, 20_000),
    )
    def test_it_is_down_wherever_somebody_speaks_and_never_jumps(
        self, voices: list[tuple[int, int]], start: int, length: int
    ) -> None:
        spans = [Span(at, at + lasts) for at, lasts in voices]
        points = duck_points(spans, start, start + length, 9.0)
        self.assertEqual([ms for ms, _ in points], sorted({ms for ms, _ in points}))
        for span in spans:
            for at in (span.start_ms, (span.start_ms + span.end_ms) // 2):
                if start <= at <= start + length:
                    self.assertEqual(level_at(points, at), -9.0)
        for (one, low), (other, high) in itertools.pairwise(points):
            self.assertLessEqual(abs(high - low) / (other - one), 9.0 / 300 + 1e-9)

    def test_the_mix_follows_it_and_a_voice_starts_on_its_sample(self) -> None:
        music = (
            msgspec.structs.replace(span(crossfade_ms=0)[0], ducking=duck_points([Span(2000, 3000)], 0, 32_400, 6.0)),
        )
        voice = SoundTime(
            id="v", asset_id="voice", start_ms=2000, in_ms=500, lasts_ms=1000, gain_db=-6.0206, index=0, offset_ms=2000
        )
        sounds = {"waltz": ONES, "voice": ONES * np.float32(0.5)}
        alone = mix_block(music, sounds, 0, 5 * 48_000)[:, 0]
        both = mix_block(music, sounds, 0, 5 * 48_000, (voice,))[:, 0]
        self.assertAlmostEqual(float(20 * np.log10(alone[round(1.85 * 48_000)])), -3.0, places=2)
        self.assertAlmostEqual(float(alone[round(2.5 * 48_000)]), gain_of(-6.0), places=5)
        spoken = both - alone
        self.assertEqual((float(np.abs(spoken[:96_000]).max()), float(np.abs(spoken[144_000:]).max())), (0.0, 0.0))
        self.assertAlmostEqual(float(spoken[120_000]), 0.25, places=4)
