from django.test import SimpleTestCase

from ritornel.core.document import Show
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits import ChangeHabits, PutMark, RemoveMark, RemoveSlides, ReorderSlides, apply_edit
from ritornel.core.document.show import Habits, NamedMark
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.motion.catalogue import effect_named
from ritornel.core.motion.habits import usual_build
from tests.examples import example_a

NOON = NamedMark("m", "Noon", "two", 1500)


class MarksTest(SimpleTestCase):
    def marked(self) -> Show:
        return apply_edit(example_a(), PutMark(NOON)).show

    def test_a_mark_is_set_changed_and_removed_and_each_is_undone(self) -> None:
        show = self.marked()
        moved = apply_edit(show, PutMark(NamedMark("m", "High noon", "one", 20)))
        self.assertEqual(moved.show.marks, (NamedMark("m", "High noon", "one", 20),))
        self.assertEqual(apply_changes(moved.show, moved.inverse)[0], show)
        gone = apply_edit(show, RemoveMark("m"))
        self.assertEqual((gone.show.marks, gone.label), ((), "Remove the mark Noon"))
        self.assertEqual(apply_changes(gone.show, gone.inverse)[0], show)

    def test_it_goes_along_with_its_slide_and_away_with_it_which_is_told(self) -> None:
        show = self.marked()
        self.assertEqual(apply_edit(show, ReorderSlides(("two",), 0)).show.marks, (NOON,))
        gone = apply_edit(show, RemoveSlides(("two",)))
        self.assertEqual((gone.show.marks, gone.notices), ((), ("The mark Noon went with it.",)))
        self.assertEqual(apply_changes(gone.show, gone.inverse)[0], show)

    def test_without_a_name_or_a_slide_there_is_no_mark(self) -> None:
        with self.assertRaisesMessage(BadValue, "A mark needs a name."):
            apply_edit(example_a(), PutMark(NamedMark("m", " ", "two")))
        with self.assertRaises(UnknownName):
            apply_edit(example_a(), PutMark(NamedMark("m", "Noon", "nowhere")))
        with self.assertRaises(UnknownName):
            apply_edit(example_a(), RemoveMark("m"))


class HabitsTest(SimpleTestCase):
    def test_new_builds_take_the_habits_of_the_show_what_leaves_backwards(self) -> None:
        show = apply_edit(example_a(), ChangeHabits({"lasts_ms": 300, "pace": "ease in"})).show
        usual = {
            name: usual_build(effect_named(name), show.habits)
            for name in ("enters rise", "leaves fade", "accents pulse", "enters cut in")
        }
        self.assertEqual((usual["enters rise"].lasts_ms, usual["enters rise"].pace), (300, "ease in"))
        self.assertEqual((usual["leaves fade"].lasts_ms, usual["leaves fade"].pace), (300, "ease out"))
        self.assertEqual(usual["accents pulse"].lasts_ms, effect_named("accents pulse").lasts_ms)
        self.assertEqual(usual["enters cut in"].lasts_ms, 0)

    def test_without_habits_each_effect_has_its_own_ways(self) -> None:
        effect = effect_named("enters settle")
        self.assertEqual(
            (usual_build(effect, Habits()).lasts_ms, usual_build(effect, Habits()).pace), (effect.lasts_ms, "ease out")
        )
