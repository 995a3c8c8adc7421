"""Lists, directions, looks of runs, and fitting to the box."""

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document import Box, Frame, Paragraph, Plain, Shape, Show, Stroke, Text, TextRun
from ritornel.core.document.theme import Theme, in_theme
from ritornel.core.layout.direction import in_visual_order, levels_of
from ritornel.core.layout.drawing import draw_object, scenery_of
from ritornel.core.layout.lines import break_text
from ritornel.core.layout.marks import PathMark, TextMark
from ritornel.core.layout.visibility import readable_px

HEBREW = "\u05e9\u05e2\u05d5\u05df"
ARABIC = "\u0633\u0627\u0639\u0629"


def text(*paragraphs: Paragraph, width: float = 600, height: float = 100, **more: object) -> Text:
    item = in_theme(Text("t", "T", Box(0, 0, width, height), paragraphs=paragraphs, **more), Theme())  # type: ignore[arg-type]
    assert isinstance(item, Text)
    return item


def line(words: str, number: int = 1, **more: object) -> Paragraph:
    return Paragraph(f"p{number}", (TextRun(words),), **more)  # type: ignore[arg-type]


def words_of(item: Text) -> list[list[str]]:
    return [[mark.text for mark in part.marks if isinstance(mark, TextMark)] for part in break_text(item).parts]


class ListTest(SimpleTestCase):
    def test_bullets_and_numbers_stand_before_their_lines_set_in_by_level(self) -> None:
        item = text(line("Oil", 1, list="bullets"), line("Cord", 2, list="bullets", level=1), size_px=20)
        first, second = (part.marks for part in break_text(item).parts)
        signs = [
            mark for marks in (first, second) for mark in marks if isinstance(mark, TextMark) and mark.text in "•–"
        ]
        self.assertEqual([sign.text for sign in signs], ["•", "–"])
        self.assertEqual(
            [
                mark.x
                for marks in (first, second)
                for mark in marks
                if isinstance(mark, TextMark) and len(mark.text) > 1
            ],
            [23, 46],
        )
        self.assertEqual([sign.x for sign in signs], [0, 23])

    def test_numbers_count_on_past_deeper_levels_and_start_anew_after_other_text(self) -> None:
        rows = [
            ("numbers", 0),
            ("numbers", 1),
            ("numbers", 1),
            ("numbers", 2),
            ("numbers", 0),
            ("none", 0),
            ("numbers", 0),
        ]
        item = text(*(line("x", n, list=kind, level=level) for n, (kind, level) in enumerate(rows)))
        self.assertEqual(
            [words[-1] if len(words) > 1 else "" for words in words_of(item)], ["1.", "a.", "b.", "i.", "2.", "", "1."]
        )

    def test_an_empty_line_of_a_list_has_no_sign(self) -> None:
        self.assertEqual(words_of(text(line("", 1, list="bullets"))), [[]])


class DirectionTest(SimpleTestCase):
    def test_text_from_right_to_left_stands_in_the_order_of_frame_state(self) -> None:
        base, levels = levels_of(f"clock {HEBREW} 78")
        self.assertEqual((base, levels[0], levels[6], levels[-1]), (0, 0, 1, 2))
        marks = [
            mark
            for part in break_text(text(line(f"{HEBREW} 78"))).parts
            for mark in part.marks
            if isinstance(mark, TextMark)
        ]
        by_place = [mark.text.strip() for mark in sorted(marks, key=lambda mark: mark.x) if mark.text.strip()]
        self.assertEqual(by_place, ["78", HEBREW])

    def test_a_paragraph_that_reads_from_the_right_stands_on_the_right(self) -> None:
        marks = [
            mark for mark in break_text(text(line(HEBREW), width=500)).parts[0].marks if isinstance(mark, TextMark)
        ]
        self.assertAlmostEqual(max(mark.x + mark.advance for mark in marks), 500)
        self.assertTrue(all(mark.rtl for mark in marks))

    def test_hebrew_and_arabic_are_drawn_and_emoji_are_told(self) -> None:
        self.assertEqual(break_text(text(line(f"{HEBREW} {ARABIC}"))).missing, ())
        self.assertEqual(break_text(text(line("\U0001f9d1"))).missing, ("\U0001f9d1",))

    def test_explicit_direction_marks_are_taken_out(self) -> None:
        self.assertEqual(words_of(text(line("a\u202eb\u2066c"))), [["abc"]])

    @settings(max_examples=60, deadline=None)
    @given(st.text(alphabet=f"ab 12.(){HEBREW}{ARABIC}", max_size=40))
    def test_no_character_is_lost_or_doubled_in_any_mixture(self, words: str) -> None:
        drawn = "".join(sorted("".join("".join(line) for line in words_of(text(line(words), width=5000)))))
        self.assertEqual(drawn.strip(), "".join(sorted(words.rstrip())).strip())

    def test_stretches_are_turned_round_from_the_highest_level_down(self) -> None:
        self.assertEqual(in_visual_order([(0, "a"), (1, "b"), (2, "c"), (1, "d"), (0, "e")]), ["a", "d", "c", "b", "e"])


