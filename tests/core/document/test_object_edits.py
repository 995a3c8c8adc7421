"""Several objects at once, and what is copied, grouped, split and joined."""

import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import (
    Box,
    Build,
    Follows,
    Frame,
    OnCue,
    Paragraph,
    Picture,
    Plain,
    Shape,
    Show,
    Slide,
    Stroke,
    Text,
    TextRun,
    Together,
)
from ritornel.core.document import edits as e
from ritornel.core.document.alignment import arrange_boxes, bounds_around, bounds_of
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits.shelf import uses_of
from ritornel.core.document.edits.texts import WrittenParagraph
from ritornel.core.document.freehand import outline_of_points, thin_points
from ritornel.core.document.objects import Crop, GoToSlide
from ritornel.core.document.picture_fit import fit_picture
from ritornel.core.document.show import Asset
from ritornel.core.errors import BadValue, UnknownName
from tests.examples import text

NUMBERS = st.floats(-500, 1500).map(lambda value: round(value, 1))
BOXES = st.builds(Box, NUMBERS, NUMBERS, st.floats(1, 400), st.floats(1, 400), st.sampled_from([0.0, 30.0, 90.0]))


def boxed(name: str, x: float, y: float, width: float = 100, height: float = 50, **more: object) -> Shape:
    return Shape(name, name.upper(), Box(x, y, width, height), "rectangle", **more)  # type: ignore[arg-type]


def asset(name: str) -> Asset:
    return Asset(
        name, name.title(), f"{ord(name[0]):02x}" * 32, "image/jpeg", size_bytes=10, width_px=400, height_px=300
    )


def show_of(*objects: object, **more: object) -> Show:
    slide = Slide("s", "Works", objects=objects, **more)  # type: ignore[arg-type]
    return Show("show", "Show", slides=(slide,), assets=(asset("wheel"), asset("bell")))


def boxes(show: Show) -> dict[str, Box]:
    return {item.id: item.box for item in show.slides[0].objects}


class ArrangeTest(SimpleTestCase):
    def test_lining_up_goes_by_the_box_around_all_and_a_lone_object_by_the_frame(self) -> None:
        show = show_of(boxed("a", 10, 20), boxed("b", 300, 90, 60))
        left = boxes(e.apply_edit(show, e.ArrangeObjects("s", ("a", "b"), "left")).show)
        self.assertEqual((left["a"].x, left["b"].x, left["b"].y), (10, 10, 90))
        alone = boxes(e.apply_edit(show, e.ArrangeObjects("s", ("a",), "right")).show)
        self.assertEqual(alone["a"].x, 1180)

    def test_spreading_makes_equal_gaps_and_keeps_the_outer_two(self) -> None:
        show = show_of(boxed("a", 0, 0), boxed("b", 120, 0), boxed("c", 500, 0))
        spread = boxes(e.apply_edit(show, e.ArrangeObjects("s", ("a", "b", "c"), "spread across")).show)
        self.assertEqual([spread[name].x for name in "abc"], [0, 250, 500])
        with self.assertRaisesMessage(BadValue, "at least three"):
            e.apply_edit(show, e.ArrangeObjects("s", ("a", "b"), "spread across"))

    def test_a_group_keeps_together(self) -> None:
        show = show_of(boxed("a", 100, 0, group="g"), boxed("b", 160, 30, group="g"), boxed("c", 40, 300))
        after = boxes(e.apply_edit(show, e.ArrangeObjects("s", ("a", "b", "c"), "left")).show)
        self.assertEqual((after["a"].x, after["b"].x, after["c"].x), (40, 100, 40))

    def test_same_width_keeps_the_middle(self) -> None:
        after = boxes(
            e.apply_edit(
                show_of(boxed("a", 0, 0, 200), boxed("b", 100, 0, 100)), e.ArrangeObjects("s", ("a", "b"), "same width")
            ).show
        )
        self.assertEqual(after["b"], Box(50, 0, 200, 50))

    @given(
        st.lists(BOXES, min_size=3, max_size=6), st.sampled_from(["left", "centre", "right", "top", "middle", "bottom"])
    )
    def test_lining_up_twice_is_lining_up_once_and_stays_within_the_box_around(self, many: list[Box], how: str) -> None:
        units = [[box] for box in many]
        once = arrange_boxes(units, how, Frame())  # type: ignore[arg-type]
        twice = arrange_boxes(once, how, Frame())  # type: ignore[arg-type]
        for first, second in zip(once, twice, strict=True):
            self.assertAlmostEqual(first[0].x, second[0].x, delta=0.11)
            self.assertAlmostEqual(first[0].y, second[0].y, delta=0.11)
        whole, after = bounds_of(bounds_around(many)), bounds_of(bounds_around([unit[0] for unit in once]))
        self.assertTrue(all(a >= w - 0.2 for a, w in zip(after[:2], whole[:2], strict=True)))
        self.assertTrue(all(a <= w + 0.2 for a, w in zip(after[2:], whole[2:], strict=True)))

    def test_a_turned_box_is_lined_up_as_it_is_seen(self) -> None:
        self.assertEqual([round(v, 3) for v in bounds_of(Box(0, 0, 100, 50, 90))], [25, -25, 75, 75])


