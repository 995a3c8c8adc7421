import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import AdvanceAfter, AdvanceOnCue, Build, Follows, OnCue, Slide, Together, Transition
from ritornel.core.schedule import compile_show, compile_slide
from tests.examples import example_a, shape


def build(name: str, starts: object, after: int = 0, lasts: int = 100, **more: object) -> Build:
    return Build(id=name, object_id="x", effect="enters fade", starts=starts, after_ms=after, lasts_ms=lasts, **more)  # type: ignore[arg-type]


def slide(*order: Build, **more: object) -> Slide:
    return Slide("s", objects=(shape("x"),), order=order, **more)  # type: ignore[arg-type]


class WorkedExampleATest(SimpleTestCase):
    def test_every_build_runs_when_the_example_says(self) -> None:
        times = {}
        for schedule in compile_show(example_a()).slides:
            for build_time in schedule.builds:
                start = schedule.beats[build_time.beat].start_ms + build_time.offset_ms
                times[build_time.build_id] = (start, start + build_time.lasts_ms)
        self.assertEqual(
            times,
            {
                "t": (800, 1400),
                "p": (1000, 2000),
                "A": (2500, 2900),
                "B": (3000, 3300),
                "C": (2900, 3500),
                "D": (7000, 7200),
                "L": (0, 18_200),
            },
        )

    def test_slides_and_show_are_as_long_as_the_example_says(self) -> None:
        schedule = compile_show(example_a())
        self.assertEqual(
            [(s.done_ms, s.length_ms) for s in schedule.slides], [(2000, 5000), (7200, 9200), (18_200, 18_200)]
        )
        self.assertEqual(schedule.starts_ms, (0, 5000, 14_200))
        self.assertEqual(schedule.length_ms, 32_400)
        self.assertEqual((schedule.slides[2].extended_ms, schedule.slides[2].extended_for), (8200, "build"))

    def test_waits_say_where_their_hold_came_from(self) -> None:
        two = compile_show(example_a(holds_by_cue={"out": 1234, "second": 9})).slides[1]
        self.assertEqual(
            [(beat.wait.hold_ms, beat.wait.source) for beat in two.beats if beat.wait],
            [(2000, "default"), (3500, "own hold")],
        )
        assert two.last_wait
        self.assertEqual((two.last_wait.hold_ms, two.last_wait.source, two.last_wait.start_ms), (1234, "take", 7200))


class RuleOneTest(SimpleTestCase):
    def test_follows_waits_for_everything_before_it_in_the_beat(self) -> None:
        schedule = compile_slide(
            slide(build("a", Follows(), 0, 900), build("b", Together(), 300, 200), build("c", Follows(), 50)), 2000, {}
        )
        self.assertEqual([time.offset_ms for time in schedule.builds], [0, 300, 950])

    def test_the_first_together_belongs_to_beat_0_after_the_transition(self) -> None:
        schedule = compile_slide(slide(build("a", Together()), transition=Transition("dissolve", 700)), 2000, {})
        self.assertEqual((schedule.builds[0].beat, schedule.beats[0].start_ms), (0, 700))

    def test_beat_0_without_builds_ends_with_the_transition(self) -> None:
        schedule = compile_slide(slide(build("a", OnCue("q")), transition=Transition("push", 500)), 2000, {})
        self.assertEqual((schedule.beats[0].end_ms, schedule.beats[1].start_ms), (500, 2500))

    def test_a_cut_has_no_length_whatever_is_written(self) -> None:
        self.assertEqual(compile_slide(slide(transition=Transition("cut", 900)), 2000, {}).transition_ms, 0)

    def test_repeats_lengthen_and_an_endless_accent_counts_once(self) -> None:
        schedule = compile_slide(
            slide(
                build("a", Follows(), 0, 300, repeats=3),
                build("b", Follows(), 0, 300, repeats=0),
                build("c", Follows()),
            ),
            2000,
            {},
        )
        self.assertEqual(
            [(time.offset_ms, time.lasts_ms) for time in schedule.builds], [(0, 900), (900, 300), (1200, 100)]
        )


class RuleTwoTest(SimpleTestCase):
    def test_a_hold_of_0_is_set_and_not_the_default(self) -> None:
        schedule = compile_slide(slide(build("a", OnCue("q", 0))), 2000, {"q": 700})
        wait = schedule.beats[1].wait
        assert wait
        self.assertEqual((wait.hold_ms, wait.source, schedule.beats[1].start_ms), (0, "own hold", 0))


class RuleSixTest(SimpleTestCase):
    def test_what_runs_longer_extends_the_slide_and_is_named(self) -> None:
        schedule = compile_slide(slide(build("a", Follows(), 0, 3000), advance=AdvanceAfter(1000)), 2000, {})
        self.assertEqual((schedule.length_ms, schedule.extended_ms, schedule.extended_for), (3000, 2000, "build"))

    def test_a_transition_alone_extends_too(self) -> None:
        schedule = compile_slide(slide(transition=Transition("dissolve", 900), advance=AdvanceAfter(500)), 2000, {})
        self.assertEqual((schedule.length_ms, schedule.extended_ms, schedule.extended_for), (900, 400, "transition"))

    def test_cut_short_goes_on_but_never_before_the_transition_ends(self) -> None:
        long = build("a", Follows(), 0, 3000)
        short = compile_slide(
            slide(long, advance=AdvanceAfter(1000, True), transition=Transition("push", 400)), 2000, {}
        )
        shorter = compile_slide(
            slide(long, advance=AdvanceAfter(100, True), transition=Transition("push", 400)), 2000, {}
        )
        self.assertEqual((short.length_ms, short.extended_ms, shorter.length_ms), (1000, 0, 400))

    def test_on_cue_the_length_is_n_plus_the_last_wait(self) -> None:
        schedule = compile_slide(slide(build("a", Follows(), 0, 600), advance=AdvanceOnCue("out", 1500)), 2000, {})
        self.assertEqual((schedule.done_ms, schedule.length_ms), (600, 2100))


class RecompilingTest(SimpleTestCase):
    def test_an_edit_computes_only_the_slide_that_changed(self) -> None:
        before = example_a()
        known = compile_show(before)
        changed = msgspec.structs.replace(before.slides[0], advance=AdvanceAfter(6000))
        after = msgspec.structs.replace(before, slides=(changed, *before.slides[1:]))
        again = compile_show(after)
        fresh = tuple(compile_slide(slide, after.default_hold_ms, {}, after.frame) for slide in after.slides)
        self.assertEqual(again.slides, fresh)
        self.assertNotEqual(again.slides[0], known.slides[0])
        self.assertIs(again.slides[1], known.slides[1])

    def test_other_holds_compute_all_again(self) -> None:
        before = example_a()
        compile_show(before)
        for changes in ({"default_hold_ms": 100}, {"holds_by_cue": {"out": 70}}):
            after = msgspec.structs.replace(before, **changes)
            found = compile_show(after).slides
            fresh = tuple(
                compile_slide(slide, after.default_hold_ms, after.holds_by_cue, after.frame) for slide in after.slides
            )
            self.assertEqual(found, fresh)
            self.assertNotEqual(found, compile_show(before).slides)
