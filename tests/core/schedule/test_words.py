"""What those who do not see a slide are told of it."""

from unittest import TestCase

import msgspec

from ritornel.core.document.objects import Box, Paragraph, Picture, Table, Text, TextRun
from ritornel.core.document.show import Build, Frame, OnCue, Slide, Together
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.core.schedule.words import words_of_beats, words_on
from tests.examples import BOX, text


def at(x: float, y: float, name: str, *words: str) -> Text:
    return msgspec.structs.replace(text(name, *words), box=Box(x, y, 100, 100))


class WordsTest(TestCase):
    def test_words_for_a_screen_reader_are_texts_and_alternatives_in_order(self) -> None:
        slide = Slide(
            "s",
            objects=(
                Picture("p", "P", BOX, "a", alternative="The tower"),
                text("t", "One", "Two"),
                Picture("q", "Q", BOX, "a"),
            ),
        )
        self.assertEqual(words_on(slide), "The tower\nOne\nTwo")

    def of_beats(self, slide: Slide) -> tuple[str, ...]:
        return words_of_beats(slide, compile_slide(slide, 2000, {}, Frame()))

    def test_each_beat_has_the_words_it_brings_in_reading_order(self) -> None:
        low, right, left = at(0, 400, "low", "Below"), at(500, 40, "r", "Right"), at(20, 40, "l", "One", "Two")
        order = (
            Build(id="1", object_id="low", effect="enters fade", starts=OnCue("q1")),
            Build(id="2", object_id="l", effect="enters fade", starts=Together(), part=left.paragraphs[1].id),
            Build(id="3", object_id="r", effect="leaves fade", starts=OnCue("q2")),
            Build(id="4", object_id="r", effect="enters fade", starts=OnCue("q3")),
        )
        slide = Slide("s", objects=(low, right, left), order=order)
        self.assertEqual(self.of_beats(slide), ("One", "Two\nBelow", "", "Right"))

    def test_what_comes_twice_is_said_once_and_a_picture_by_its_alternative(self) -> None:
        picture = Picture("p", "P", BOX, "a", alternative="The tower")
        order = tuple(Build(id=str(n), object_id="p", effect="enters fade", starts=OnCue(f"q{n}")) for n in (1, 2))
        self.assertEqual(self.of_beats(Slide("s", objects=(picture,), order=order)), ("", "The tower", ""))

    def test_a_row_of_a_table_is_read_cell_by_cell(self) -> None:
        rows = ("Bell\tNote\tCast", "The great bell\t\t1712", "\t\t")
        paragraphs = tuple(Paragraph(f"p{n}", (TextRun(text),)) for n, text in enumerate(rows))
        table = Table("bells", "Bells", Box(0, 0, 600, 200), paragraphs=paragraphs)
        self.assertEqual(words_on(Slide("s", objects=(table,))), "Bell, Note, Cast\nThe great bell, 1712")

    def test_a_slide_without_words_says_nothing_on_its_one_beat(self) -> None:
        self.assertEqual(self.of_beats(Slide("s")), ("",))