class SeveralTest(SimpleTestCase):
    def test_moving_leaves_locked_objects_and_says_so_where_all_are(self) -> None:
        show = show_of(boxed("a", 0, 0), boxed("b", 0, 0, locked=True))
        after = boxes(e.apply_edit(show, e.MoveObjects("s", ("a", "b"), 5.04, -3)).show)
        self.assertEqual((after["a"].x, after["a"].y, after["b"].x), (5, -3, 0))
        with self.assertRaisesMessage(BadValue, "locked"):
            e.apply_edit(show, e.MoveObjects("s", ("b",), 5, 5))

    def test_a_change_to_several_goes_to_those_that_have_the_field(self) -> None:
        show = show_of(boxed("a", 0, 0), Picture("p", "P", Box(0, 0, 9, 9), "wheel"))
        after = e.apply_edit(show, e.ChangeObjects("s", ("a", "p"), {"opacity": 0.5, "fit": "contain"})).show.slides[0]
        self.assertEqual([item.opacity for item in after.objects], [0.5, 0.5])
        self.assertEqual(after.objects[1].fit, "contain")

    def test_pulling_the_box_around_several_scales_places_and_sizes(self) -> None:
        show = show_of(boxed("a", 0, 0), boxed("b", 100, 100))
        after = boxes(e.apply_edit(show, e.ScaleObjects("s", ("a", "b"), Box(0, 0, 400, 300))).show)
        self.assertEqual((after["a"], after["b"]), (Box(0, 0, 200, 100), Box(200, 200, 200, 100)))

    def test_stacking_keeps_the_order_among_those_that_are_moved(self) -> None:
        show = show_of(*(boxed(name, 0, 0) for name in "abcd"))
        after = e.apply_edit(show, e.StackObjects("s", ("c", "a"), 9)).show
        self.assertEqual([item.id for item in after.slides[0].objects], ["b", "d", "a", "c"])

    def test_a_copied_look_carries_what_both_have(self) -> None:
        show = show_of(
            boxed("a", 0, 0, fill=Plain("@accent"), stroke=Stroke("#000000", 3)),
            Picture("p", "P", Box(0, 0, 9, 9), "wheel"),
        )
        after = e.apply_edit(show, e.CopyLook("s", show.slides[0].objects[0], ("p",))).show.slides[0].objects[1]
        self.assertEqual((after.stroke, after.box), (Stroke("#000000", 3), Box(0, 0, 9, 9)))

    def test_copied_builds_join_those_of_the_original_without_a_new_wait(self) -> None:
        order = (
            Build(id="x", object_id="a", effect="enters fade", starts=OnCue("q"), after_ms=0, lasts_ms=400),
            Build(id="y", object_id="a", effect="leaves fade", starts=Follows(), after_ms=100, lasts_ms=300),
        )
        show = show_of(boxed("a", 0, 0), boxed("b", 0, 0), order=order)
        after = e.apply_edit(show, e.CopyBuilds("s", "a", ("b",), "n")).show.slides[0].order
        self.assertEqual(
            [(b.object_id, b.starts) for b in after],
            [("a", OnCue("q")), ("b", Together()), ("a", Follows()), ("b", Together())],
        )
        with self.assertRaisesMessage(BadValue, "no builds to copy"):
            e.apply_edit(show, e.CopyBuilds("s", "b", ("a",), "n"))

    def test_as_on_the_slide_before_goes_by_lineage_and_then_by_name(self) -> None:
        one = Slide("one", objects=(boxed("a", 7, 8), boxed("b", 70, 80)))
        two = Slide(
            "two",
            objects=(
                boxed("x", 0, 0, lineage="a"),
                msgspec.structs.replace(boxed("y", 0, 0), name="B"),
                boxed("z", 0, 0),
            ),
        )
        show = Show("show", "Show", slides=(one, two))
        after = e.apply_edit(show, e.PlaceAsBefore("two", ("x", "y", "z"))).show.slides[1]
        self.assertEqual([item.box.x for item in after.objects], [7, 70, 0])
        with self.assertRaisesMessage(BadValue, "no counterpart"):
            e.apply_edit(show, e.PlaceAsBefore("one", ("a",)))


