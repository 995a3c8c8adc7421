from itertools import pairwise

import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import OwnLength, SlideEnd, SlideStart
from ritornel.core.document.edits import ReorderSlides, apply_edit
from ritornel.core.schedule import compile_show
from ritornel.core.schedule.music import compile_music
from ritornel.core.sound.passes import MusicTime, passes_of, shrink_fades
from tests.examples import example_a, with_music


def placed(show: object) -> MusicTime:
    (span,), lost = compile_music(show, compile_show(show))  # type: ignore[arg-type]
    assert not lost
    return span


class VectorBTest(SimpleTestCase):
    def test_passes_start_where_the_vector_says_and_are_cut_at_the_end(self) -> None:
        span = placed(with_music(example_a(), crossfade_ms=500))
        self.assertEqual([run.start_ms for run in span.passes], [0, 11_500, 23_000])
        self.assertEqual([run.end_ms for run in span.passes], [12_000, 23_500, 32_400])
        self.assertEqual([(run.fade_in_ms, run.fade_out_ms) for run in span.passes], [(0, 500), (500, 500), (500, 0)])


class SpanTest(SimpleTestCase):
    def test_a_span_follows_its_slides_when_one_before_grows(self) -> None:
        show = with_music(example_a(), start=SlideStart("two", 300), end=SlideEnd("two"))
        self.assertEqual((placed(show).start_ms, placed(show).end_ms), (5300, 14_200))
        longer = msgspec.structs.replace(
            show.slides[0], advance=msgspec.structs.replace(show.slides[0].advance, after_ms=6000)
        )
        later = msgspec.structs.replace(show, slides=(longer, *show.slides[1:]))
        self.assertEqual((placed(later).start_ms, placed(later).end_ms), (6300, 15_200))

    def test_a_crossfade_takes_half_of_the_sound_at_most(self) -> None:
        self.assertEqual(placed(with_music(example_a(), crossfade_ms=10_000)).period_ms, 6000)

    def test_its_own_length_plays_once(self) -> None:
        span = placed(with_music(example_a(), end=OwnLength(), crossfade_ms=500))
        self.assertEqual((span.end_ms, len(span.passes), span.period_ms), (12_000, 1, 0))

    def test_an_end_before_its_start_ends_with_the_first_slide(self) -> None:
        span = placed(with_music(example_a(), start=SlideStart("two"), end=SlideEnd("one")))
        self.assertEqual((span.start_ms, span.end_ms), (5000, 14_200))

    def test_skipping_the_first_slide_of_a_stretch_starts_it_with_the_next(self) -> None:
        show = with_music(example_a(), start=SlideStart("two", 300), end=SlideEnd("three"))
        skipped = msgspec.structs.replace(show.slides[1], skipped=True)
        span = placed(msgspec.structs.replace(show, slides=(show.slides[0], skipped, show.slides[2])))
        self.assertEqual((span.start_ms, span.end_ms, span.first), (5000, 23_200, 1))

    def test_a_span_with_no_slide_left_is_told_and_not_dropped(self) -> None:
        show = with_music(example_a(), start=SlideStart("gone"), end=SlideEnd("gone"))
        music, lost = compile_music(show, compile_show(show))
        self.assertEqual((music, [span.span_id for span in lost]), ((), ["m"]))

    def test_a_span_of_skipped_slides_and_one_of_a_show_without_slides_are_told(self) -> None:
        show = with_music(example_a())
        for slides in ((), tuple(msgspec.structs.replace(slide, skipped=True) for slide in show.slides)):
            other = msgspec.structs.replace(show, slides=slides)
            music, lost = compile_music(other, compile_show(other))
            self.assertEqual((music, [(span.span_id, span.late) for span in lost]), ((), [("m", False)]))

    def test_a_span_whose_offset_lies_behind_everything_is_told(self) -> None:
        show = with_music(example_a(), start=SlideStart("three", 18_200))
        music, lost = compile_music(show, compile_show(show))
        self.assertEqual((music, [(span.span_id, span.late) for span in lost]), ((), [("m", True)]))
        self.assertTrue(placed(with_music(example_a(), start=SlideStart("three", 18_199))))

    def test_a_move_that_brings_an_end_before_its_start_is_told_and_undone(self) -> None:
        show = with_music(example_a(), start=SlideStart("one"), end=SlideEnd("two"))
        outcome = apply_edit(show, ReorderSlides(("two",), 0))
        self.assertEqual(
            outcome.notices,
            ("The end of the music, “Two”, comes before its start now, so it ends with its first slide, “One”.",),
        )
        self.assertEqual(placed(outcome.show).end_ms, 14_200)
        self.assertEqual(apply_edit(show, ReorderSlides(("three",), 0)).notices, ())

    def test_only_a_loop_over_a_whole_looping_show_runs_on(self) -> None:
        self.assertTrue(placed(with_music(example_a(end="loop"))).runs_on)
        self.assertFalse(placed(with_music(example_a())).runs_on)
        self.assertFalse(placed(with_music(example_a(end="loop"), start=SlideStart("two"))).runs_on)

    def test_fades_that_do_not_fit_shrink_in_proportion(self) -> None:
        self.assertEqual(shrink_fades(1000, 3000, 8000), (1000, 3000))
        self.assertEqual(shrink_fades(1000, 3000, 2000), (500, 1500))

    @given(st.integers(1, 60_000), st.integers(0, 60_000), st.integers(1, 200_000))
    def test_passes_never_leave_a_gap_nor_pass_the_end(self, lasts: int, crossfade: int, length: int) -> None:
        passes = passes_of(0, length, lasts, crossfade, loops=True)
        self.assertEqual(passes[0].start_ms, 0)
        self.assertEqual(passes[-1].end_ms, length) if len(passes) * lasts >= length else None
        for one, following in pairwise(passes):
            self.assertLessEqual(following.start_ms, one.end_ms)
            self.assertLessEqual(one.end_ms - following.start_ms, lasts // 2)
            self.assertLess(one.start_ms, following.start_ms)
