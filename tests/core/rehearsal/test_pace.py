import json
from pathlib import Path

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.rehearsal.pace import ends_after_ms, pace_words, slip_ms, slot_words

VECTORS = json.loads((Path(__file__).parents[2] / "vectors" / "pace.json").read_text())
TIMES = st.integers(0, 10**6)


class PaceTest(SimpleTestCase):
    def test_slips_are_those_of_the_vectors(self) -> None:
        for *given_times, expected in VECTORS["slips"]:
            self.assertEqual(slip_ms(*given_times), expected)

    def test_words_are_those_of_the_vectors(self) -> None:
        for slip, words in VECTORS["words"]:
            self.assertEqual(pace_words(slip), words)

    def test_the_end_of_the_run_and_of_the_slot_are_those_of_the_vectors(self) -> None:
        for *given_times, expected in VECTORS["ends"]:
            self.assertEqual(ends_after_ms(*given_times), expected)
        for left, words in VECTORS["slots"]:
            self.assertEqual(slot_words(left), words)

    @given(TIMES, TIMES, TIMES, TIMES, TIMES)
    def test_staying_on_a_slide_never_makes_up_time(self, start: int, length: int, on_slide: int, elapsed: int, longer: int) -> None:
        self.assertGreaterEqual(slip_ms(start, length, on_slide + longer, elapsed + longer), slip_ms(start, length, on_slide, elapsed))

    @given(TIMES, TIMES, TIMES)
    def test_within_its_planned_length_a_slide_keeps_its_slip(self, start: int, length: int, late: int) -> None:
        self.assertEqual(slip_ms(start, length, length // 2, start + late + length // 2), late)
