import msgspec
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import AdvanceAfter
from ritornel.core.schedule.live import arrive, back, cue, go_on, goes_on_at_ms, in_transition, instant_of, next_cue_id, since_ms, stand, waits_since_ms
from ritornel.core.schedule.performance import Performance, last_layer, perform, sight_at, sight_at_rest
from ritornel.core.schedule.tracks import object_values
from tests.examples import example_a


def played(end: str = "hold") -> Performance:
    return perform(example_a(end=end))


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
        self.assertEqual((state.index, state.beat, state.complete), (0, 0, True))

    def test_before_the_first_beat_there_is_nothing(self) -> None:
        show = played()
        state = arrive(show, 0, 0)
        self.assertIs(back(show, state, 10), state)

    def test_from_black_it_goes_to_the_last_beat(self) -> None:
        show = played("black")
        state = back(show, cue(show, arrive(show, 2, 0), 50), 100)
        self.assertEqual((state.index, state.over, state.complete), (2, False, True))

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


class GoingOnTest(SimpleTestCase):
    def test_a_slide_goes_on_when_its_time_has_passed_and_its_last_beat_ended(self) -> None:
        show = played()
        self.assertEqual(goes_on_at_ms(show, arrive(show, 0, 100)), 5100)
        self.assertIsNone(goes_on_at_ms(show, arrive(show, 1, 0)), "it leaves on cue")
        self.assertIsNone(goes_on_at_ms(show, arrive(show, 2, 0)), "the show holds at its end")

    def test_while_a_wait_is_open_or_after_a_step_back_only_a_cue_goes_on(self) -> None:
        document = example_a()
        timed = msgspec.structs.replace(document.slides[1], advance=AdvanceAfter(1000))
        show = perform(msgspec.structs.replace(document, slides=(document.slides[0], timed, document.slides[2])))
        state = arrive(show, 1, 0)
        self.assertIsNone(goes_on_at_ms(show, state))
        last = cue(show, cue(show, state, 600), 700)
        self.assertEqual(goes_on_at_ms(show, last), 1000)
        self.assertIsNone(goes_on_at_ms(show, back(show, go_on(show, last, 1000), 1010)))

    def test_cut_short_does_not_wait_for_builds(self) -> None:
        document = example_a(end="loop")
        short = msgspec.structs.replace(document.slides[2], advance=AdvanceAfter(400, True))
        show = perform(msgspec.structs.replace(document, slides=(*document.slides[:2], short)))
        self.assertEqual(goes_on_at_ms(show, arrive(show, 2, 50)), 450)


class SameStateTest(SimpleTestCase):
    def test_live_and_self_running_agree_at_the_end_of_every_beat(self) -> None:
        show = played()
        state, now = arrive(show, 0, 0.0), 0.0
        for index, staged in enumerate(show.slides):
            for beat in range(len(staged.schedule.beats)):
                now += 20_000
                values = object_values(staged.tracks, instant_of(state, now))
                self.assertEqual((state.index, state.beat), (index, beat))
                self.assertEqual(tuple(values.items()), sight_at_rest(show, index, beat).layers[0].objects)
                state = cue(show, state, now)

    @given(st.floats(0, 40_000))
    def test_what_is_seen_depends_only_on_the_instant(self, at: float) -> None:
        show = played("loop")
        one = sight_at(show, at)
        sight_at(show, at / 2)
        self.assertEqual(sight_at(show, at), one)

    def test_the_first_slide_comes_out_of_black_once_and_then_out_of_the_last(self) -> None:
        show = played("loop")
        self.assertEqual([layer.index for layer in sight_at(show, 400).layers], [0])
        again = sight_at(show, 400, first_pass=False)
        self.assertEqual([layer.index for layer in again.layers], [2, 0])
        self.assertEqual(again.layers[0].objects, last_layer(show, 2).objects)

    def test_black_comes_in_600_ms(self) -> None:
        show = played("black")
        self.assertEqual([sight_at(show, at).blackness for at in (32_400, 32_700, 33_000)], [0.0, 0.5, 1.0])
