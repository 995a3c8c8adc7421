"""Themes, layouts and frames: what follows, what was set by hand, and that nothing is lost."""

import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Box, Frame, Paragraph, Picture, Plain, Shape, Show, Slide, Text, TextRun
from ritornel.core.document import edits as e
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.contrast import contrast
from ritornel.core.document.layouts import (
    LAYOUTS,
    box_of,
    differences,
    empty_places,
    layout_named,
    look_of,
    place_of,
    refit_slide,
    theme_slide,
)
from ritornel.core.document.theme import Theme, colour_in, in_theme, roles_and_literals
from ritornel.core.document.themes import THEMES, weak_contrasts
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.layout.drawing import draw_slide, scenery_of

FRAME = Frame()


def placed(layout: str, name: str, theme: Theme = Theme(), frame: Frame = FRAME, **more: object) -> Text:
    place = next(place for place in LAYOUTS[layout].places if place.name == name)
    fields = {**look_of(place, theme, frame), **more}
    return Text(
        name.replace(" ", "-"),
        name.title(),
        box_of(place, frame),
        place=name,
        paragraphs=(Paragraph(f"{name[:3]}-1", (TextRun("Words"),)),),
        **fields,
    )  # type: ignore[arg-type]


def small_show() -> Show:
    heading, by_hand = placed("heading and text", "heading"), placed("heading and text", "words", colour="#aa0000")
    loose = Shape("s", "Wheel", Box(900, 400, 100, 100), "wheel", fill=Plain("@accent"))
    first = Slide("a", "A", layout="heading and text", objects=(heading, by_hand, loose))
    return Show("show", "Show", slides=(first, Slide("b", "B", background=Plain("#000000"))))


class ThemesTest(SimpleTestCase):
    def test_six_or_more_ship_light_and_dark_each_with_type_and_colour_of_its_own(self) -> None:
        self.assertGreaterEqual(len(THEMES), 6)
        self.assertGreater(len({theme.heading_family for theme in THEMES.values()}), 5)
        self.assertEqual(len({theme.palette for theme in THEMES.values()}), len(THEMES))
        dark = [theme for theme in THEMES.values() if contrast(theme.palette.ground, "#ffffff") > 7]
        self.assertTrue(2 <= len(dark) <= len(THEMES) - 2)

    def test_words_and_accents_of_every_theme_reach_level_aa_on_all_its_grounds(self) -> None:
        for theme in THEMES.values():
            self.assertEqual(weak_contrasts(theme), (), theme.name)

    def test_a_weak_contrast_is_named_with_its_ratio(self) -> None:
        pale = msgspec.structs.replace(Theme(), palette=msgspec.structs.replace(Theme().palette, soft="#c9c3b0"))
        self.assertEqual(
            {(role, behind) for role, behind, _ in weak_contrasts(pale)}, {("soft", "ground"), ("soft", "raised")}
        )

    def test_contrast_is_wcags(self) -> None:
        self.assertAlmostEqual(contrast("#000000", "#ffffff"), 21)
        self.assertAlmostEqual(contrast("#777777", "#ffffff"), 4.48, places=2)

    def test_roles_are_looked_up_and_unknown_ones_raise(self) -> None:
        self.assertEqual(colour_in(Theme(), "@accent"), "#8a2456")
        self.assertEqual(colour_in(Theme(), "#010203"), "#010203")
        with self.assertRaisesMessage(UnknownName, "@sky"):
            colour_in(Theme(), "@sky")

    def test_an_object_counts_what_follows_and_what_was_set_by_hand(self) -> None:
        self.assertEqual(roles_and_literals(placed("heading", "heading")), (2, 0))
        self.assertEqual(roles_and_literals(placed("heading", "heading", colour="#aa0000")), (1, 1))
        self.assertEqual(in_theme(placed("heading", "heading"), Theme()).colour, "#16262e")  # type: ignore[union-attr]


