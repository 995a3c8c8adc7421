import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document.edits import apply_edit
from ritornel.core.rehearsal.compare import apply_timing, compare_takes, median_timing, spread_of, timing_for
from ritornel.core.rehearsal.take import TakeTiming
from ritornel.core.schedule.show_schedule import compile_show
from tests.examples import example_a


class SpreadTest(SimpleTestCase):
    def test_the_median_of_an_even_number_is_the_mean_of_the_middle_two_rounded_half_up(self) -> None:
        found = spread_of([1000, 2001])
        assert found is not None
        self.assertEqual((found.least_ms, found.median_ms, found.greatest_ms), (1000, 1501, 2001))
        self.assertIsNone(spread_of([None, None]))

    @given(st.lists(st.integers(0, 10**6), min_size=1, max_size=9))
    def test_the_median_lies_between_least_and_greatest(self, times: list[int]) -> None:
        found = spread_of(times)
        assert found is not None
        self.assertTrue(found.least_ms <= found.median_ms <= found.greatest_ms)
        self.assertEqual((found.least_ms, found.greatest_ms), (min(times), max(times)))


class CompareTest(SimpleTestCase):
    def setUp(self) -> None:
        self.show = example_a()
        self.schedule = compile_show(self.show)
        self.slides = [slide.id for slide in self.show.slides]
        self.cues = [beat.wait.cue_id for slide in self.schedule.slides for beat in slide.beats[1:] if beat.wait]

    def timing(self, *times: int, holds: int = 0) -> TakeTiming:
        return TakeTiming(dict(zip(self.slides, times, strict=False)), {self.cues[0]: holds} if holds else {})

    def test_each_slide_and_each_wait_has_a_median_and_a_spread_of_its_own(self) -> None:
        lines = compare_takes(
            self.show,
            self.schedule,
            [self.timing(6000, 9000, holds=500), self.timing(7000, 8000, holds=1500), self.timing(5000)],
        )
        self.assertEqual([line.planned_ms for line in lines], [5000, 9200, 18_200])
        self.assertEqual((lines[0].taken_ms, lines[0].spread and lines[0].spread.median_ms), ((6000, 7000, 5000), 6000))
        self.assertEqual((lines[1].taken_ms, lines[1].spread and lines[1].spread.median_ms), ((9000, 8000, None), 8500))
        self.assertIsNone(lines[2].spread)
        hold = lines[1].holds[0]
        self.assertEqual(
            (hold.cue_id, hold.taken_ms, hold.spread and hold.spread.median_ms), (self.cues[0], (500, 1500, None), 1000)
        )

    def test_takes_are_matched_by_slide_where_slides_were_moved(self) -> None:
        moved = msgspec.structs.replace(self.show, slides=self.show.slides[::-1])
        lines = compare_takes(moved, compile_show(moved), [self.timing(6000, 9000)])
        self.assertEqual(
            [(line.slide_id, line.taken_ms) for line in lines],
            [(self.slides[2], (None,)), (self.slides[1], (9000,)), (self.slides[0], (6000,))],
        )

    def test_the_median_of_takes_is_a_timing_that_can_be_used(self) -> None:
        timing = median_timing([self.timing(6000, holds=500), self.timing(7001, holds=700)])
        self.assertEqual((timing.slide_ms[self.slides[0]], timing.hold_ms[self.cues[0]]), (6501, 600))
        after = apply_edit(self.show, apply_timing(self.show, timing, "the median").edit).show
        self.assertEqual(compile_show(after).slides[0].length_ms, 6501)

    def test_some_slides_only(self) -> None:
        some = timing_for(self.show, self.timing(6000, 9000, holds=500), {self.slides[0]})
        self.assertEqual((some.slide_ms, some.hold_ms), ({self.slides[0]: 6000}, {}))

    def test_a_target_is_met_to_the_millisecond_and_what_gives_is_told(self) -> None:
        timing = self.timing(9000, holds=4000)
        plain = apply_timing(self.show, timing, "take 1")
        outcome = apply_timing(self.show, timing, "take 1", plain.timed_ms - 1500)
        after = compile_show(apply_edit(self.show, outcome.edit).show)
        self.assertEqual(
            (after.content_ms, outcome.reached_ms, outcome.timed_ms),
            (plain.timed_ms - 1500, plain.timed_ms - 1500, plain.timed_ms),
        )
        self.assertEqual(sum(entry.by_ms for entry in outcome.gives), -1500)
        self.assertEqual(
            [abs(entry.by_ms) for entry in outcome.gives],
            sorted((abs(entry.by_ms) for entry in outcome.gives), reverse=True),
        )

    def test_a_target_that_cannot_be_met_gives_the_nearest(self) -> None:
        outcome = apply_timing(self.show, self.timing(9000), "take 1", 1000)
        self.assertGreater(outcome.reached_ms, 18_200, "the clip and what moves stay")
        held = msgspec.structs.replace(self.show, slides=self.show.slides[:0])
        self.assertEqual(apply_timing(held, self.timing(), "take 1", 1000).reached_ms, 0, "nothing can be stretched")
