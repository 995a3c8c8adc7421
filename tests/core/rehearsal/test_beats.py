from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Build, OnCue, Slide, Together
from ritornel.core.rehearsal.beats import beat_lines, notes_by_beat
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.demo.orlmere import orlmere
from tests.examples import shape, text


class NotesTest(SimpleTestCase):
    def test_numbers_say_to_which_beat_lines_belong(self) -> None:
        self.assertEqual(notes_by_beat("Alone.\n1. Catch.\nWait.\n2) Tick.", 3), ("Alone.", "Catch.\nWait.", "Tick."))
        self.assertEqual(notes_by_beat("2. Late.", 3), ("", "", "Late."))
        self.assertEqual(notes_by_beat("9. Past the last.", 2), ("", "Past the last."))

    def test_notes_without_numbers_go_line_by_line(self) -> None:
        self.assertEqual(notes_by_beat("One.\n\nTwo.\nThree.", 2), ("One.", "Two.\nThree."))
        self.assertEqual(
            notes_by_beat("28 800 ticks a day.", 2), ("28 800 ticks a day.", ""), "a figure is no number of a beat"
        )
        self.assertEqual(notes_by_beat("", 2), ("", ""))

    @given(
        st.lists(st.sampled_from(["One tooth.", "a", "Then a wait, and the next.", " b c "]), max_size=6),
        st.integers(1, 5),
    )
    def test_no_line_is_lost(self, lines: list[str], beats: int) -> None:
        found = notes_by_beat("\n".join(lines), beats)
        self.assertEqual([line for entry in found for line in entry.splitlines()], [line.strip() for line in lines])


class BeatLineTest(SimpleTestCase):
    def test_a_beat_tells_what_arrives_when_and_what_is_said(self) -> None:
        performance = perform(orlmere())
        staged, start = performance.slides[1], performance.schedule.starts_ms[1]
        lines = beat_lines(staged.slide, staged.schedule, start)
        self.assertEqual(lines[0].title, "On arrival")
        self.assertEqual(len(lines), len(staged.schedule.beats))
        self.assertEqual(
            [line.planned_ms for line in lines], [start, *(start + beat.start_ms for beat in staged.schedule.beats[1:])]
        )
        last = lines[2].arrivals
        self.assertEqual([(entry.does, entry.rule) for entry in last], [("enters", ""), ("is accented", "together")])
        self.assertEqual(lines[2].notes, "Let somebody try the crank.")

    def test_a_beat_is_called_by_two_and_the_number_of_the_others(self) -> None:
        def title(*names: str) -> str:
            order = tuple(
                Build(id=f"b{n}", object_id=name, effect="enters fade", starts=Together() if n else OnCue("c"))
                for n, name in enumerate(names)
            )
            slide = Slide("s", objects=tuple(map(shape, names)), order=order)
            return beat_lines(slide, compile_slide(slide, 2000, {}), 0)[1].title

        one, two = shape("x").name, shape("y").name
        self.assertEqual(title("x"), one)
        self.assertEqual(title("x", "y"), f"{one}, {two}")
        self.assertEqual(title("x", "y", "z"), f"{one}, {two} and 1 more")

    def test_a_build_of_a_line_is_told_by_the_words_of_the_line(self) -> None:
        lines = text("t", "The wheel turns.", "One tooth passes.")
        order = tuple(
            Build(id=f"b{n}", object_id="t", part=part, effect="enters fade", starts=OnCue(f"c{n}"))
            for n, part in enumerate((None, lines.paragraphs[1].id))
        )
        slide = Slide("s", objects=(lines,), order=order)
        told = beat_lines(slide, compile_slide(slide, 2000, {}), 0)
        self.assertEqual([told[1].arrivals[0].what, told[2].arrivals[0].what], [lines.name, "One tooth passes."])

    def test_every_build_of_the_demo_is_told_once(self) -> None:
        performance = perform(orlmere())
        for staged in performance.slides:
            told = [entry for line in beat_lines(staged.slide, staged.schedule, 0) for entry in line.arrivals]
            self.assertEqual(len(told), len(staged.slide.order))
            self.assertTrue(all(entry.what for entry in told))
