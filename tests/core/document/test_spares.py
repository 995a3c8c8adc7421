"""What a layout has no place for lies beside the slide, and comes back from there."""

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import Box, Build, Follows, Frame, OnCue, Shape, Show, Slide, Together
from ritornel.core.document import edits as e
from ritornel.core.document.copying import copy_of_slide
from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.layouts import LAYOUTS, box_of
from ritornel.core.document.objects import GoToSlide, Picture
from ritornel.core.document.show import Asset
from ritornel.core.document.uses import uses_of
from ritornel.core.errors import RitornelError, UnknownName
from tests.examples import text

FRAME = Frame()
WHEEL = Asset("wheel", "Wheel", "ab" * 32, "image/jpeg", size_bytes=10, width_px=400, height_px=300)


def show_of(**more: object) -> Show:
    words = msgspec.structs.replace(text("w", "It runs"), name="Words", place="words", box=Box(1, 2, 300, 40))
    picture = Picture("p", "Wheel", Box(600, 200, 400, 300), "wheel", place="picture", press=GoToSlide("b"))
    bell = Shape("x", "Bell", Box(10, 10, 20, 20), "star")
    order = (
        Build(id="b1", object_id="p", effect="enters fade", starts=OnCue("q1")),
        Build(id="b2", object_id="x", effect="enters fade", starts=Together()),
        Build(id="b3", object_id="p", effect="leaves fade", starts=OnCue("q2")),
    )
    slide = Slide("a", "Works", layout="text and picture", objects=(words, picture, bell), order=order, **more)  # type: ignore[arg-type]
    return Show("s", "S", slides=(slide, Slide("b", "Bell")), assets=(WHEEL,))


class SpareTest(SimpleTestCase):
    def setUp(self) -> None:
        self.show = show_of()
        self.outcome = e.apply_edit(self.show, e.ChangeLayout(("a",), "heading and text"))
        self.slide = self.outcome.show.slides[0]

    def test_what_has_no_place_leaves_the_slide_with_its_builds_and_is_told(self) -> None:
        self.assertEqual([item.id for item in self.slide.objects], ["w", "x"])
        (spare,) = self.slide.spares
        self.assertEqual((spare.object.id, [build.id for build in spare.order]), ("p", ["b1", "b3"]))
        self.assertEqual(self.outcome.notices, ("The layout has no place for Wheel; it lies beside the slide.",))
        check_integrity(self.outcome.show)

    def test_the_beat_it_opened_is_opened_by_what_is_left_and_no_cue_is_there_twice(self) -> None:
        self.assertEqual([build.starts for build in self.slide.order], [OnCue("q1")])
        self.assertEqual([build.starts for build in self.slide.spares[0].order], [Follows(), OnCue("q2")])
        back = e.apply_edit(self.outcome.show, e.BringBack("a", "p")).show
        check_integrity(back)
        self.assertEqual([build.id for build in back.slides[0].order], ["b2", "b1", "b3"])

    def test_it_comes_back_where_it_stood_and_undo_restores_exactly(self) -> None:
        back = e.apply_edit(self.outcome.show, e.BringBack("a", "p"))
        item = back.show.slides[0].objects[-1]
        self.assertEqual((item.box, item.place, back.show.slides[0].spares), (Box(600, 200, 400, 300), "", ()))
        changes, _ = e.apply_changes(back.show, back.inverse)
        self.assertEqual(changes, self.outcome.show)

    def test_a_layout_that_has_its_place_takes_it_up_again_by_itself(self) -> None:
        again = e.apply_edit(self.outcome.show, e.ChangeLayout(("a",), "picture")).show.slides[0]
        self.assertEqual([item.id for item in again.objects], ["x", "p"])
        self.assertEqual(again.objects[-1].box, box_of(LAYOUTS["picture"].places[0], FRAME))
        self.assertEqual([spare.object.id for spare in again.spares], ["w"])

    def test_a_layout_without_places_leaves_everything_where_it_is(self) -> None:
        blank = e.apply_edit(self.show, e.ChangeLayout(("a",), "blank")).show.slides[0]
        self.assertEqual((len(blank.objects), blank.spares), (3, ()))

    def test_a_press_on_it_does_nothing_where_its_slide_has_gone_meanwhile(self) -> None:
        without = e.apply_edit(self.outcome.show, e.RemoveSlides(("b",))).show
        back = e.apply_edit(without, e.BringBack("a", "p")).show
        self.assertIsNone(back.slides[0].objects[-1].press)
        check_integrity(back)

    def test_its_media_are_in_use_and_are_replaced_with_the_others(self) -> None:
        self.assertEqual(uses_of(self.outcome.show)["wheel"], ["a"])
        with self.assertRaises(RitornelError):
            e.apply_edit(self.outcome.show, e.DropAssets(("wheel",)))
        other = msgspec.structs.replace(WHEEL, id="dial", sha256="cd" * 32)
        show = msgspec.structs.replace(self.outcome.show, assets=(WHEEL, other))
        spare = e.apply_edit(show, e.ReplaceAsset("wheel", "dial")).show.slides[0].spares[0]
        self.assertEqual(spare.object.asset_id, "dial")  # type: ignore[union-attr]

    def test_it_is_removed_for_good_and_copies_of_the_slide_are_without_it(self) -> None:
        gone = e.apply_edit(self.outcome.show, e.RemoveSpare("a", "p")).show.slides[0]
        self.assertEqual(gone.spares, ())
        self.assertEqual(copy_of_slide(self.slide, "k").spares, ())
        with self.assertRaisesMessage(UnknownName, "does not lie beside slide “Works” any more"):
            e.apply_edit(self.show, e.BringBack("a", "p"))
