"""Tables are set row by row."""

from unittest import TestCase

import msgspec
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document.naming import own_name
from ritornel.core.document.objects import Box, Paragraph, Stroke, Table, TableColumn, Text, TextRun
from ritornel.core.document.show import Build, Show, Slide, Together
from ritornel.core.document.theme import Theme, in_theme
from ritornel.core.layout.drawing import draw_object, scenery_of
from ritornel.core.layout.lines import break_text, height_at
from ritornel.core.layout.marks import PartDrawing, PathMark, TextMark
from ritornel.core.layout.tables import INSET_X, INSET_Y, cells_of, column_spans, set_table
from ritornel.core.schedule.performance import frame_state_at, perform

replace = msgspec.structs.replace


def rows(*texts: str) -> tuple[Paragraph, ...]:
    return tuple(Paragraph(f"r{number}", (TextRun(text),)) for number, text in enumerate(texts, 1))


BELLS = Table(
    "bells",
    "Bells",
    Box(100, 100, 600, 300),
    paragraphs=rows("Bell\tCast", "The great bell\t1712", "The quarter\t1784"),
    family="Spectral",
    size_px=20,
    colour="#16262e",
    heading_fill="#fffdf6",
    stroke=Stroke("#c9bfa5", 1.5),
)


def words_of(part: PartDrawing) -> list[TextMark]:
    return [mark for mark in part.marks if isinstance(mark, TextMark)]


class RowsTest(TestCase):
    def test_a_row_is_as_high_as_its_highest_cell_and_the_room_around_it(self) -> None:
        made = set_table(replace(BELLS, overflow="grow"))
        line_px = BELLS.size_px * BELLS.line_spacing
        self.assertEqual([part.height for part in made.parts], [line_px + 2 * INSET_Y * 20] * 3)
        self.assertEqual(made.needs_height, 3 * (line_px + 2 * INSET_Y * 20))

    def test_rows_that_need_less_than_the_box_share_what_is_left(self) -> None:
        self.assertEqual([part.height for part in set_table(BELLS).parts], [100.0, 100.0, 100.0])

    def test_words_too_long_for_their_cell_go_on_in_it_and_make_the_row_higher(self) -> None:
        long = replace(
            BELLS,
            overflow="grow",
            paragraphs=rows("Bell\tCast", f"{'The great bell of the tower, ' * 4}\t1712"),
        )
        first, second = set_table(long).parts
        self.assertGreater(second.height, 2 * first.height)
        great = words_of(second)[0]
        self.assertLessEqual(great.x + great.advance, 300 - INSET_X * 20 + 0.01)

    def test_shrinking_words_fit_their_box(self) -> None:
        tight = replace(BELLS, overflow="shrink", box=Box(0, 0, 600, 60))
        made = set_table(tight)
        self.assertLess(made.size_px, 20)
        self.assertLessEqual(made.needs_height, 60.01)
        larger = set_table(replace(tight, overflow="spill", size_px=made.size_px + 0.5))
        self.assertGreater(larger.needs_height, 60.01)

    def test_the_parts_are_the_rows_and_a_row_holds_its_ground_and_the_line_under_it(self) -> None:
        made = set_table(replace(BELLS, band_fill="#d5e2dd"))
        self.assertEqual([part.part for part in made.parts], ["r1", "r2", "r3"])
        paths = [[mark for mark in part.marks if isinstance(mark, PathMark)] for part in made.parts]
        self.assertEqual([[mark.fill or mark.stroke for mark in marks] for marks in paths], [
            ["#fffdf6", "#c9bfa5"], ["#c9bfa5"], ["#d5e2dd"],
        ])  # fmt: skip
        self.assertEqual([part.pivot_y for part in made.parts], [50.0, 150.0, 250.0])

    def test_the_heading_is_bold_where_there_is_one(self) -> None:
        weights = [[mark.weight for mark in words_of(part)] for part in set_table(BELLS).parts]
        self.assertEqual(weights, [[700, 700], [400, 400], [400, 400]])
        plain = [mark.weight for part in set_table(replace(BELLS, heading=False)).parts for mark in words_of(part)]
        self.assertEqual(set(plain), {400})

    def test_words_stand_in_their_row_as_the_table_says(self) -> None:
        foot = {}
        for stand in ("top", "middle", "bottom"):
            foot[stand] = words_of(set_table(replace(BELLS, stand=stand)).parts[1])[0].baseline
        room = 100 - 20 * BELLS.line_spacing - 2 * INSET_Y * 20
        self.assertAlmostEqual(foot["middle"] - foot["top"], room / 2)
        self.assertAlmostEqual(foot["bottom"] - foot["top"], room)

    def test_what_no_font_has_is_told(self) -> None:
        strange = replace(BELLS, paragraphs=rows("Bell\t\U0001f514"))
        _, missing = draw_object(strange, scenery_of(Show("s", "Show")))
        self.assertEqual(missing, ("\U0001f514",))


