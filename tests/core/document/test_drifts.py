import itertools

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import Box, Picture, Show, Slide
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.drifts import set_drift, whole_of
from ritornel.core.document.edits import DriftPictures, DriftSlides, apply_edit
from ritornel.core.document.objects import Crop
from ritornel.core.document.show import AdvanceAfter, Asset
from ritornel.core.errors import BadValue
from ritornel.core.schedule.performance import frame_state_at, perform
from tests.examples import shape

PHOTO = Picture("p", "Photo", Box(0, 0, 1280, 720), "photo")
ASSET = Asset("photo", "photo.png", "0" * 64, "image/png", size_bytes=100, width_px=2560, height_px=1440)


class DriftingTest(SimpleTestCase):
    def show(self, picture: Picture = PHOTO, **more: object) -> Show:
        slide = Slide("s", objects=(picture, shape("x")), advance=AdvanceAfter(4000), **more)  # type: ignore[arg-type]
        return Show("show", "Show", slides=(slide,), assets=(ASSET,))

    def test_it_goes_from_one_crop_to_another_over_all_that_the_picture_shows(self) -> None:
        right = set_drift(PHOTO, "right")
        assert right.drift is not None
        self.assertEqual((right.crop, right.drift.ends), (Crop(0.0, 0.09, 0.82, 0.82), Crop(0.18, 0.09, 0.82, 0.82)))
        self.assertEqual(whole_of(right), Crop())
        by_hand = msgspec.structs.replace(right, drift=msgspec.structs.replace(right.drift, still=None))
        self.assertEqual(whole_of(by_hand), Crop(0.0, 0.09, 1.0, 0.82), "what it goes over, where it never stood still")
        closer = set_drift(PHOTO, "closer")
        self.assertEqual(set_drift(set_drift(closer, "farther"), "closer"), closer, "nothing is lost by trying ways")
        self.assertEqual(set_drift(closer, "none"), PHOTO)

    def test_it_lasts_as_long_as_its_slide_and_beats_do_not_touch_it(self) -> None:
        show = perform(self.show(set_drift(PHOTO, "closer")))
        self.assertEqual(show.schedule.slides[0].done_ms, 0, "a drift is not in N")
        drift = [
            dict(frame_state_at(show, at).layers[0].objects)["p", None].drift for at in (0.0, 1000.0, 2000.0, 3000.0)
        ]
        self.assertEqual(drift, [0.0, 0.25, 0.5, 0.75])
        longer = perform(msgspec.structs.replace(self.show(set_drift(PHOTO, "closer")), end="black"))
        self.assertEqual(
            dict(frame_state_at(longer, 4300.0).layers[0].objects)["p", None].drift,
            1.0,
            "it has come to its end when the slide has",
        )

    def test_drawn_it_covers_its_box_from_first_to_last(self) -> None:
        contained = msgspec.structs.replace(set_drift(PHOTO, "closer"), fit="contain", box=Box(0, 0, 400, 400))
        mark = perform(self.show(contained)).slides[0].drawing.objects[0].parts[0].marks[0]
        for x, y, width, height in ((mark.x, mark.y, mark.width, mark.height), mark.drift_to):  # type: ignore[union-attr, misc]
            self.assertLessEqual(max(x, y), 1e-3)
            self.assertGreaterEqual(min(x + width, y + height), 400 - 1e-3)

    def test_one_edit_lets_pictures_drift_and_undo_restores_them_and_only_pictures_drift(self) -> None:
        show = self.show()
        done = apply_edit(show, DriftPictures("s", ("p",), "left"))
        self.assertEqual(done.label, "Let Photo drift")
        self.assertEqual(apply_changes(done.show, done.inverse)[0], show)
        with self.assertRaisesMessage(BadValue, "is not a picture, and only pictures drift. Nothing was changed."):
            apply_edit(show, DriftPictures("s", ("p", "x"), "left"))

    def test_slides_drift_in_turn_so_that_no_two_neighbours_move_alike_and_stand_still_again(self) -> None:
        photos = tuple(Slide(f"s{n}", objects=(msgspec.structs.replace(PHOTO, id=f"p{n}"),)) for n in range(5))
        words = Slide("w", objects=(shape("x"),))
        show = Show("show", "Show", slides=(*photos[:2], words, *photos[2:]), assets=(ASSET,))
        ids = tuple(slide.id for slide in show.slides)
        done = apply_edit(show, DriftSlides(ids, "in turn"))
        ways = [slide.objects[0].drift for slide in done.show.slides if slide.id != "w"]  # type: ignore[union-attr]
        self.assertTrue(all(one != other for one, other in itertools.pairwise(ways)))
        self.assertEqual(done.label, "Let the pictures of 6 slides drift")
        self.assertEqual(apply_edit(done.show, DriftSlides(ids, "none")).show, show)
        self.assertEqual(apply_changes(done.show, done.inverse)[0], show)
        with self.assertRaisesMessage(BadValue, "None of these slides has a picture that could drift."):
            apply_edit(show, DriftSlides(("w",), "closer"))
