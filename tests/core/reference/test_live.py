from pathlib import Path

import msgspec
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import AdvanceAfter, AdvanceWithVoice, Show, Slide
from ritornel.core.document.show import Voice
from ritornel.core.reference.live import (
    arrive,
    back,
    cue,
    go_on,
    goes_on_alone,
    goes_on_at_ms,
    in_transition,
    instant_of,
    next_cue_id,
    next_step,
    since_ms,
    stand,
    stand_ready,
    waits_since_ms,
)
from ritornel.core.schedule.performance import Performance, frame_state_at, frame_state_at_rest, last_layer, perform
from ritornel.core.schedule.tracks import object_values
from tests.examples import example_a
from tests.live_table import ROWS, after_event, markdown, table_show, told

ROOT = Path(__file__).parents[3]


def played(end: str = "hold") -> Performance:
    return perform(example_a(end=end))


def also_live(document: Show, *numbers: int) -> Show:
    """The show with some of its slides going on by themselves also live."""
    slides = tuple(
        msgspec.structs.replace(slide, also_live=number in numbers) for number, slide in enumerate(document.slides)
    )
    return msgspec.structs.replace(document, slides=slides)


class PressTest(SimpleTestCase):
    def test_a_cue_moves_on_by_exactly_one_beat_and_the_clock_does_not_jump(self) -> None:
        show = played()
        state = arrive(show, 1, 1000)
        self.assertTrue(in_transition(show, state, 1200))
        state = cue(show, state, 1200)
        self.assertEqual((state.index, state.beat, state.begun_ms), (1, 1, (500.0, 200.0)))
        self.assertFalse(in_transition(show, state, 1200))
        state = cue(show, state, 1250)
        self.assertEqual((state.beat, since_ms(state, 1300)), (2, 50))

    def test_a_jump_to_a_stop_is_what_stepping_back_to_it_shows(self) -> None:
        show = played()
        last = len(show.slides[1].schedule.beats) - 1
        stepped = back(show, arrive(show, 2, 20_000), 20_100)
        self.assertEqual(stand(show, 1, last, 20_100), stepped)
        self.assertIsNone(goes_on_at_ms(show, stand(show, 0, 0, 50)))
        self.assertEqual(cue(show, stand(show, 1, 1, 9000), 9000).beat, 2)

    def test_fifty_presses_are_fifty_beats(self) -> None:
        show = played("loop")
        state = arrive(show, 0, 0)
        for press in range(50):
            state = cue(show, state, press * 40)
        # Five beats a round: 1, then 3, then 1.
        self.assertEqual((state.index, state.beat), (0, 0))

    def test_a_wait_says_for_how_long_it_has_been_open(self) -> None:
        show = played()
        state = cue(show, arrive(show, 1, 0), 2000)
        self.assertIsNone(waits_since_ms(show, state, 2999))
        self.assertEqual(waits_since_ms(show, state, 3400), 400)
        self.assertEqual(next_cue_id(show, state), "second")

    def test_after_the_last_beat_the_end_decides(self) -> None:
        hold, loop, black = played(), played("loop"), played("black")
        state = arrive(hold, 2, 0)
        self.assertEqual(cue(hold, state, 50).index, 2)
        self.assertEqual(cue(loop, state, 50).index, 0)
        self.assertEqual(cue(loop, state, 50).from_index, 2)
        over = cue(black, state, 50)
        self.assertTrue(over.over)
        self.assertEqual(cue(black, over, 60), over)


class StepBackTest(SimpleTestCase):
    def test_a_step_back_shows_the_end_of_the_beat_before_at_once(self) -> None:
        show = played()
        state = back(show, cue(show, arrive(show, 1, 0), 900), 950)
        self.assertEqual((state.index, state.beat, since_ms(state, 950)), (1, 0, float("inf")))
        state = back(show, state, 960)
        self.assertEqual((state.index, state.beat, state.completed_ms), (0, 0, 2000.0))

    def test_before_the_first_beat_there_is_nothing(self) -> None:
        show = played()
        state = arrive(show, 0, 0)
        self.assertIs(back(show, state, 10), state)

    def test_from_black_it_goes_to_the_last_beat(self) -> None:
        show = played("black")
        state = back(show, cue(show, arrive(show, 2, 0), 50), 100)
        self.assertEqual((state.index, state.over, state.completed_ms), (2, False, 18_200.0))

    @settings(max_examples=60)
    @given(st.lists(st.sampled_from(["cue", "back"]), max_size=12), st.integers(1, 3000))
    def test_back_and_forward_is_the_identity(self, presses: list[str], every_ms: int) -> None:
        show = played()
        state, now = arrive(show, 0, 0.0), 0.0
        for press in presses:
            now += every_ms
            state = cue(show, state, now) if press == "cue" else back(show, state, now)
        place = (state.index, state.beat)
        if place == (0, 0):
            return
        returned = cue(show, back(show, state, now), now)
        self.assertEqual((returned.index, returned.beat), place)


