from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Box, Frame, Shape, Slide
from ritornel.core.layout.guides import Gap, Guide, Guides, Size, guides_of, snap_box, snap_handle

SLIDE = Slide(
    "s",
    objects=(
        Shape("a", "A", Box(100, 50, 200, 80), "rectangle"),
        Shape("t", "T", Box(500, 300, 60, 60, 30), "rectangle"),
    ),
)
GUIDES = guides_of(SLIDE, Frame())


class GuidesTest(SimpleTestCase):
    def test_frame_and_objects_give_their_edges_and_middles(self) -> None:
        self.assertEqual([guide.at for guide in GUIDES.lines if guide.axis == "x"], [0, 640, 1280, 100, 200, 300, 530])
        self.assertEqual([guide.at for guide in GUIDES.lines if guide.axis == "y"], [0, 360, 720, 50, 90, 130, 330])

    def test_a_box_near_the_middle_snaps_to_it(self) -> None:
        snap = snap_box(Box(543, 500, 200, 100), GUIDES, frozenset(), 6)
        self.assertEqual((snap.dx, snap.x_guide, snap.dy, snap.y_guide), (-3, Guide("x", 640), 0, None))

    def test_what_moves_does_not_snap_to_itself(self) -> None:
        box = Box(103, 52, 200, 80)
        self.assertEqual(snap_box(box, GUIDES, frozenset("a"), 6).x_guide, None)
        self.assertEqual(snap_box(box, GUIDES, frozenset(), 6).dx, -3)

    def test_of_guides_equally_near_the_frames_comes_first(self) -> None:
        slide = Slide("s", objects=(Shape("a", "A", Box(640, 0, 100, 10), "rectangle"),))
        self.assertEqual(
            snap_box(Box(642, 400, 30, 30), guides_of(slide, Frame()), frozenset(), 6).x_guide, Guide("x", 640)
        )

    @given(st.floats(0, 1200), st.floats(0, 700), st.floats(1, 20))
    def test_a_snap_is_never_further_than_its_reach_and_lies_on_its_guide(
        self, x: float, y: float, reach: float
    ) -> None:
        box = Box(x, y, 90, 40)
        snap = snap_box(box, GUIDES, frozenset(), reach)
        self.assertLessEqual(max(abs(snap.dx), abs(snap.dy)), reach)
        if snap.x_guide:
            self.assertLess(min(abs(snap.x_guide.at - (x + snap.dx + 90 * share)) for share in (0, 0.5, 1)), 1e-6)


ROW = Slide(
    "s",
    objects=tuple(
        Shape(name, name, Box(x, 100, 100, 80), "rectangle") for name, x in (("a", 100), ("b", 240), ("c", 700))
    ),
)


class GapTest(SimpleTestCase):
    def test_neighbours_that_stand_beside_one_another_make_a_gap(self) -> None:
        gaps = [gap for gap in guides_of(ROW, Frame()).gaps if gap.axis == "x"]
        self.assertEqual(gaps[0], Gap("x", 100, 200, 240, 340, 100, 180, ("a", "b")))
        self.assertEqual([gap.object_ids for gap in gaps], [("a", "b"), ("b", "c")])

    def test_a_third_box_snaps_to_an_equal_gap_after_before_and_between(self) -> None:
        guides = Guides((), guides_of(ROW, Frame()).gaps)
        after = snap_box(Box(383, 120, 70, 40), guides, frozenset("c"), 6)
        self.assertEqual((after.dx, after.x_gap and after.x_gap.way), (-3, "after"))
        before = snap_box(Box(-35, 120, 90, 40), guides, frozenset("c"), 6)
        self.assertEqual((before.dx, before.x_gap and before.x_gap.way), (5, "before"))
        between = snap_box(Box(208, 120, 20, 40), guides, frozenset("c"), 6)
        self.assertEqual((between.dx, between.x_gap and between.x_gap.way), (2, "between"))

    def test_a_box_that_is_not_beside_them_feels_no_gap(self) -> None:
        self.assertIsNone(
            snap_box(Box(383, 400, 70, 40), Guides((), guides_of(ROW, Frame()).gaps), frozenset("c"), 6).x_gap
        )

    def test_a_place_on_the_neighbouring_slide_counts_only_for_its_own_object(self) -> None:
        item = ROW.objects[0]
        guides = guides_of(ROW, Frame(), [("on the slide before", item, Box(417, 333, 100, 80))])
        self.assertEqual(
            snap_box(Box(415, 500, 100, 80), guides, frozenset("a"), 3).x_guide,
            Guide("x", 417, None, "a", "on the slide before"),
        )
        self.assertIsNone(snap_box(Box(415, 500, 100, 80), guides, frozenset("b"), 3).x_guide)

    def test_a_pulled_edge_finds_a_line_first_and_then_the_length_of_another(self) -> None:
        guides = Guides((Guide("x", 300),), (), (Size("x", 150, "a"),))
        on_line = snap_handle(Box(100, 0, 100, 50), (1, 0.5), (96, 9), guides, frozenset("m"), 6)
        self.assertEqual((on_line.dx, on_line.dy, on_line.x_guide), (100, 9, Guide("x", 300)))
        as_long = snap_handle(Box(100, 0, 100, 50), (1, 0.5), (47, 0), guides, frozenset("m"), 6)
        self.assertEqual((as_long.dx, as_long.x_size), (50, Size("x", 150, "a")))

    def test_what_was_put_aside_gives_no_guides(self) -> None:
        aside = Slide("s", objects=(Shape("a", "A", Box(100, 50, 200, 80), "rectangle", aside=True),))
        self.assertEqual(len(guides_of(aside, Frame()).lines), 6)
