import msgspec
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import Box, Gradient, Paragraph, Picture, Plain, Shape, Show, Slide, Stroke, Text, TextRun
from ritornel.core.document.picture_fit import fit_picture
from ritornel.core.document.theme import Theme, in_theme
from ritornel.core.errors import UnknownName
from ritornel.core.layout.drawing import draw_object, draw_slide, scenery_of, shade_of
from ritornel.core.layout.faces import FAMILIES, FONTS, MISSING, Face, shape_text, split_by_face
from ritornel.core.layout.lines import break_text
from ritornel.core.layout.marks import PathMark, Shade, TextMark
from ritornel.core.layout.outlines import outline_of, rectangle
from tests.examples import text


def marks_of(item: Text) -> list[TextMark]:
    return [mark for part in break_text(item).parts for mark in part.marks if isinstance(mark, TextMark)]


def wide(words: str, width: float, **more: object) -> Text:
    item = Text("t", "T", Box(0, 0, width, 100), paragraphs=(Paragraph("p", (TextRun(words),)),), **more)  # type: ignore[arg-type]
    return themed(item)


def themed_text(*args: str, **more: object) -> Text:
    return themed(text(*args, **more))


def themed(item: Text) -> Text:
    """The text with the roles of the first theme looked up, as it is drawn."""
    result = in_theme(item, Theme())
    assert isinstance(result, Text)
    return result


SCENERY = scenery_of(Show("s", "Show"))


class FaceTest(SimpleTestCase):
    def test_eight_families_or_more_ship_regular_bold_and_italic_with_their_licence(self) -> None:
        self.assertGreaterEqual(len(FAMILIES), 8)
        for family, folder in FAMILIES.items():
            paths = {Face(family, weight, italic).path for weight in (400, 700) for italic in (False, True)}
            self.assertEqual(len(paths), 4, family)
            self.assertIn("SIL Open Font License", (FONTS / folder / "OFL.txt").read_text(encoding="utf-8"))

    def test_latin_greek_and_cyrillic_are_all_drawn(self) -> None:
        for family in FAMILIES:
            for words in ("Häuser", "Ωρολόγιον", "Часы"):
                self.assertNotIn(MISSING, "".join(part for part, _ in split_by_face(words, Face(family, 400, False))))

    def test_a_missing_glyph_falls_back_and_never_vanishes(self) -> None:
        pieces = split_by_face("a☃漢", Face("Spectral", 400, False))
        self.assertEqual([part for part, _ in pieces], ["a", "☃", MISSING])
        self.assertEqual(break_text(wide("漢", 500)).missing, ("漢",))
        self.assertGreater(shape_text(MISSING, pieces[2][1], 30).advance, 0)

    def test_an_unknown_family_raises(self) -> None:
        with self.assertRaisesMessage(UnknownName, "There is no font family “Wingding”"):
            break_text(wide("a", 100, family="Wingding"))

    def test_kerning_brings_letters_together(self) -> None:
        face = Face("Spectral", 400, False)
        self.assertLess(
            shape_text("AV", face, 100).advance, shape_text("A", face, 100).advance + shape_text("V", face, 100).advance
        )


