import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import Build, Follows, Transition
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.motion.channels import STILL
from ritornel.core.schedule.performance import builtins_of, frame_state_at, perform
from ritornel.demo.orlmere import orlmere
from tests.examples import example_a, text


class PerformanceTest(SimpleTestCase):
    def test_what_cannot_be_performed_is_named(self) -> None:
        show = example_a()
        for slide, error, words in (
            (
                msgspec.structs.replace(show.slides[0], transition=Transition("swoop", 100)),
                UnknownName,
                "There is no transition “swoop”",
            ),
            (
                msgspec.structs.replace(
                    show.slides[0], transition=Transition("push", 100, settings={"comes_from": "Mars"})
                ),
                BadValue,
                "The transition push",
            ),
            (
                msgspec.structs.replace(
                    show.slides[0], order=(Build(id="b", object_id="title", effect="sings", starts=Follows()),)
                ),
                UnknownName,
                "There is no effect “sings”",
            ),
            (
                msgspec.structs.replace(
                    show.slides[0], objects=(text("title", "a", family="None"), show.slides[0].objects[1])
                ),
                UnknownName,
                "no font family",
            ),
        ):
            with self.assertRaisesMessage(error, words):
                perform(msgspec.structs.replace(show, slides=(slide,)))

    def test_skipped_slides_are_not_performed(self) -> None:
        show = example_a()
        skipped = msgspec.structs.replace(show.slides[0], skipped=True)
        self.assertEqual(
            [s.slide.id for s in perform(msgspec.structs.replace(show, slides=(skipped, *show.slides[1:]))).slides],
            ["two", "three"],
        )

    def test_the_browser_gets_all_it_needs_as_plain_json(self) -> None:
        body = builtins_of(perform(orlmere()), {"bell": "/x"})
        again = msgspec.json.decode(msgspec.json.encode(body))
        self.assertEqual(again["media"], {"bell": "/x"})
        self.assertEqual([slide["id"] for slide in again["slides"]][:2], ["noon-s", "who-s"])
        self.assertEqual(again["slides"][1]["schedule"]["beats"][1]["wait"]["source"], "own hold")
        self.assertEqual(again["music"][0]["passes"][1], [23_600, 47_600, 400, 400, 24_000])

    def test_a_slide_that_stands_is_seen_wholly_and_stands_still(self) -> None:
        (layer,) = frame_state_at(perform(example_a()), 3000).layers
        self.assertEqual((layer.values, layer.ground, layer.view, layer.ground_played), (STILL, 1.0, STILL, None))

    def test_the_old_slide_keeps_what_showed_at_its_last_instant(self) -> None:
        show = perform(example_a())
        layers = frame_state_at(show, 5250).layers
        self.assertEqual([layer.index for layer in layers], [0, 1])
        self.assertEqual(dict(layers[0].objects)[("title", None)].opacity, 1.0)

    def test_during_a_push_both_slides_touch(self) -> None:
        layers = frame_state_at(perform(example_a()), 5250).layers
        self.assertAlmostEqual(layers[1].values.x - layers[0].values.x, 1280)