class TextsTest(SimpleTestCase):
    def show(self) -> Show:
        order = (
            Build(id="one", object_id="t", effect="enters fade", starts=OnCue("q1"), part="t-1"),
            Build(id="two", object_id="t", effect="enters fade", starts=OnCue("q2"), part="t-2"),
        )
        return show_of(text("t", "First", "Second"), order=order)

    def test_written_paragraphs_keep_ids_looks_and_builds(self) -> None:
        written = (
            WrittenParagraph((TextRun("Second", weight=700),), "bullets", 1, "t-2"),
            WrittenParagraph((TextRun("New"),), id="t-2"),
        )
        outcome = e.apply_edit(self.show(), e.WriteText("s", "t", written, "n"))
        slide = outcome.show.slides[0]
        self.assertEqual(
            [(p.id, p.list, p.level) for p in slide.objects[0].paragraphs], [("t-2", "bullets", 1), ("n-2", "none", 0)]
        )  # type: ignore[union-attr]
        self.assertEqual([b.part for b in slide.order], ["t-2"])
        self.assertEqual(outcome.notices, ("1 build of removed paragraphs went with them.",))

    def test_a_written_link_must_be_an_address_that_runs_nothing(self) -> None:
        with self.assertRaises(msgspec.ValidationError):
            msgspec.convert({"text": "x", "link": "javascript:alert(1)"}, TextRun)

    def test_splitting_makes_one_text_a_paragraph_with_its_builds_and_joining_brings_them_back(self) -> None:
        split = e.apply_edit(self.show(), e.SplitText("s", "t", "n", (0, 40))).show
        slide = split.slides[0]
        self.assertEqual([(item.id, item.box.y) for item in slide.objects], [("t", 100), ("n-1", 140)])
        self.assertEqual([(b.object_id, b.part) for b in slide.order], [("t", None), ("n-1", None)])
        joined = e.apply_edit(split, e.JoinTexts("s", ("n-1", "t"))).show.slides[0]
        self.assertEqual([p.text for p in joined.objects[0].paragraphs], ["First", "Second"])  # type: ignore[union-attr]
        self.assertEqual([(b.object_id, b.part) for b in joined.order], [("t", "t-1"), ("t", "t-2")])

    def test_joining_wants_texts(self) -> None:
        with self.assertRaisesMessage(BadValue, "nothing but texts"):
            e.apply_edit(show_of(text("t", "x"), boxed("a", 0, 0)), e.JoinTexts("s", ("t", "a")))


class DrawnPathTest(SimpleTestCase):
    def test_points_near_a_line_are_left_out(self) -> None:
        self.assertEqual(thin_points([(0, 0), (50, 0.4), (100, 0), (100, 80)], 1.0), [(0, 0), (100, 0), (100, 80)])

    def test_an_outline_is_in_shares_of_the_box_around_it(self) -> None:
        box, path = outline_of_points([(10, 20), (110, 20), (110, 70)], closed=True, smooth=False)
        self.assertEqual((box, path), (Box(10, 20, 100, 50), "M 0 0 L 1 0 L 1 1 Z"))

    @given(
        st.lists(st.tuples(st.floats(-100, 1400), st.floats(-100, 900)), min_size=2, max_size=60),
        st.booleans(),
        st.booleans(),
    )
    def test_every_drawing_becomes_a_shape_that_decodes_again(
        self, points: list[tuple[float, float]], closed: bool, smooth: bool
    ) -> None:
        outcome = e.apply_edit(show_of(), e.AddDrawing("s", boxed("d", 0, 0), tuple(points), closed, smooth))
        item = outcome.show.slides[0].objects[0]
        self.assertEqual(msgspec.json.decode(msgspec.json.encode(item), type=Shape), item)

    def test_too_many_points_are_refused(self) -> None:
        with self.assertRaisesMessage(BadValue, "20,001 points"):
            outline_of_points([(0, 0)] * 20_001, False, True)