class LinesTest(SimpleTestCase):
    def test_lines_break_where_unicode_allows_and_white_space_hangs(self) -> None:
        self.assertEqual(
            [mark.text for mark in marks_of(wide("one two-three four", 140, size_px=30))], ["one two-", "three four"]
        )

    def test_a_word_wider_than_the_box_breaks_anywhere(self) -> None:
        lines = marks_of(wide("W" * 30, 100, size_px=30))
        self.assertGreater(len(lines), 5)
        self.assertEqual("".join(mark.text for mark in lines), "W" * 30)

    def test_alignment_stands_lines_left_centred_and_right(self) -> None:
        left, centre, right = (marks_of(wide("Orlmere", 400, align=align))[0] for align in ("left", "centre", "right"))
        self.assertEqual(left.x, 0)
        self.assertAlmostEqual(centre.x, (400 - centre.advance) / 2)
        self.assertAlmostEqual(right.x + right.advance, 400)

    def test_text_stands_at_top_middle_or_bottom(self) -> None:
        tops = [break_text(wide("a", 300, stand=stand)).parts[0].pivot_y for stand in ("top", "middle", "bottom")]
        self.assertEqual(tops, [20, 50, 80])

    def test_paragraphs_are_parts_with_gaps_between(self) -> None:
        parts = break_text(themed_text("t", "a", "b", paragraph_gap=0.5)).parts
        self.assertEqual([part.part for part in parts], ["t-1", "t-2"])
        self.assertEqual(parts[1].pivot_y - parts[0].pivot_y, 40 + 16)

    def test_runs_have_their_own_weight_and_colour(self) -> None:
        item = themed(
            Text(
                "t",
                "T",
                Box(0, 0, 900, 50),
                paragraphs=(Paragraph("p", (TextRun("plain "), TextRun("bold", weight=700, colour="#ff0000"))),),
            )
        )
        self.assertEqual(
            [(mark.text, mark.weight, mark.colour) for mark in marks_of(item)],
            [("plain ", 400, "#16262e"), ("bold", 700, "#ff0000")],
        )

    @settings(max_examples=60, deadline=None)
    @given(st.text(alphabet="ab cd-é漢 ж.", max_size=60), st.floats(40, 600))
    def test_no_line_is_wider_than_the_box_unless_one_character_is(self, words: str, width: float) -> None:
        lines: dict[float, float] = {}
        counts: dict[float, int] = {}
        for mark in marks_of(wide(words, width)):
            lines[mark.baseline] = max(lines.get(mark.baseline, 0), mark.x + mark.advance)
            counts[mark.baseline] = counts.get(mark.baseline, 0) + len(mark.text)
        for baseline, used in lines.items():
            # Kerning over a run's end may differ a little from that of the whole paragraph.
            self.assertTrue(used <= width + 2 or counts[baseline] == 1, (used, width))


class DrawingTest(SimpleTestCase):
    def test_cover_fills_the_box_and_contain_shows_all(self) -> None:
        picture = Picture("p", "P", Box(0, 0, 200, 100), "a")
        self.assertEqual(fit_picture(picture, 400, 400), (0, -50, 200, 200))
        self.assertEqual(fit_picture(msgspec.structs.replace(picture, fit="contain"), 400, 400), (50, 0, 100, 100))
        self.assertEqual(fit_picture(msgspec.structs.replace(picture, fit="stretch"), 400, 400), (0, 0, 200, 100))

    def test_a_gradient_runs_through_the_middle_along_its_angle(self) -> None:
        self.assertEqual(
            shade_of(Gradient("#000000", "#ffffff", 90), 200, 100), Shade("#000000", "#ffffff", 100, 0, 100, 100)
        )

    def test_corners_are_rounded_by_at_most_half_the_shorter_side(self) -> None:
        self.assertEqual(rectangle(0, 0, 100, 40, 500), rectangle(0, 0, 100, 40, 20))

    def test_every_form_has_an_outline_within_its_box(self) -> None:
        for form in ("rectangle", "ellipse", "line", "polygon", "star", "ring", "arch", "wheel"):
            d = outline_of(Shape("s", "S", Box(0, 0, 200, 120), form))  # type: ignore[arg-type]
            numbers = [float(word) for word in d.split() if word not in "MLCZ"]
            self.assertTrue(all(-0.001 <= x <= 200.001 for x in numbers[::2]), form)
            self.assertTrue(all(-0.001 <= y <= 120.001 for y in numbers[1::2]), form)

    def test_a_line_has_no_fill_and_a_slide_has_its_background_first(self) -> None:
        line = Shape("s", "S", Box(0, 0, 200, 8), "line", fill=Plain("#ff0000"), stroke=Stroke("#00ff00", 3))
        drawing, _ = draw_object(line, SCENERY)
        (mark,) = drawing.parts[0].marks
        assert isinstance(mark, PathMark)
        self.assertEqual((mark.fill, mark.stroke, mark.stroke_px), (None, "#00ff00", 3))
        slide = draw_slide(Slide("x", objects=(line,), background=Plain("#123456")), SCENERY)
        (ground,) = slide.ground
        assert isinstance(ground, PathMark)
        self.assertEqual(ground.fill, "#123456")