class ChangeThemeTest(SimpleTestCase):
    def test_it_reaches_what_follows_spares_what_was_set_by_hand_and_counts_both(self) -> None:
        show = small_show()
        outcome = e.apply_edit(show, e.ChangeTheme(THEMES["Night watch"]))
        self.assertEqual(
            outcome.notices,
            (
                "“Night watch”: 1 slide and 2 objects follow the theme; 1 background and 1 object set by "
                "hand stay as they are.",
            ),
        )
        heading, words, wheel = outcome.show.slides[0].objects
        self.assertEqual(heading.size_px, 58)  # type: ignore[union-attr]
        self.assertEqual(words.colour, "#aa0000")  # type: ignore[union-attr]
        drawing = draw_slide(outcome.show.slides[0], scenery_of(outcome.show))
        self.assertEqual(drawing.objects[0].parts[0].marks[0].colour, "#f4efe2")  # type: ignore[union-attr]
        self.assertEqual(drawing.objects[2].parts[0].marks[0].fill, "#e6b65c")  # type: ignore[union-attr]
        self.assertEqual(wheel, show.slides[0].objects[2])

    def test_a_size_set_by_hand_stays(self) -> None:
        show = small_show()
        show = e.apply_edit(show, e.ChangeObjects("a", ("heading",), {"size_px": 99})).show
        after = e.apply_edit(show, e.ChangeTheme(THEMES["Night watch"])).show
        self.assertEqual(after.slides[0].objects[0].size_px, 99)  # type: ignore[union-attr]

    def test_undo_restores_every_slide_exactly(self) -> None:
        show = small_show()
        outcome = e.apply_edit(show, e.ChangeTheme(THEMES["Market day"]))
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], show)

    def test_a_theme_with_a_picture_that_is_not_on_the_shelf_is_refused(self) -> None:
        theme = msgspec.convert(
            {**msgspec.to_builtins(Theme()), "ground": {"kind": "picture", "asset_id": "gone"}}, Theme
        )
        with self.assertRaisesMessage(UnknownName, "not on the shelf (“gone”)"):
            e.apply_edit(small_show(), e.ChangeTheme(theme))


class DifferenceTest(SimpleTestCase):
    def test_what_differs_from_the_theme_is_named_and_one_edit_returns_it(self) -> None:
        show = e.apply_edit(
            small_show(),
            e.ChangeObjects(
                "a", ("heading",), {"box": {"x": 1, "y": 2, "width": 300, "height": 50}, "family": "Fira Sans"}
            ),
        ).show
        slide = show.slides[0]
        self.assertEqual(set(differences(slide, slide.objects[0], show.theme, show.frame)), {"box", "family"})
        back = e.apply_edit(show, e.FollowTheme("a", ("heading",))).show.slides[0]
        self.assertEqual(differences(back, back.objects[0], show.theme, show.frame), {})
        self.assertEqual(back.objects[0], small_show().slides[0].objects[0])

    def test_a_text_in_no_place_is_measured_by_colour_and_family_only(self) -> None:
        item = Text(
            "t", "T", Box(5, 5, 50, 50), paragraphs=(Paragraph("p", (TextRun("x"),)),), colour="#123456", size_px=77
        )
        self.assertEqual(differences(Slide("s"), item, Theme(), FRAME), {"colour": "@words"})


