import msgspec
from django.test import SimpleTestCase

from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits import apply_edit
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.take import Arrived, Cued, Take, check_take, follow_timing, timing_of, use_timing
from ritornel.core.schedule import compile_show
from tests.examples import example_a

TAKE = Take(
    (
        Arrived("one", 0),
        Arrived("two", 6200),
        Cued("first", 8000, 1300),
        Cued("second", 10_000, 900),
        Arrived("one", 12_000),
        Arrived("two", 12_500),
        Cued("first", 13_000, 0),
        Cued("out", 16_000, 2100),
        Arrived("three", 16_000),
    ),
    40_000,
)


class StoredTest(SimpleTestCase):
    def test_a_take_is_stored_without_what_is_as_usual_and_read_without_anything_unknown(self) -> None:
        stored = msgspec.json.encode(Take((), 40_000))
        self.assertEqual(stored, b'{"events":[],"ended_ms":40000}')
        with self.assertRaises(msgspec.ValidationError):
            msgspec.json.decode(stored.replace(b"}", b',"clock":"tower"}'), type=Take)


class TimingTest(SimpleTestCase):
    def test_visits_add_up_and_the_last_hold_counts(self) -> None:
        timing = timing_of(TAKE)
        self.assertEqual(timing.slide_ms, {"one": 6700, "two": 9300, "three": 24_000})
        self.assertEqual(timing.hold_ms, {"first": 0, "second": 900, "out": 2100})

    def test_using_it_writes_holds_and_lengths_and_keeps_how_slides_advance(self) -> None:
        show = example_a()
        edit, notices = use_timing(show, timing_of(TAKE), "take 1")
        outcome = apply_edit(show, edit)
        schedule = compile_show(outcome.show)
        self.assertEqual([wait.hold_ms for wait in (beat.wait for beat in schedule.slides[1].beats) if wait], [0, 900])
        self.assertEqual([s.length_ms for s in schedule.slides], [6700, 500 + 1000 + 900 + 200 + 2100, 24_000])
        self.assertEqual((notices, outcome.label), ((), "Use the timing of take 1"))
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], show)

    def test_a_show_that_follows_a_take_keeps_its_own_holds_and_lengths(self) -> None:
        show = example_a()
        edit, notices = follow_timing(show, timing_of(TAKE), "take 1")
        outcome = apply_edit(show, edit)
        before, after = compile_show(show), compile_show(outcome.show)
        waits = [(wait.cue_id, wait.hold_ms, wait.source) for wait in after.slides[1].waits]
        # The cue `second` has a hold of its own, 3 500: it comes before what a take measured.
        self.assertEqual(waits, [("first", 0, "take"), ("second", 3500, "own hold"), ("out", 2100, "take")])
        self.assertEqual(
            [s.length_ms for i, s in enumerate(after.slides) if i != 1],
            [s.length_ms for i, s in enumerate(before.slides) if i != 1],
        )
        self.assertEqual((outcome.show.follows_take, outcome.label), ("take 1", "Follow take 1"))
        self.assertEqual(notices, ("1 wait of these keeps its own hold or voice mark.",))
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], show)

    def test_what_the_show_no_longer_has_is_told(self) -> None:
        stranger = Take((Arrived("gone", 0), Cued("lost", 5, 5)), 10)
        _, notices = use_timing(example_a(), timing_of(stranger), "take 2")
        self.assertEqual(
            notices,
            (
                "1 wait of this take belongs to a cue that is no longer in the show.",
                "1 slide of this take is no longer in the show.",
            ),
        )

    def test_a_take_without_any_event_says_nothing(self) -> None:
        timing = timing_of(Take((), 5))
        self.assertEqual((timing.slide_ms, timing.hold_ms), ({}, {}))

    def test_events_out_of_order_are_refused(self) -> None:
        with self.assertRaisesMessage(BadValue, "event 2 is at 4 ms, out of order"):
            check_take(Take((Arrived("one", 5), Arrived("two", 4)), 10))
        with self.assertRaises(BadValue):
            check_take(Take((Arrived("one", 50),), 10))