class LookTest(SimpleTestCase):
    def test_highlight_lies_behind_and_underline_over_the_words(self) -> None:
        runs = (TextRun("plain "), TextRun("marked", highlight="#ffee00", underline=True))
        marks = break_text(text(Paragraph("p", runs), size_px=20)).parts[0].marks
        kinds = [type(mark).__name__ for mark in marks]
        self.assertEqual(kinds, ["PathMark", "TextMark", "TextMark", "PathMark"])
        assert isinstance(marks[0], PathMark)
        self.assertEqual(marks[0].fill, "#ffee00")

    def test_a_link_is_underlined_and_says_where_it_leads(self) -> None:
        marks = (
            break_text(text(Paragraph("p", (TextRun("the tower", link="https://tower.orlmere.example/"),))))
            .parts[0]
            .marks
        )
        self.assertEqual(
            [mark.link for mark in marks if isinstance(mark, TextMark)], ["https://tower.orlmere.example/"]
        )
        self.assertEqual(sum(isinstance(mark, PathMark) for mark in marks), 1)

    def test_letters_can_be_hollow(self) -> None:
        item = text(line("NOON"), colour=None, outline=Stroke("#8a2456", 2))
        (mark,) = (mark for mark in break_text(item).parts[0].marks if isinstance(mark, TextMark))
        self.assertEqual((mark.colour, mark.stroke, mark.stroke_px), (None, "#8a2456", 2))


class FitTest(SimpleTestCase):
    LINES = tuple(line("Eleven volunteers took the going train apart on the floor of the chapel", n) for n in range(8))

    def test_a_text_shrinks_until_it_is_in_its_box_and_no_further(self) -> None:
        item = text(*self.LINES, size_px=40, width=500, height=300, overflow="shrink")
        fitted = break_text(item)
        self.assertLessEqual(fitted.needs_height, 300)
        self.assertLess(fitted.size_px, 40)
        one_more = text(*self.LINES, size_px=fitted.size_px + 0.5, width=500, height=300)
        self.assertGreater(break_text(one_more).needs_height, 300)

    def test_a_text_that_fits_keeps_its_size(self) -> None:
        self.assertEqual(break_text(text(line("Noon"), size_px=40, overflow="shrink")).size_px, 40)

    def test_a_growing_text_is_as_high_as_its_lines(self) -> None:
        item = Text("t", "T", Box(0, 0, 300, 10), paragraphs=self.LINES, size_px=20, overflow="grow")
        drawing, _ = draw_object(item, scenery_of(Show("s", "Show")))
        self.assertEqual(drawing.height, drawing.needs_height)
        self.assertGreater(drawing.height, 200)

    def test_below_a_fortieth_of_the_frame_letters_count_as_too_small(self) -> None:
        self.assertEqual(readable_px(Frame()), 18)
        self.assertEqual(readable_px(Frame(640, 360)), 9)

    def test_a_hundred_thousand_characters_are_laid_out(self) -> None:
        item = text(line("tick tock " * 10_000), size_px=8, width=1200, height=700)
        self.assertGreater(break_text(item).needs_height, 700)

    def test_words_inside_a_shape_stand_clear_of_its_edge_in_parts_of_their_own(self) -> None:
        item = Shape(
            "s",
            "S",
            Box(0, 0, 300, 200),
            "ellipse",
            fill=Plain("@raised"),
            paragraphs=(line("Noon"), line("Night", 2)),
            align="centre",
            stand="middle",
        )
        drawing, _ = draw_object(item, scenery_of(Show("s", "Show")))
        self.assertEqual([part.part for part in drawing.parts], [None, "p1", "p2"])
        marks = [mark for part in drawing.parts[1:] for mark in part.marks if isinstance(mark, TextMark)]
        self.assertTrue(all(43 < mark.x < 257 and 29 < mark.baseline < 171 for mark in marks))
