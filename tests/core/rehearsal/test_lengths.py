import math
from fractions import Fraction
from typing import Any

import msgspec
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import AdvanceAfter, AdvanceOnCue, Build, Follows, OnCue, Show, Slide
from ritornel.core.document import edits as e
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.lengths import fit_to_length, read_through
from ritornel.core.schedule.reading import reading_ms, speaking_ms
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import LONGEST_MS
from ritornel.demo.orlmere import orlmere
from tests.examples import example_a, shape, text


def length(show: Show, edit: e.Edit) -> int:
    return compile_show(e.apply_edit(show, edit).show).length_ms


def holding(*holds_ms: int, **more: Any) -> Show:
    """Slides of nothing but a wait."""
    return Show(
        "s",
        "S",
        slides=tuple(Slide(f"s{n}", advance=AdvanceOnCue(f"q{n}", hold)) for n, hold in enumerate(holds_ms)),
        **more,
    )


def holds_of(show: Show) -> list[int]:
    return [slide.advance.hold_ms or 0 for slide in show.slides if isinstance(slide.advance, AdvanceOnCue)]


class ReadingTest(SimpleTestCase):
    def test_twenty_seven_words_take_ten_and_a_half_seconds(self) -> None:
        self.assertEqual(
            reading_ms(Slide("s", objects=(text("t", " ".join(["word"] * 20), " ".join(["word"] * 7)),))), 10_500
        )
        self.assertEqual(reading_ms(Slide("s", objects=(shape("a"),))), 0)

    def test_notes_are_spoken_at_two_point_two_words_a_second(self) -> None:
        self.assertEqual(speaking_ms(Slide("s", notes=" ".join(["word"] * 22))), 10_000)

    def test_slides_get_the_time_their_words_need_and_those_on_cue_stay(self) -> None:
        show = Show(
            "s",
            "S",
            slides=(
                Slide("a", objects=(text("t", "one two three"),), advance=AdvanceAfter(100)),
                Slide("b", objects=(text("u", "one two three"),), advance=AdvanceOnCue("q")),
            ),
        )
        after = e.apply_edit(show, read_through(show, ("a", "b"))).show
        self.assertEqual((after.slides[0].advance, after.slides[1].advance), (AdvanceAfter(2500), AdvanceOnCue("q")))
        with self.assertRaisesMessage(BadValue, "none of these slides both has words"):
            read_through(show, ("b",))


