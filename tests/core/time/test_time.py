from decimal import Decimal
from fractions import Fraction

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.errors import BadValue
from ritornel.core.time import (
    Span,
    clock_text,
    frame_count,
    frame_time_ms,
    parse_clock_ms,
    round_half_up,
    sample_at,
    seconds_text,
    time_text,
)

READ = {
    "12": 12_000,
    "12.5": 12_500,
    "12,5": 12_500,
    "1:12": 72_000,
    "1:12.5": 72_500,
    "1:02:03": 3_723_000,
    "2.5 s": 2500,
    " 0.001 ": 1,
    "0.0005": 1,
    "0.5005": 501,
    "0.00049": 0,
    "0.9995": 1000,
    "0": 0,
    "": None,
    "abc": None,
    "-3": None,
    "1:": None,
    "25:00:00": None,
    "1e3": None,
    "99999999999": None,
    "2.5 m": None,
    "١٢": None,
    "9" * 5000: None,
}
"""What somebody types, and what it means."""
WRITTEN = {
    0: ("0.0", "0:00.0"),
    5000: ("5.0", "0:05.0"),
    1250: ("1.25", "0:01.2"),
    74_499: ("74.499", "1:14.4"),
    3_661_000: ("3661.0", "1:01:01.0"),
    59_999: ("59.999", "0:59.9"),
}


class MillisecondsTest(SimpleTestCase):
    def test_halves_round_upwards_also_below_zero(self) -> None:
        self.assertEqual([round_half_up(Fraction(n, 2)) for n in (-3, -1, 1, 3, 5)], [-1, 0, 1, 2, 3])
        self.assertEqual(round_half_up(Decimal("2.5")), 3)

    def test_clock_times_are_read(self) -> None:
        for text, expected in READ.items():
            with self.subTest(text[:20]):
                if expected is None:
                    with self.assertRaises(BadValue):
                        parse_clock_ms(text)
                else:
                    self.assertEqual(parse_clock_ms(text), expected)

    def test_times_are_written(self) -> None:
        for ms, both in WRITTEN.items():
            self.assertEqual((seconds_text(ms), clock_text(ms)), both)

    def test_a_time_longer_than_a_day_is_told_so(self) -> None:
        with self.assertRaisesMessage(BadValue, "longer than a day"):
            parse_clock_ms("25:00:00")

    @given(st.integers(0, 24 * 3600 * 1000))
    def test_seconds_written_and_read_are_the_same(self, ms: int) -> None:
        self.assertEqual(parse_clock_ms(seconds_text(ms)), ms)

    def test_a_time_in_words_is_exact_and_can_be_typed(self) -> None:
        written = {
            0: "0.0 s",
            10_062: "10.062 s",
            59_999: "59.999 s",
            60_000: "1:00",
            72_500: "1:12.5",
            3_600_000: "1:00:00",
            3_723_040: "1:02:03.04",
        }
        self.assertEqual({ms: time_text(ms) for ms in written}, written)

    @given(st.integers(0, 24 * 3600 * 1000))
    def test_a_time_in_words_reads_as_itself(self, ms: int) -> None:
        self.assertEqual(parse_clock_ms(time_text(ms)), ms)


class EdgesTest(SimpleTestCase):
    def test_frame_n_shows_exactly_1000_n_over_f(self) -> None:
        self.assertEqual(frame_time_ms(1, Fraction(30)), Fraction(100, 3))
        self.assertEqual(frame_time_ms(30, Fraction(30000, 1001)), 1001)

    def test_a_film_has_the_frames_before_its_length(self) -> None:
        self.assertEqual(frame_count(32_400, Fraction(30)), 972)
        self.assertEqual(frame_count(32_401, Fraction(30)), 973)
        self.assertEqual(frame_count(0, Fraction(30)), 0)

    def test_a_film_without_frames_a_second_is_refused(self) -> None:
        with self.assertRaises(BadValue):
            frame_count(1000, Fraction(0))

    def test_sound_starts_at_48_samples_a_millisecond(self) -> None:
        self.assertEqual(sample_at(11_500), 552_000)

    @given(st.integers(1, 10**7), st.sampled_from([24, 25, 30, 50, 60]))
    def test_the_last_frame_is_before_the_end_and_the_next_is_not(self, length: int, rate: int) -> None:
        count = frame_count(length, Fraction(rate))
        self.assertLess(frame_time_ms(count - 1, Fraction(rate)), length)
        self.assertGreaterEqual(frame_time_ms(count, Fraction(rate)), length)


class SpanTest(SimpleTestCase):
    def test_spans_are_half_open(self) -> None:
        span = Span(100, 200)
        self.assertTrue(span.holds(100))
        self.assertFalse(span.holds(200))
        self.assertEqual(span.length_ms, 100)
