import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Show
from ritornel.core.errors import UnknownName
from ritornel.core.reference.preloading import coming_slides
from ritornel.core.schedule import compile_show, moment_at
from ritornel.core.schedule.show_schedule import renewed_at_ms
from ritornel.core.time import Span
from tests.examples import example_a


class TheEndTest(SimpleTestCase):
    def test_black_adds_600_ms_and_an_empty_show_stays_0(self) -> None:
        self.assertEqual(compile_show(example_a(end="black")).length_ms, 33_000)
        self.assertEqual(compile_show(Show("e", "Empty", end="black")).length_ms, 0)
        self.assertEqual(moment_at(compile_show(Show("e", "Empty")), 5).phase, "empty")

    def test_hold_stays_at_its_last_state(self) -> None:
        schedule = compile_show(example_a())
        self.assertEqual(moment_at(schedule, 10**6).phase, "over")
        self.assertEqual(moment_at(schedule, 32_400).index, 2)

    def test_every_pass_of_a_loop_is_alike(self) -> None:
        schedule = compile_show(example_a(end="loop"))
        self.assertEqual(moment_at(schedule, 2500), moment_at(schedule, 2500 + 3 * 32_400))

    def test_a_skipped_slide_has_no_time_at_all(self) -> None:
        show = example_a()
        skipped = msgspec.structs.replace(show.slides[1], skipped=True)
        schedule = compile_show(msgspec.structs.replace(show, slides=(show.slides[0], skipped, show.slides[2])))
        self.assertEqual((schedule.starts_ms, schedule.length_ms), ((0, 5000), 23_200))
        with self.assertRaisesMessage(UnknownName, "skipped"):
            schedule.index_of("two")


class ComingTest(SimpleTestCase):
    def test_a_looping_show_takes_a_newer_edition_in_when_its_pass_is_over(self) -> None:
        loop = compile_show(example_a(end="loop"))
        self.assertEqual(
            [renewed_at_ms(loop, at) for at in (-5, 0, 32_399, 32_400, 40_000)],
            [32_400, 32_400, 32_400, 64_800, 64_800],
        )

    def test_any_other_takes_none_in_by_itself(self) -> None:
        for show in (example_a(end="hold"), example_a(end="black"), Show("e", "Empty", end="loop")):
            self.assertIsNone(renewed_at_ms(compile_show(show), 5.0))

    def test_six_slides_are_fetched_ahead_as_long_as_there_are_so_many(self) -> None:
        self.assertEqual(
            (list(coming_slides(12, 3)), list(coming_slides(12, 10)), list(coming_slides(0, 0))),
            ([3, 4, 5, 6, 7, 8], [10, 11], []),
        )


class MomentTest(SimpleTestCase):
    def test_phases_follow_each_other_on_the_second_slide(self) -> None:
        schedule = compile_show(example_a())
        seen = [
            (moment.beat, moment.phase)
            for moment in (
                moment_at(schedule, 5000 + at) for at in (0, 499, 500, 2499, 2500, 3499, 3500, 7000, 7200, 9199)
            )
        ]
        self.assertEqual(
            seen,
            [
                (0, "transition"),
                (0, "transition"),
                (0, "wait"),
                (0, "wait"),
                (1, "beat"),
                (1, "beat"),
                (1, "wait"),
                (2, "beat"),
                (2, "wait"),
                (2, "wait"),
            ],
        )

    def test_a_live_run_waits_for_the_cues_between_beats_and_for_the_one_that_leaves_a_slide(self) -> None:
        # Slide two waits twice before it is left. The last is left only where something follows it.
        for end, last in (("hold", False), ("black", True), ("loop", True)):
            schedule = compile_show(example_a(end=end))
            self.assertEqual([schedule.leaves_on_cue(index) for index in range(3)], [True, True, last])
            self.assertEqual([schedule.cues_of(index) for index in range(3)], [1, 3, int(last)])

    def test_a_slide_has_the_show_for_its_span(self) -> None:
        schedule = compile_show(example_a())
        self.assertEqual(schedule.span_of(schedule.index_of("two")), Span(5000, 14_200))

    @given(st.floats(0, 32_399.9), st.floats(0, 32_399.9))
    def test_later_instants_are_never_at_an_earlier_place(self, one: float, other: float) -> None:
        schedule = compile_show(example_a())
        first, second = moment_at(schedule, min(one, other)), moment_at(schedule, max(one, other))
        self.assertLessEqual(
            (first.index, first.slide_ms, first.beat), (second.index, second.slide_ms, max(second.beat, first.beat))
        )
        self.assertAlmostEqual(schedule.starts_ms[first.index] + first.slide_ms, min(one, other), places=6)