class SpreadTest(SimpleTestCase):
    def test_the_total_is_exact_and_animations_keep_their_length(self) -> None:
        show = example_a()
        for target in (40_000, 47_777, 60_001):
            edit, reached = fit_to_length(show, target)
            self.assertEqual((reached, length(show, edit)), (target, target))
        after = e.apply_edit(show, fit_to_length(show, 60_001)[0]).show
        self.assertEqual(
            [b.lasts_ms for slide in after.slides for b in slide.order],
            [b.lasts_ms for slide in show.slides for b in slide.order],
        )

    def test_a_length_below_what_the_slide_needs_counts_as_what_it_needs(self) -> None:
        """Worked example A to 63 100: everything doubles."""
        edit, reached = fit_to_length(example_a(), 63_100)
        after = e.apply_edit(example_a(), edit).show
        self.assertEqual(reached, 63_100)
        self.assertEqual(
            (after.slides[0].advance, after.slides[2].advance), (AdvanceAfter(10_000), AdvanceAfter(36_400))
        )
        waits = [build.starts.hold_ms for build in after.slides[1].order if isinstance(build.starts, OnCue)]
        self.assertEqual((waits, holds_of(after)), ([4000, 7000], [4000]))

    def test_one_that_is_cut_short_counts_as_it_is(self) -> None:
        short = Slide(
            "a",
            objects=(shape("x"),),
            order=(Build(id="b", object_id="x", effect="enters fade", starts=Follows(), after_ms=0, lasts_ms=5000),),
            advance=AdvanceAfter(1000, True),
        )
        edit, _ = fit_to_length(Show("s", "S", slides=(short,)), 3000)
        self.assertEqual(
            e.apply_edit(Show("s", "S", slides=(short,)), edit).show.slides[0].advance, AdvanceAfter(3000, True)
        )

    def test_the_missing_milliseconds_go_to_the_largest_fractions_the_earliest_first(self) -> None:
        for holds, target, expected in (
            ((500, 1500), 1310, [328, 982]),
            ((100, 100, 100), 200, [67, 67, 66]),
            ((3, 5, 7), 31, [6, 10, 15]),
            ((1, 1, 1), 10, [4, 3, 3]),
        ):
            with self.subTest(holds, target=target):
                edit, reached = fit_to_length(holding(*holds), target)
                self.assertEqual((holds_of(e.apply_edit(holding(*holds), edit).show), reached), (expected, target))

    @settings(max_examples=200, deadline=None)
    @given(st.lists(st.integers(0, 5000), min_size=1, max_size=6).filter(any), st.integers(1, 200_000))
    def test_they_do_so_for_any_holds(self, holds: list[int], target: int) -> None:
        edit, reached = fit_to_length(holding(*holds), target)
        factor = Fraction(target, sum(holds))
        exact = [hold * factor for hold in holds]
        expected = [math.floor(time) for time in exact]
        for at in sorted(range(len(holds)), key=lambda at: (-(exact[at] % 1), at))[: target - sum(expected)]:
            expected[at] += 1
        self.assertEqual((reached, holds_of(e.apply_edit(holding(*holds), edit).show)), (target, expected))

    def test_the_black_end_is_of_the_shows_length(self) -> None:
        edit, reached = fit_to_length(holding(1000, end="black"), 5600)
        self.assertEqual((reached, length(holding(1000, end="black"), edit)), (5600, 5600))
        self.assertEqual(holds_of(e.apply_edit(holding(1000, end="black"), edit).show), [5000])

    def test_a_target_that_cannot_be_met_gives_the_nearest(self) -> None:
        show = example_a()
        edit, reached = fit_to_length(show, 1000)
        self.assertEqual(reached, length(show, edit))
        self.assertEqual(reached, 2000 + 1700 + 18_200)
        self.assertEqual(fit_to_length(holding(1, 0), 7_200_000)[1], 7_200_000)
        self.assertEqual(fit_to_length(holding(0, 0), 5000), (e.Several("Spread the show to 0:00.0", ()), 0))

    def test_no_hold_is_made_longer_than_a_day(self) -> None:
        moving = Slide(
            "m",
            objects=(shape("x"),),
            order=(Build(id="b", object_id="x", effect="enters fade", starts=Follows(), after_ms=0, lasts_ms=1000),),
            advance=AdvanceAfter(0, True),
        )
        show = msgspec.structs.replace(holding(86_000_000, 1), slides=(*holding(86_000_000, 1).slides, moving))
        edit, reached = fit_to_length(show, 90_000_000)
        self.assertEqual((holds_of(e.apply_edit(show, edit).show), reached), ([LONGEST_MS, 3_600_000], 90_000_000))
        self.assertEqual(fit_to_length(holding(1), 90_000_000)[1], LONGEST_MS)

    def test_it_begins_where_it_is_told_to(self) -> None:
        show = orlmere()
        before = compile_show(show).starts_ms[4]
        after = e.apply_edit(show, fit_to_length(show, 120_000, first=4)[0]).show
        self.assertEqual((compile_show(after).starts_ms[4], compile_show(after).length_ms), (before, 120_000))

    def test_a_show_in_which_nothing_can_be_stretched_stays_as_it_is(self) -> None:
        show = Show(
            "s",
            "S",
            slides=(
                Slide(
                    "a",
                    objects=(shape("x"),),
                    order=(Build(id="b", object_id="x", effect="enters fade", starts=Follows()),),
                    advance=AdvanceAfter(0, True),
                ),
            ),
        )
        edit, reached = fit_to_length(show, 5000)
        self.assertEqual((e.apply_edit(show, edit).changes, reached), ((), 0))
        self.assertEqual(fit_to_length(Show("s", "S"), 5000)[1], 0)

    def test_a_slide_that_cannot_be_shorter_stays_as_long_as_it_is(self) -> None:
        # The build needs 5 s of the 3 s that the slide has: no other time makes the slide shorter.
        build = Build(id="b", object_id="x", effect="enters fade", starts=Follows(), lasts_ms=5000)
        show = Show("s", "S", slides=(Slide("a", objects=(shape("x"),), order=(build,), advance=AdvanceAfter(3000)),))
        edit, reached = fit_to_length(show, 4000)
        self.assertEqual((length(show, edit), reached), (5000, 5000))

    @settings(max_examples=25, deadline=None)
    @given(
        st.integers(0, 200_000),
        st.lists(st.tuples(st.integers(0, 9000), st.integers(0, 5000), st.integers(0, 3000)), min_size=1, max_size=5),
    )
    def test_it_is_never_over_what_can_be_met_and_undo_restores(
        self, target: int, rows: list[tuple[int, int, int]]
    ) -> None:
        slides = tuple(
            Slide(
                f"s{n}",
                objects=(shape(f"x{n}"),),
                advance=AdvanceAfter(after),
                order=(
                    Build(
                        id=f"b{n}",
                        object_id=f"x{n}",
                        effect="enters fade",
                        starts=OnCue(f"q{n}", hold),
                        after_ms=0,
                        lasts_ms=lasts,
                    ),
                ),
            )
            for n, (after, hold, lasts) in enumerate(rows)
        )
        show = Show("s", "S", slides=slides)
        if not any(after or hold for after, hold, _ in rows):
            return
        edit, reached = fit_to_length(show, target)
        least = sum(lasts for _, _, lasts in rows)
        self.assertEqual(reached, length(show, edit))
        self.assertTrue(
            reached == target or reached <= least or target < least or abs(reached - target) <= 2 * len(rows),
            (reached, target, least),
        )