class LayoutTest(SimpleTestCase):
    def test_every_place_is_inside_the_frame_wide_and_tall_and_headings_stand_alike(self) -> None:
        for frame in (FRAME, Frame(720, 1280), Frame(1024, 768), Frame(800, 800)):
            for layout in LAYOUTS.values():
                for place in layout.places:
                    box = box_of(place, frame)
                    self.assertTrue(
                        box.x >= 0
                        and box.y >= 0
                        and box.x + box.width <= frame.width_px
                        and box.y + box.height <= frame.height_px,
                        layout.name,
                    )
        tops = {
            box_of(place, FRAME).y
            for layout in LAYOUTS.values()
            if not layout.opens
            for place in layout.places
            if place.name == "heading"
        }
        self.assertEqual(len(tops), 1)

    def test_a_place_is_empty_until_something_of_its_kind_fills_it(self) -> None:
        slide = Slide("s", layout="text and picture")
        self.assertEqual([place.name for place in empty_places(slide)], ["heading", "words", "picture"])
        picture = Picture("p", "P", Box(0, 0, 9, 9), "asset", place="picture")
        filled = msgspec.structs.replace(slide, objects=(picture, placed("text and picture", "heading")))
        self.assertEqual([place.name for place in empty_places(filled)], ["words"])
        self.assertIsNone(place_of(filled, msgspec.structs.replace(picture, place="words")))

    def test_another_layout_takes_what_fills_places_of_the_same_name_along_and_loses_nothing(self) -> None:
        show = small_show()
        outcome = e.apply_edit(show, e.ChangeLayout(("a",), "two columns"))
        heading, words, wheel = outcome.show.slides[0].objects
        self.assertEqual(words.box, box_of(LAYOUTS["two columns"].places[1], FRAME))
        self.assertEqual((heading, wheel), (show.slides[0].objects[0], show.slides[0].objects[2]))
        blank = e.apply_edit(show, e.ChangeLayout(("a",), "blank"))
        self.assertEqual(
            [item.box for item in blank.show.slides[0].objects], [item.box for item in show.slides[0].objects]
        )
        self.assertEqual((blank.notices, {item.place for item in blank.show.slides[0].objects}), ((), {""}))
        with self.assertRaisesMessage(UnknownName, "no layout “mosaic”"):
            e.apply_edit(show, e.ChangeLayout(("a",), "mosaic"))

    def test_unknown_layouts_raise(self) -> None:
        with self.assertRaises(UnknownName):
            layout_named("mosaic")


class ThemeSlideTest(SimpleTestCase):
    def test_a_theme_is_shown_by_the_first_slide_that_follows_it_with_words_in_its_places(self) -> None:
        show = small_show()
        plain = Slide("plain")
        by_hand = msgspec.structs.replace(show.slides[0], id="hand", background=Plain("#204060"))
        mixed = msgspec.structs.replace(show, slides=(plain, by_hand, show.slides[0]))
        self.assertEqual(theme_slide(mixed), show.slides[0].id)
        self.assertEqual(theme_slide(msgspec.structs.replace(show, slides=(plain, by_hand))), "hand")
        self.assertIsNone(theme_slide(msgspec.structs.replace(show, slides=(plain,))))


class FrameTest(SimpleTestCase):
    def test_another_frame_fits_everything_anew(self) -> None:
        full = Picture("p", "P", Box(0, 0, 1280, 720), "asset")
        slide = Slide(
            "a",
            layout="heading",
            objects=(full, placed("heading", "heading"), Shape("s", "S", Box(600, 320, 80, 80), "star")),
        )
        tall = Frame(720, 1280)
        fresh = refit_slide(slide, (Theme(), FRAME), (Theme(), tall))
        self.assertEqual(fresh.objects[0].box, Box(0, 0, 720, 1280))
        self.assertEqual(fresh.objects[1].box, box_of(LAYOUTS["heading"].places[0], tall))
        self.assertEqual(fresh.objects[2].box, Box(337.5, 617.5, 45, 45))

    @given(st.integers(100, 4000), st.integers(100, 4000))
    def test_undo_after_a_change_of_frame_restores_exactly(self, width: int, height: int) -> None:
        show = small_show()
        outcome = e.apply_edit(show, e.ChangeFrame(Frame(width, height)))
        self.assertEqual(outcome.show.frame, Frame(width, height))
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], show)


class FurnitureTest(SimpleTestCase):
    def test_footer_and_number_stand_on_every_slide_that_is_not_bare(self) -> None:
        show = e.apply_edit(small_show(), e.ChangeFurniture({"footer": "Orlmere tower", "numbers": True})).show
        words = [mark.text for mark in draw_slide(show.slides[0], scenery_of(show), 7).ground if hasattr(mark, "text")]
        self.assertEqual(words, ["Orlmere tower", "7"])
        bare = msgspec.structs.replace(show.slides[0], bare=True)
        self.assertEqual([mark for mark in draw_slide(bare, scenery_of(show), 7).ground if hasattr(mark, "text")], [])
        with self.assertRaises(BadValue):
            e.apply_edit(show, e.ChangeFurniture({"clock": True}))
