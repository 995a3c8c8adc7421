from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.reference.pace import ends_after_ms, pace_words, parse_slot, slip_ms, slot_words

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

    def test_the_end_of_a_slot_is_typed_as_a_length_or_as_a_time_of_day(self) -> None:
        two = 14 * 60
        for words, left in (
            ("20 min", 20),
            ("45", 45),
            ("1 h 30", 90),
            ("2 hours 5 min", 125),
            ("14:25", 25),
            ("14.25", 25),
            ("2:25 pm", 25),
            ("13:50", -10),
            ("0:30", 630),
        ):
            self.assertEqual(parse_slot(words, two), left, words)
        self.assertEqual(parse_slot("0:10", 23 * 60 + 50), 20, "past midnight")
        self.assertEqual((parse_slot("12 am", 30), parse_slot("12:30 pm", 12 * 60)), (-30, 30))
        for words in ("", "soon", "24:00", "12:60", "13 pm", "0", "1000"):
            self.assertIsNone(parse_slot(words, two), words)

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