class ColumnsTest(TestCase):
    def test_columns_share_the_box_by_their_widths(self) -> None:
        three = replace(BELLS, columns=(TableColumn(3.0), TableColumn(1.0), TableColumn(2.0)))
        self.assertEqual(column_spans(three), ((0.0, 300.0), (300.0, 100.0), (400.0, 200.0)))

    def test_a_row_longer_than_the_columns_makes_another(self) -> None:
        more = replace(BELLS, columns=(TableColumn(2.0),), paragraphs=rows("a\tb\tc"))
        self.assertEqual([width for _, width in column_spans(more)], [300.0, 150.0, 150.0])

    def test_a_column_aligns_its_words_whatever_the_table_says(self) -> None:
        table = replace(BELLS, columns=(TableColumn(), TableColumn(1.0, "right")))
        for part in set_table(table).parts:
            name, year = words_of(part)
            self.assertEqual(name.x, INSET_X * 20)
            self.assertAlmostEqual(year.x + year.advance, 600 - INSET_X * 20, places=3)

    def test_a_row_with_fewer_cells_leaves_the_others_empty(self) -> None:
        made = set_table(replace(BELLS, paragraphs=rows("Bell\tCast", "The great bell")))
        self.assertEqual([mark.text for mark in words_of(made.parts[1])], ["The great bell"])

    def test_a_run_that_goes_over_a_tab_keeps_its_look_in_both_cells(self) -> None:
        row = Paragraph("r", (TextRun("Bell\tCast", weight=700), TextRun(" in 1712")))
        self.assertEqual(
            list(cells_of(row)),
            [(TextRun("Bell", weight=700),), (TextRun("Cast", weight=700), TextRun(" in 1712"))],
        )

    @given(st.lists(st.lists(st.text("ab c\u05d0", max_size=12), min_size=1, max_size=4), min_size=1, max_size=5),
           st.integers(40, 900), st.sampled_from(["grow", "spill", "shrink"]))  # fmt: skip
    @settings(max_examples=40, deadline=None)
    def test_no_row_lies_over_another_and_all_of_them_fill_what_they_say(
        self, texts: list[list[str]], width: int, overflow: str
    ) -> None:
        table = replace(BELLS, paragraphs=rows(*("\t".join(row) for row in texts)), overflow=overflow)  # type: ignore[arg-type]
        table = replace(table, box=Box(0, 0, width, 400))
        made = set_table(table)
        y = 0.0
        for part in made.parts:
            self.assertAlmostEqual(part.pivot_y - part.height / 2, y, places=6)
            y += part.height
        wanted = made.needs_height if overflow == "grow" else max(400.0, made.needs_height)
        self.assertAlmostEqual(y, wanted, places=6)


class MeasuringTest(TestCase):
    """The size of letters is found by measuring, without setting every size that is tried."""

    @given(
        st.lists(st.text("ab\u05d0 -\tfi", max_size=60), min_size=1, max_size=6),
        st.integers(60, 900),
        st.integers(20, 500),
    )
    @settings(max_examples=60, deadline=None)
    def test_the_letters_found_fit_and_half_a_px_more_would_not(
        self, texts: list[str], width: int, height: int
    ) -> None:
        table = replace(BELLS, paragraphs=rows(*texts), overflow="shrink", box=Box(0, 0, width, height))
        text = Text("t", "T", table.box, paragraphs=table.paragraphs, family="Spectral", size_px=20, overflow="shrink")
        for item, lines in ((table, set_table), (text, break_text)):
            found = lines(item)
            if found.size_px > 4:
                self.assertLessEqual(found.needs_height, height + 0.02)
            if found.size_px < 20:
                larger = lines(replace(item, overflow="grow", size_px=found.size_px + 0.5))
                self.assertGreater(larger.needs_height, height)

    @given(
        st.lists(st.text("ab\u05d0 -\tfi", max_size=60), min_size=1, max_size=6), st.integers(60, 900), st.floats(4, 60)
    )
    @settings(max_examples=60, deadline=None)
    def test_a_text_is_as_high_as_it_was_measured(self, texts: list[str], width: int, size: float) -> None:
        lists = ("none", "bullets", "numbers")
        paragraphs = tuple(
            Paragraph(f"p{n}", (TextRun(text),), lists[n % 3], n % 3)  # type: ignore[arg-type]
            for n, text in enumerate(texts)
        )
        text = Text(
            "t", "T", Box(0, 0, width, 10), paragraphs=paragraphs, family="Spectral", size_px=size, paragraph_gap=0.3
        )
        self.assertAlmostEqual(height_at(text, size), break_text(text).needs_height, places=6)


class KindTest(TestCase):
    """What holds of other objects holds of tables."""

    def setUp(self) -> None:
        self.show = Show("s", "Show", slides=(Slide("one", objects=(BELLS,)),))

    def test_roles_of_colour_are_looked_up(self) -> None:
        table = Table("t", "T", Box(0, 0, 10, 10), paragraphs=rows("a"), band_fill="@second")
        drawn = in_theme(table, theme := Theme())
        assert isinstance(drawn, Table) and drawn.stroke is not None
        self.assertEqual(
            (drawn.heading_fill, drawn.band_fill, drawn.stroke.colour, drawn.colour),
            (theme.palette.raised, theme.palette.second, theme.palette.line, theme.palette.words),
        )

    def test_it_is_called_by_its_words_or_as_a_table(self) -> None:
        self.assertEqual(own_name(self.show, BELLS), "Bell, Cast")
        self.assertEqual(own_name(self.show, replace(BELLS, paragraphs=rows(""))), "Table")

    def test_a_row_comes_by_a_build_of_its_own(self) -> None:
        order = (
            Build(
                id="b",
                object_id="bells",
                effect="enters fade",
                starts=Together(),
                after_ms=500,
                lasts_ms=1000,
                part="r2",
            ),
        )
        show = replace(self.show, slides=(replace(self.show.slides[0], order=order),))
        performance = perform(show)
        (early,) = frame_state_at(performance, 400).layers
        (late,) = frame_state_at(performance, 2000).layers
        self.assertEqual({key: values.shown for key, values in early.objects}, {("bells", "r2"): False})
        self.assertEqual({key: values.shown for key, values in late.objects}, {("bells", "r2"): True})