class WaitTest(SimpleTestCase):
    """How long a wait has been open, which a take records."""

    def test_the_wait_before_a_slide_is_left_opens_when_its_voice_has_ended_too(self) -> None:
        document = example_a()
        voiced = msgspec.structs.replace(document.slides[1], voice=Voice("voice", 9000, marks={}), order=())
        show = perform(msgspec.structs.replace(document, slides=(document.slides[0], voiced, document.slides[2])))
        state = arrive(show, 1, 0)
        self.assertIsNone(waits_since_ms(show, state, 8999))
        self.assertEqual(waits_since_ms(show, state, 10_000), 1000)

    def test_after_a_step_back_the_wait_opens_with_it(self) -> None:
        show = played()
        state = cue(show, arrive(show, 1, 0), 4000)
        state = back(show, state, 5000)
        self.assertEqual(waits_since_ms(show, state, 11_000), 6000)
        self.assertEqual(next_cue_id(show, state), "first")

    def test_after_a_step_back_to_the_slide_before_too(self) -> None:
        show = played()
        state = back(show, arrive(show, 2, 20_000), 21_000)
        self.assertEqual((waits_since_ms(show, state, 21_000), waits_since_ms(show, state, 23_500)), (0, 2500))

    def test_nothing_is_waited_for_where_a_cue_does_nothing_or_the_slide_goes_on_by_itself(self) -> None:
        show = perform(also_live(example_a(), 0))
        self.assertIsNone(waits_since_ms(show, arrive(show, 0, 0), 60_000))
        self.assertIsNone(waits_since_ms(show, arrive(show, 2, 0), 60_000), "the show has ended and holds")
        loop = played("loop")
        self.assertEqual(waits_since_ms(loop, arrive(loop, 2, 0), 20_000), 1800)

    def test_a_slide_that_advances_after_a_time_waits_live_from_its_end(self) -> None:
        show = played()
        self.assertEqual(waits_since_ms(show, arrive(show, 0, 0), 5000), 3000)


class ReadyTest(SimpleTestCase):
    def test_a_run_that_has_not_begun_shows_its_slide_before_the_first_build(self) -> None:
        show = played()
        state = stand_ready(show, 1, 0)
        self.assertEqual((state.began_ms, since_ms(state, 0), in_transition(show, state, 0)), (-500, 0, False))
        values = object_values(show.slides[1].tracks, instant_of(state, 0))
        self.assertEqual({key[0]: found.shown for key, found in values.items()}, dict.fromkeys("abcd", False))