class ShelfTest(SimpleTestCase):
    def show(self) -> Show:
        return show_of(
            Picture("p", "P", Box(3, 4, 50, 60), "wheel", crop=Crop(0.1, 0, 0.5, 1)),
            order=(Build(id="b", object_id="p", effect="enters fade", starts=OnCue("q")),),
        )

    def test_where_things_are_used(self) -> None:
        self.assertEqual(uses_of(self.show()), {"wheel": ["s"]})

    def test_replacing_here_or_everywhere_keeps_place_crop_and_builds(self) -> None:
        show = self.show()
        for edit in (e.ReplacePicture("s", "p", "bell"), e.ReplaceAsset("wheel", "bell")):
            after = e.apply_edit(show, edit).show.slides[0]
            self.assertEqual(
                after,
                msgspec.structs.replace(
                    show.slides[0], objects=(msgspec.structs.replace(show.slides[0].objects[0], asset_id="bell"),)
                ),
            )
        with self.assertRaisesMessage(BadValue, "used nowhere"):
            e.apply_edit(show, e.ReplaceAsset("bell", "wheel"))

    def test_what_is_used_is_not_dropped_and_the_slide_is_named(self) -> None:
        with self.assertRaisesMessage(BadValue, "“Wheel” is still used on slide “Works”"):
            e.apply_edit(self.show(), e.DropAssets(("bell", "wheel")))

    def test_names_and_credits_change_and_nothing_else(self) -> None:
        after = e.apply_edit(
            self.show(), e.ChangeAsset("wheel", {"name": "Escape wheel", "licence": "CC BY 4.0", "author": "A. Winder"})
        ).show
        self.assertEqual((after.assets[0].name, after.assets[0].licence), ("Escape wheel", "CC BY 4.0"))
        with self.assertRaisesMessage(BadValue, "no field “sha256”"):
            e.apply_edit(self.show(), e.ChangeAsset("wheel", {"sha256": "0" * 64}))
        with self.assertRaisesMessage(BadValue, "needs a name"):
            e.apply_edit(self.show(), e.ChangeAsset("wheel", {"name": " "}))


class CutTest(SimpleTestCase):
    """The wheel's picture is 400 x 300 px."""

    def cut(self, picture: Picture, box: Box) -> Picture:
        after = e.apply_edit(show_of(picture), e.CutPicture("s", picture.id, box)).show.slides[0].objects[0]
        assert isinstance(after, Picture)
        return after

    def test_the_crop_follows_the_box_and_the_rest_stays_where_it_is(self) -> None:
        after = self.cut(Picture("p", "P", Box(0, 0, 400, 300), "wheel"), Box(100, 0, 300, 300))
        self.assertEqual((after.box, after.crop), (Box(100, 0, 300, 300), Crop(0.25, 0, 0.75, 1)))
        self.assertEqual(fit_picture(after, 400, 300), (-100, 0, 400, 300))

    def test_pulled_outwards_it_shows_again_what_was_cut_off_and_no_more(self) -> None:
        cut = Picture("p", "P", Box(100, 0, 300, 300), "wheel", crop=Crop(0.25, 0, 0.75, 1))
        after = self.cut(cut, Box(-500, -50, 1000, 400))
        self.assertEqual((after.box, after.crop), (Box(0, 0, 400, 300), Crop()))

    def test_a_flipped_picture_is_cut_on_the_side_that_is_seen(self) -> None:
        after = self.cut(Picture("p", "P", Box(0, 0, 400, 300), "wheel", flip_x=True), Box(100, 0, 300, 300))
        self.assertEqual(after.crop, Crop(0, 0, 0.75, 1))

    def test_a_turned_picture_is_cut_along_its_own_sides(self) -> None:
        after = self.cut(Picture("p", "P", Box(0, 0, 400, 300, 90), "wheel"), Box(0, 50, 400, 200, 90))
        self.assertEqual((after.crop.width, after.crop.height), (1, 0.666667))

    def test_nothing_left_is_refused(self) -> None:
        with self.assertRaisesMessage(BadValue, "nothing of it would be left"):
            self.cut(Picture("p", "P", Box(0, 0, 400, 300), "wheel"), Box(900, 0, 300, 300))

    @given(
        st.floats(-50, 200), st.floats(-50, 200), st.floats(60, 300), st.floats(60, 300), st.booleans(), st.booleans()
    )
    def test_whatever_is_cut_lies_where_it_lay(
        self, x: float, y: float, width: float, height: float, flip_x: bool, flip_y: bool
    ) -> None:
        picture = Picture("p", "P", Box(0, 0, 400, 300), "wheel", flip_x=flip_x, flip_y=flip_y)
        after = self.cut(picture, Box(x, y, width, height))
        before_place, place = fit_picture(picture, 400, 300), fit_picture(after, 400, 300)
        for at in (0, 1):
            self.assertAlmostEqual(place[at] + (after.box.x, after.box.y)[at], before_place[at], delta=0.5)
            self.assertAlmostEqual(place[at + 2], before_place[at + 2], delta=0.6)


