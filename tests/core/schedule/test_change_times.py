import random
from bisect import bisect_right
from itertools import pairwise

from django.test import SimpleTestCase

from ritornel.core.document import Show
from ritornel.core.schedule.change_times import changing_spans
from ritornel.core.schedule.performance import Performance, frame_state_at, perform
from ritornel.core.time.spans import Span
from ritornel.demo.orlmere import orlmere
from tests.examples import example_a
from tests.kinds import every_effect, every_kind


class ChangingTest(SimpleTestCase):
    def test_a_slide_changes_while_something_comes_and_rests_between(self) -> None:
        performance = perform(example_a())
        staged = performance.slides[0]
        spans = changing_spans(staged)
        self.assertEqual(spans[0].start_ms, 0)
        for build, time in zip(staged.slide.order, staged.schedule.builds, strict=True):
            start = staged.schedule.beats[time.beat].start_ms + time.offset_ms
            self.assertTrue(
                any(span.start_ms <= start and start + build.lasts_ms < span.end_ms for span in spans),
                (build.id, spans),
            )
        self.assertLess(sum(span.length_ms for span in spans), staged.schedule.length_ms)

    def same_between(self, show: Show) -> int:
        """Holds the show to what its spans promise; how many rests there were."""
        performance, chance, rests = perform(show), random.Random(7), 0
        for index, staged in enumerate(performance.slides):
            spans = changing_spans(staged)
            self.assertEqual(list(spans), sorted(spans, key=lambda span: span.start_ms))
            self.assertTrue(all(before.end_ms < after.start_ms for before, after in pairwise(spans)), spans)
            starts = [span.start_ms for span in spans] + [staged.schedule.length_ms]
            for span, following in zip(spans, starts[1:], strict=True):
                rests += self.rests(performance, index, Span(span.end_ms, following), chance)
        return rests

    def rests(self, performance: Performance, index: int, rest: Span, chance: random.Random) -> bool:
        if rest.length_ms <= 0:
            return False
        start = performance.schedule.starts_ms[index]
        # From the last whole millisecond of what changed on.
        stays = frame_state_at(performance, start + rest.start_ms - 1, first_pass=False)
        for _ in range(8):
            at_ms = rest.start_ms - 1 + chance.random() * rest.length_ms
            self.assertEqual(
                frame_state_at(performance, start + at_ms, first_pass=False),
                stays,
                (performance.slides[index].slide.id, at_ms, rest),
            )
        return True

    def test_nothing_changes_outside_the_spans(self) -> None:
        self.assertGreater(self.same_between(orlmere()), 10)
        self.assertGreater(self.same_between(example_a()), 0)
        self.assertGreater(self.same_between(every_effect()), 10)
        self.same_between(every_kind())

    def test_what_goes_on_until_the_slide_ends_leaves_no_rest_after_it(self) -> None:
        for staged in perform(every_effect()).slides:
            endless = [
                build for build in staged.slide.order if build.repeats == 0 and build.effect.startswith("accents")
            ]
            if endless:
                spans = changing_spans(staged)
                at = bisect_right([span.start_ms for span in spans], staged.schedule.length_ms - 1) - 1
                self.assertEqual(spans[at].end_ms, staged.schedule.length_ms)
