from django.test import SimpleTestCase

from ritornel.core.checks.inconsistencies import differences_of
from ritornel.core.document import AdvanceAfter, AdvanceOnCue, Build, OnCue, Show, Slide, Transition
from ritornel.core.document import edits as e
from tests.examples import shape, text

DISSOLVE = Transition("dissolve", 800)


def slide(name: str, **more: object) -> Slide:
    return Slide(name, name.upper(), **{"transition": DISSOLVE, "advance": AdvanceAfter(9000), **more})  # type: ignore[arg-type]


class DifferingTest(SimpleTestCase):
    def test_a_join_unlike_the_others_is_named_with_its_fix(self) -> None:
        show = Show(
            "s", "S", slides=(*(slide(name) for name in "abcd"), slide("e", transition=Transition("push", 600)))
        )
        (note,) = differences_of(show)
        self.assertEqual((note.title, note.fix_words, note.slide_id), ("5 comes by push", "Make it dissolve", "e"))
        self.assertEqual(note.why, "3 of 4 slides come by dissolve, 0.8 s.")
        assert note.fix is not None
        self.assertEqual(differences_of(e.apply_edit(show, note.fix).show), ())

    def test_without_a_habit_nothing_differs(self) -> None:
        names = ("dissolve", "push", "cover", "wipe")
        show = Show(
            "s", "S", slides=tuple(slide(f"s{n}", transition=Transition(name, 500)) for n, name in enumerate(names))
        )
        self.assertEqual(differences_of(show), ())

    def test_waits_that_only_have_the_usual_hold_are_told_where_a_show_runs_by_itself(self) -> None:
        order = (
            Build(id="b", object_id="x", effect="enters fade", starts=OnCue("q")),
            Build(id="c", object_id="x", effect="leaves fade", starts=OnCue("r", 900)),
        )
        show = Show("s", "S", slides=(slide("a", objects=(shape("x"),), order=order, advance=AdvanceOnCue("out")),))
        notes = differences_of(show)
        (note,) = notes
        self.assertEqual((note.title, note.fix_words), ("1 has 2 waits without a hold", "Hold each 2.0 s"))
        assert note.fix is not None
        show = e.apply_edit(show, note.fix).show
        self.assertEqual(differences_of(show), ())

    def test_one_wait_is_told_by_where_it_is(self) -> None:
        order = (Build(id="b", object_id="x", effect="enters fade", starts=OnCue("q")),)
        waits = slide("a", objects=(shape("x"),), order=order)
        leaves = slide("b", advance=AdvanceOnCue("out"))
        self.assertEqual(
            [note.title for note in differences_of(Show("s", "S", slides=(waits, leaves)))],
            ["1 has a wait without a hold", "2 is left without a hold"],
        )

    def test_a_slide_too_short_to_be_read_is_told_with_the_estimate(self) -> None:
        words = text("t", " ".join(["word"] * 27))
        show = Show("s", "S", slides=(slide("a", objects=(words,), advance=AdvanceAfter(11_000)),))
        (note,) = differences_of(show)
        self.assertEqual((note.title, note.fix_words), ("1 is shorter than its reading", "Make it 11.3 s"))
        self.assertEqual(
            note.why, "Its words take about 10.5 s to read (estimate). Once it is there, it stays for 10.2 s."
        )

    def test_skipped_slides_are_not_looked_at(self) -> None:
        show = Show(
            "s",
            "S",
            slides=(*(slide(name) for name in "abcd"), slide("e", transition=Transition("push", 600), skipped=True)),
        )
        self.assertEqual(differences_of(show), ())