class SlidesTest(SimpleTestCase):
    def show(self) -> Show:
        return Show(
            "show",
            "Show",
            slides=tuple(
                Slide(name, name.upper(), objects=(boxed(f"{name}-o", 0, 0, press=GoToSlide("b")),)) for name in "abcd"
            ),
        )

    def test_several_slides_move_in_their_order(self) -> None:
        after = e.apply_edit(self.show(), e.ReorderSlides(("d", "b"), 0)).show
        self.assertEqual([slide.id for slide in after.slides], ["b", "d", "a", "c"])

    def test_copies_of_several_come_after_the_last_of_them(self) -> None:
        after = e.apply_edit(self.show(), e.DuplicateSlides(("c", "a"), "n")).show
        self.assertEqual([slide.name for slide in after.slides], ["A", "B", "C", "A", "C", "D"])

    def test_many_change_at_once_each_with_a_cue_of_its_own(self) -> None:
        after = e.apply_edit(
            self.show(), e.ChangeSlides(("a", "b"), {"advance": {"rule": "cue", "cue_id": "q"}}, "n")
        ).show
        self.assertEqual([slide.advance.cue_id for slide in after.slides[:2]], ["n-0", "n-1"])  # type: ignore[union-attr]

    def test_removing_a_slide_others_lead_to_frees_their_presses_and_tells(self) -> None:
        outcome = e.apply_edit(self.show(), e.RemoveSlides(("b",)))
        self.assertTrue(all(item.press is None for slide in outcome.show.slides for item in slide.objects))
        self.assertIn("A press on 3 objects led there; it does nothing now.", outcome.notices)
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], self.show())

    def test_a_press_must_lead_somewhere(self) -> None:
        with self.assertRaisesMessage(UnknownName, "not in the show (“zz”)"):
            e.apply_edit(self.show(), e.ChangeObjects("a", ("a-o",), {"press": {"do": "slide", "slide_id": "zz"}}))

    def test_grouping_wants_two(self) -> None:
        with self.assertRaisesMessage(BadValue, "at least two"):
            e.apply_edit(self.show(), e.GroupObjects("a", ("a-o",), "g"))

    def test_an_unknown_text_paragraph_is_told(self) -> None:
        item = Text("t", "T", Box(0, 0, 9, 9), paragraphs=(Paragraph("p", (TextRun("x"),)),))
        with self.assertRaisesMessage(BadValue, "no second paragraph"):
            e.apply_edit(show_of(item), e.SplitText("s", "t", "n"))


class SizeTest(SimpleTestCase):
    def sized(self, **more: object) -> Box:
        show = show_of(boxed("a", 10, 20, 300, 200))
        return boxes(e.apply_edit(show, e.SizeObject("s", "a", **more)).show)["a"]  # type: ignore[arg-type]

    def test_a_typed_side_takes_the_other_along_in_proportion_where_that_is_kept(self) -> None:
        self.assertEqual(self.sized(width=150, keep=True), Box(10, 20, 150, 100))
        self.assertEqual(self.sized(height=50, keep=True), Box(10, 20, 75, 50))
        self.assertEqual(self.sized(width=100.0, keep=True).height, 66.7)

    def test_otherwise_it_changes_alone(self) -> None:
        self.assertEqual(self.sized(width=150), Box(10, 20, 150, 200))


