import itertools
import math

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import Build, Follows, Frame, OnCue, Show, Slide, Together, Transition
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits import (
    AddFraming,
    ChangeBuild,
    ChangeFraming,
    ChangeSize,
    DuplicateSlides,
    RemoveFraming,
    apply_edit,
)
from ritornel.core.document.framings import FLY, WHOLE
from ritornel.core.document.show import AdvanceAfter, Framing
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.motion.channels import Values
from ritornel.core.schedule.performance import frame_state_at, frame_state_at_rest, perform
from tests.examples import shape

DIAL = Framing("dial", "Dial", 640.0, 360.0, 640.0)
BELL = Framing("bell", "Bell", 2000.0, 1000.0, 320.0, 90.0)


def wall(*order: Build, **more: object) -> Show:
    fields = {"size": Frame(2560, 1440), "framings": (DIAL, BELL), "objects": (shape("x"),), **more}
    return Show("show", "The wall", slides=(Slide("w", "Wall", order=order, **fields),))  # type: ignore[arg-type]


def fly(build_id: str, to: str, cue: bool = True, **more: object) -> Build:
    return Build(id=build_id, object_id=to, effect=FLY, starts=OnCue(f"c-{build_id}") if cue else Follows(), **more)  # type: ignore[arg-type]


def seen(view: Values, x: float, y: float) -> tuple[float, float]:
    """Where the frame shows a point of the slide."""
    angle = math.radians(view.turn)
    dx, dy = (x - 640) * view.scale, (y - 360) * view.scale
    return 640 + view.x + dx * math.cos(angle) - dy * math.sin(angle), 360 + view.y + dx * math.sin(
        angle
    ) + dy * math.cos(angle)


class ViewedTest(SimpleTestCase):
    def test_a_large_slide_is_seen_whole_until_the_view_flies_to_a_framing_and_back(self) -> None:
        show = perform(wall(fly("a", "dial"), fly("b", "bell"), fly("c", WHOLE)))
        whole, dial, bell, again = (frame_state_at_rest(show, 0, beat).layers[0].view for beat in range(4))
        self.assertEqual((whole.scale, whole.x, whole.y), (0.5, -320.0, -180.0))
        self.assertEqual((dial.scale, dial.x, dial.y), (2.0, 0.0, 0.0))
        self.assertAlmostEqual(bell.scale, 4.0)
        for value, wanted in zip(seen(bell, 2000, 1000), (640, 360), strict=True):
            self.assertAlmostEqual(value, wanted)
        # Turned by a right angle, what lies to the right of the middle is seen above it.
        self.assertLess(seen(bell, 2010, 1000)[1], 330)
        self.assertEqual((again.scale, again.turn), (whole.scale, 0.0))

    def test_a_flight_lasts_as_its_way_takes_unless_its_length_was_set(self) -> None:
        show = wall(fly("a", "dial"), fly("b", WHOLE))
        self.assertEqual(perform(show).schedule.slides[0].builds[0].lasts_ms, 1792)
        set_by_hand = apply_edit(show, ChangeBuild("w", "a", {"lasts_ms": 500})).show
        lengths = [time.lasts_ms for time in perform(set_by_hand).schedule.slides[0].builds]
        self.assertEqual(lengths, [500, 1792])
        larger = apply_edit(show, ChangeFraming("w", "dial", {"width_px": 2000})).show
        self.assertNotEqual(perform(larger).schedule.slides[0].builds[0].lasts_ms, 1792)

    def test_in_the_middle_of_a_flight_the_view_is_between_and_what_it_looks_at_does_not_jump(self) -> None:
        show = perform(wall(fly("a", "dial", cue=False, pace="even"), advance=AdvanceAfter(3000)))
        views = [frame_state_at(show, float(at)).layers[0].view for at in range(0, 1300, 10)]
        scales = [view.scale for view in views]
        self.assertEqual(scales, sorted(scales))
        steps = [math.dist(seen(a, 640, 360), seen(b, 640, 360)) for a, b in itertools.pairwise(views)]
        self.assertLess(max(steps), 12)

    def test_a_slide_opens_on_a_framing_and_two_flights_of_one_beat_go_one_after_the_other(self) -> None:
        show = perform(wall(fly("a", "bell", cue=False), fly("b", WHOLE, cue=False), opens_on="dial"))
        self.assertEqual(frame_state_at(show, 0.0).layers[0].view.scale, 2.0)
        self.assertEqual(frame_state_at_rest(show, 0, 0).layers[0].view.scale, 0.5)

    def test_a_framing_outside_is_refused_and_nothing_changes(self) -> None:
        show = wall()
        with self.assertRaisesMessage(
            BadValue, "The framing “Attic” would look past the slide: its middle, 3000, 100, is outside 2560 × 1440."
        ):
            apply_edit(show, AddFraming("w", Framing("attic", "Attic", 3000, 100, 400)))
        with self.assertRaisesMessage(BadValue, "The framing “Bell” would look past the slide"):
            apply_edit(show, ChangeSize("w", None))
        with self.assertRaisesMessage(BadValue, "is smaller than the frame"):
            apply_edit(show, ChangeSize("w", Frame(800, 2000)))
        with self.assertRaisesMessage(UnknownName, "takes the view to a framing"):
            apply_edit(show, AddFraming("w", Framing("attic", "Attic", 300, 100, 400), fly("z", "cellar")))

    def test_removing_a_framing_takes_its_flights_along_and_undo_brings_them_back(self) -> None:
        show = wall(
            fly("a", "dial"),
            Build(id="x", object_id="x", effect="enters fade", starts=Together()),
            fly("b", "bell"),
            opens_on="dial",
        )
        done = apply_edit(show, RemoveFraming("w", "dial"))
        slide = done.show.slides[0]
        self.assertEqual([build.id for build in slide.order], ["x", "b"])
        self.assertEqual(slide.order[0].starts, OnCue("c-a"), "what came together with it inherits its cue")
        self.assertIsNone(slide.opens_on)
        self.assertEqual(apply_changes(done.show, done.inverse)[0], show)

    def test_a_copy_has_framings_of_its_own(self) -> None:
        copied = apply_edit(
            wall(fly("a", "dial"), fly("b", WHOLE), opens_on="bell"), DuplicateSlides(("w",), "two")
        ).show.slides[1]
        self.assertEqual([framing.id for framing in copied.framings], ["two-f0", "two-f1"])
        self.assertEqual([build.object_id for build in copied.order], ["two-f0", WHOLE])
        self.assertEqual(copied.opens_on, "two-f1")

    def test_a_carry_out_of_a_framing_takes_what_is_seen_from_where_it_is_seen(self) -> None:
        first = wall(fly("a", "dial", cue=False), advance=AdvanceAfter(3000)).slides[0]
        box = msgspec.structs.replace(first.objects[0], id="y", lineage="x")
        second = Slide("t", objects=(box,), transition=Transition("carry", 1000, "even"))
        show = perform(Show("show", "Two", slides=(first, second)))
        at_start = frame_state_at(show, show.schedule.starts_ms[1] + 0.001).layers[-1]
        moved = dict(at_start.objects)["y", None]
        drawn = show.slides[0].drawing.objects[0]
        wanted = seen(
            frame_state_at_rest(show, 0, 0).layers[0].view, drawn.x + drawn.width / 2, drawn.y + drawn.height / 2
        )
        self.assertAlmostEqual(drawn.x + drawn.width / 2 + moved.x, wanted[0], places=1)
        self.assertAlmostEqual(moved.scale, 2.0, places=3)
