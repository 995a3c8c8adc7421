from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import AdvanceAfter, AdvanceOnCue, Build, Follows, OnCue, Show, Slide
from ritornel.core.document import edits as e
from ritornel.core.errors import BadValue
from ritornel.core.schedule.lengths import read_through, reading_ms, speaking_ms, spread
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.demo.orlmere import orlmere
from tests.examples import example_a, shape, text


def length(show: Show, edit: e.Edit) -> int:
    return compile_show(e.apply_edit(show, edit).show).content_ms


class ReadingTest(SimpleTestCase):
    def test_twenty_seven_words_take_ten_and_a_half_seconds(self) -> None:
        self.assertEqual(reading_ms(Slide("s", objects=(text("t", " ".join(["word"] * 20), " ".join(["word"] * 7)),))), 10_500)
        self.assertEqual(reading_ms(Slide("s", objects=(shape("a"),))), 0)

    def test_notes_are_spoken_at_two_point_two_words_a_second(self) -> None:
        self.assertEqual(speaking_ms(Slide("s", notes=" ".join(["word"] * 22))), 10_000)

    def test_slides_get_the_time_their_words_need_and_those_on_cue_stay(self) -> None:
        show = Show("s", "S", slides=(
            Slide("a", objects=(text("t", "one two three"),), advance=AdvanceAfter(100)),
            Slide("b", objects=(text("u", "one two three"),), advance=AdvanceOnCue("q")),
        ))  # fmt: skip
        after = e.apply_edit(show, read_through(show, ("a", "b"))).show
        self.assertEqual((after.slides[0].advance, after.slides[1].advance), (AdvanceAfter(2500), AdvanceOnCue("q")))
        with self.assertRaisesMessage(BadValue, "none of these slides both has words"):
            read_through(show, ("b",))


class SpreadTest(SimpleTestCase):
    def test_the_total_is_exact_and_animations_keep_their_length(self) -> None:
        show = example_a()
        for target in (40_000, 47_777, 60_001):
            edit, reached = spread(show, target)
            self.assertEqual((reached, length(show, edit)), (target, target))
        after = e.apply_edit(show, spread(show, 60_001)[0]).show
        self.assertEqual([b.lasts_ms for slide in after.slides for b in slide.order], [b.lasts_ms for slide in show.slides for b in slide.order])

    def test_a_target_that_cannot_be_met_gives_the_nearest(self) -> None:
        show = example_a()
        edit, reached = spread(show, 1000)
        self.assertEqual(reached, length(show, edit))
        self.assertEqual(reached, 2000 + 1700 + 18_200)

    def test_it_begins_where_it_is_told_to(self) -> None:
        show = orlmere()
        before = compile_show(show).starts_ms[4]
        after = e.apply_edit(show, spread(show, 120_000, first=4)[0]).show
        self.assertEqual((compile_show(after).starts_ms[4], compile_show(after).content_ms), (before, 120_000))

    def test_a_show_in_which_nothing_can_be_stretched_is_told(self) -> None:
        show = Show("s", "S", slides=(Slide("a", objects=(shape("x"),), order=(Build("b", "x", "enters fade", Follows()),), advance=AdvanceAfter(0)),))
        with self.assertRaisesMessage(BadValue, "no slide here has a hold"):
            spread(show, 5000)

    @settings(max_examples=25, deadline=None)
    @given(st.integers(0, 200_000), st.lists(st.tuples(st.integers(0, 9000), st.integers(0, 5000), st.integers(0, 3000)), min_size=1, max_size=5))
    def test_it_is_never_over_what_can_be_met_and_undo_restores(self, target: int, rows: list[tuple[int, int, int]]) -> None:
        slides = tuple(
            Slide(
                f"s{n}", objects=(shape(f"x{n}"),), advance=AdvanceAfter(after), order=(Build(f"b{n}", f"x{n}", "enters fade", OnCue(f"q{n}", hold), 0, lasts),)
            )
            for n, (after, hold, lasts) in enumerate(rows)
        )
        show = Show("s", "S", slides=slides)
        if not any(after or hold for after, hold, _ in rows):
            return
        edit, reached = spread(show, target)
        least = sum(lasts for _, _, lasts in rows)
        self.assertEqual(reached, length(show, edit))
        self.assertTrue(reached == target or reached <= least or target < least or abs(reached - target) <= 2 * len(rows), (reached, target, least))
