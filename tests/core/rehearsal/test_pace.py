from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.rehearsal.pace import ends_after_ms, pace_words, slip_ms, slot_words

SLIPS = [
    [6000, 10800, 3000, 11000, 2000],
    [6000, 10800, 12000, 20000, 3200],
    [6000, 10800, 0, 1700, -4300],
    [0, 6000, 1000, 1000, 0],
    [0, 0, 500, 500, 500],
]
WORDS = [
    [0, "On tempo"],
    [1499, "On tempo"],
    [-1499, "On tempo"],
    [1500, "0:01 behind plan"],
    [-4300, "0:04 ahead of plan"],
    [65999, "1:05 behind plan"],
    [-600000, "10:00 ahead of plan"],
]
ENDS = [
    [60000, 6000, 10000, 3000, 9000, 60000],
    [60000, 6000, 10000, 12000, 18000, 62000],
    [60000, 6000, 10000, 1000, 4000, 57000],
]
SLOTS = [
    [890000, "in 14:50"],
    [120999, "in 2:00"],
    [120000, "2:00 left"],
    [59999, "0:59 left"],
    [0, "0:00 left"],
    [-1, "0:00 over"],
    [-30000, "0:30 over"],
]
TIMES = st.integers(0, 10**6)


class PaceTest(SimpleTestCase):
    def test_slips_are_as_worked_out(self) -> None:
        for *given_times, expected in SLIPS:
            self.assertEqual(slip_ms(*given_times), expected)

    def test_words_are_as_worked_out(self) -> None:
        for slip, words in WORDS:
            self.assertEqual(pace_words(slip), words)

    def test_the_end_of_the_run_and_of_the_slot_are_as_worked_out(self) -> None:
        for *given_times, expected in ENDS:
            self.assertEqual(ends_after_ms(*given_times), expected)
        for left, words in SLOTS:
            self.assertEqual(slot_words(left), words)

    @given(TIMES, TIMES, TIMES, TIMES, TIMES)
    def test_staying_on_a_slide_never_makes_up_time(
        self, start: int, length: int, on_slide: int, elapsed: int, longer: int
    ) -> None:
        self.assertGreaterEqual(
            slip_ms(start, length, on_slide + longer, elapsed + longer), slip_ms(start, length, on_slide, elapsed)
        )

    @given(TIMES, TIMES, TIMES)
    def test_within_its_planned_length_a_slide_keeps_its_slip(self, start: int, length: int, late: int) -> None:
        self.assertEqual(slip_ms(start, length, length // 2, start + late + length // 2), late)