class GoingOnTest(SimpleTestCase):
    def test_live_every_slide_waits_for_a_cue_unless_it_goes_on_by_itself_also_live(self) -> None:
        show = played("loop")
        for index in range(3):
            self.assertIsNone(goes_on_at_ms(show, arrive(show, index, 0)), index)
        show = perform(also_live(example_a(end="loop"), 0, 1, 2))
        self.assertEqual(goes_on_at_ms(show, arrive(show, 0, 100)), 5100)
        self.assertIsNone(goes_on_at_ms(show, arrive(show, 1, 0)), "it leaves on cue")
        self.assertEqual(goes_on_at_ms(show, arrive(show, 2, 0)), 18_200)

    def test_a_show_that_holds_stays_at_its_end(self) -> None:
        show = perform(also_live(example_a(), 2))
        self.assertIsNone(goes_on_at_ms(show, arrive(show, 2, 0)))
        self.assertEqual(goes_on_at_ms(perform(also_live(example_a(end="black"), 2)), arrive(show, 2, 0)), 18_200)

    def test_while_a_wait_is_open_or_after_a_step_back_only_a_cue_goes_on(self) -> None:
        document = example_a()
        timed = msgspec.structs.replace(document.slides[1], advance=AdvanceAfter(1000), also_live=True)
        show = perform(msgspec.structs.replace(document, slides=(document.slides[0], timed, document.slides[2])))
        state = arrive(show, 1, 0)
        self.assertIsNone(goes_on_at_ms(show, state))
        last = cue(show, cue(show, state, 600), 700)
        self.assertEqual(goes_on_at_ms(show, last), 1000)
        self.assertIsNone(goes_on_at_ms(show, back(show, go_on(show, last, 1000), 1010)))

    def test_live_nothing_is_cut_short(self) -> None:
        document = example_a(end="loop")
        short = msgspec.structs.replace(document.slides[2], advance=AdvanceAfter(400, True), also_live=True)
        show = perform(msgspec.structs.replace(document, slides=(*document.slides[:2], short)))
        self.assertEqual(goes_on_at_ms(show, arrive(show, 2, 50)), 18_250)

    def test_a_slide_with_a_voice_goes_on_a_breath_after_it(self) -> None:
        document = example_a(end="loop")
        voiced = msgspec.structs.replace(
            document.slides[0], voice=Voice("voice", 6000, marks={}), advance=AdvanceWithVoice(600), also_live=True
        )
        show = perform(msgspec.structs.replace(document, slides=(voiced, *document.slides[1:])))
        self.assertEqual(goes_on_at_ms(show, arrive(show, 0, 0)), 6600)

    def test_a_show_of_length_0_does_not_loop(self) -> None:
        blank = Slide("blank", advance=AdvanceAfter(0), also_live=True)
        show = perform(Show("s", "S", slides=(blank, msgspec.structs.replace(blank, id="other")), end="loop"))
        self.assertEqual(show.schedule.end, "hold")
        self.assertIsNone(goes_on_at_ms(show, arrive(show, 1, 0)))
        self.assertEqual(cue(show, arrive(show, 1, 0), 5).index, 1)


class TableTest(SimpleTestCase):
    def test_every_event_in_every_state_does_what_the_table_says(self) -> None:
        for row in ROWS:
            with self.subTest(row.event, where=row.where):
                show = table_show(row.end)
                state = None
                for now_ms, event in row.before:
                    state = after_event(show, state, event, now_ms)
                self.assertEqual(told(after_event(show, state, row.does, row.now_ms)), row.state)

    def test_the_table_in_the_docs_is_this_one(self) -> None:
        self.assertIn(markdown(), (ROOT / "docs" / "timing.md").read_text())

    def test_what_the_next_cue_does(self) -> None:
        show = table_show("hold")
        runs = arrive(show, 1, 0)
        loop, black = played("loop"), played("black")
        rows = (
            (show, runs, "beat"),
            (show, arrive(show, 0, 0), "slide"),
            (show, arrive(show, 2, 0), "nothing"),
            (loop, arrive(loop, 2, 0), "again"),
            (black, arrive(black, 2, 0), "black"),
            (black, cue(black, arrive(black, 2, 0), 5), "nothing"),
        )
        for of, state, expected in rows:
            self.assertEqual(next_step(of, state), expected)
        self.assertEqual([goes_on_alone(show, arrive(show, index, 0)) for index in range(3)], [True, False, False])


class SameStateTest(SimpleTestCase):
    def test_live_and_self_running_agree_at_the_end_of_every_beat(self) -> None:
        show = played()
        state, now = arrive(show, 0, 0.0), 0.0
        for index, staged in enumerate(show.slides):
            for beat in range(len(staged.schedule.beats)):
                now += 20_000
                values = object_values(staged.tracks, instant_of(state, now))
                self.assertEqual((state.index, state.beat), (index, beat))
                self.assertEqual(tuple(values.items()), frame_state_at_rest(show, index, beat).layers[0].objects)
                state = cue(show, state, now)

    @given(st.floats(0, 40_000))
    def test_what_is_seen_depends_only_on_the_instant(self, at: float) -> None:
        show = played("loop")
        one = frame_state_at(show, at)
        frame_state_at(show, at / 2)
        self.assertEqual(frame_state_at(show, at), one)

    def test_the_first_slide_comes_out_of_black_once_and_then_out_of_the_last(self) -> None:
        show = played("loop")
        self.assertEqual([layer.index for layer in frame_state_at(show, 400).layers], [0])
        again = frame_state_at(show, 400, first_pass=False)
        self.assertEqual([layer.index for layer in again.layers], [2, 0])
        self.assertEqual(again.layers[0].objects, last_layer(show, 2).objects)

    def test_black_comes_in_600_ms(self) -> None:
        show = played("black")
        self.assertEqual([frame_state_at(show, at).blackness for at in (32_400, 32_700, 33_000)], [0.0, 0.5, 1.0])