class CopiedBuildsTest(SimpleTestCase):
    def test_a_duplicate_has_the_builds_of_its_original_together_with_them(self) -> None:
        lines = text("t", "one", "two")
        order = (
            Build(id="b1", object_id="t", effect="enters fade", starts=OnCue("q"), part=lines.paragraphs[1].id),
            Build(id="b2", object_id="o", effect="enters fade", starts=Follows()),
        )
        show = show_of(lines, boxed("o", 0, 0), order=order)
        copy = msgspec.structs.replace(
            lines,
            id="k",
            paragraphs=tuple(
                msgspec.structs.replace(line, id=f"k-{number}") for number, line in enumerate(lines.paragraphs)
            ),
        )
        slide = e.apply_edit(show, e.AddObjects("s", (copy,), copies={"k": "t"})).show.slides[0]
        self.assertEqual(
            [(build.object_id, build.part, build.starts) for build in slide.order],
            [
                ("t", lines.paragraphs[1].id, OnCue("q")),
                ("k", "k-1", Together()),
                ("o", None, Follows()),
            ],
        )


class StartedTogetherTest(SimpleTestCase):
    def started(self, how: str, *ids: str) -> list[tuple[str, object]]:
        order = tuple(
            Build(
                id=f"b{name}",
                object_id=name,
                effect="enters fade",
                starts=OnCue(f"q{name}") if name != "c" else Together(),
            )
            for name in "abcd"
        )
        show = show_of(*(boxed(name, 0, 0) for name in "abcd"), order=order)
        slide = e.apply_edit(show, e.StartBuilds("s", ids, how, "n")).show.slides[0]  # type: ignore[arg-type]
        return [(build.id, build.starts) for build in slide.order]

    def test_several_builds_start_together_behind_the_first_of_them(self) -> None:
        self.assertEqual(
            self.started("together", "ba", "bd"),
            [("ba", OnCue("qa")), ("bd", Together()), ("bb", OnCue("qb")), ("bc", Together())],
        )

    def test_one_after_another_and_each_on_a_cue(self) -> None:
        self.assertEqual(
            self.started("one after another", "bb", "bc"),
            [("ba", OnCue("qa")), ("bb", OnCue("qb")), ("bc", Follows()), ("bd", OnCue("qd"))],
        )
        self.assertEqual(self.started("each on a cue", "bb", "bc")[2], ("bc", OnCue("n-1")))

    def test_a_text_is_built_by_paragraphs_and_as_a_whole_again(self) -> None:
        lines = text("t", "one", "two", "three")
        show = show_of(
            lines, order=(Build(id="b", object_id="t", effect="enters fade", starts=OnCue("q"), after_ms=300),)
        )
        parted = e.apply_edit(show, e.BuildByParagraphs("s", "b", True, "n")).show
        self.assertEqual(
            [(build.part, build.starts, build.after_ms) for build in parted.slides[0].order],
            [
                (lines.paragraphs[0].id, OnCue("q"), 300),
                (lines.paragraphs[1].id, OnCue("n-c1"), 0),
                (lines.paragraphs[2].id, OnCue("n-c2"), 0),
            ],
        )
        whole = e.apply_edit(parted, e.BuildByParagraphs("s", "n-2", False, "m")).show
        self.assertEqual(whole.slides[0].order, show.slides[0].order)

    def test_a_paragraph_without_words_gets_no_build_for_nobody_would_see_it_come(self) -> None:
        lines = text("t", "one", " ", "three")
        show = show_of(lines, order=(Build(id="b", object_id="t", effect="enters fade", starts=OnCue("q")),))
        parted = e.apply_edit(show, e.BuildByParagraphs("s", "b", True, "n")).show
        written = [lines.paragraphs[0].id, lines.paragraphs[2].id]
        self.assertEqual([build.part for build in parted.slides[0].order], written)

    def test_what_has_no_paragraphs_is_refused(self) -> None:
        show = show_of(boxed("a", 0, 0), order=(Build(id="b", object_id="a", effect="enters fade", starts=Follows()),))
        with self.assertRaisesMessage(BadValue, "“A” has no paragraphs to come one by one"):
            e.apply_edit(show, e.BuildByParagraphs("s", "b", True, "n"))
