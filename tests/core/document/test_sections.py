from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Show, Slide
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits import ChangeSlides, DuplicateSlides, RemoveSlides, ReorderSlides, apply_edit
from ritornel.core.document.sections import Section, sections_of, shown_sections

NAMES = {"b": "The town", "d": "Noon"}


def town() -> Show:
    return Show(
        "s", "Show", slides=tuple(Slide(name, name.upper(), opens_section=NAMES.get(name, "")) for name in "abcde")
    )


def told(show: Show) -> dict[str, str]:
    return {section.name: "".join(section.slide_ids) for section in sections_of(show.slides)}


class SectionTest(SimpleTestCase):
    def test_a_section_begins_with_the_slide_that_names_it(self) -> None:
        self.assertEqual(
            sections_of(town().slides),
            (Section("", ("a",)), Section("The town", ("b", "c")), Section("Noon", ("d", "e"))),
        )
        self.assertEqual(sections_of((Slide("a"), Slide("b"))), ())

    def test_the_first_slide_of_a_section_is_removed_and_the_next_opens_it(self) -> None:
        after = apply_edit(town(), RemoveSlides(("b",)))
        self.assertEqual(told(after.show), {"": "a", "The town": "c", "Noon": "de"})
        self.assertEqual(told(apply_edit(town(), RemoveSlides(("b", "c"))).show), {"": "a", "Noon": "de"})
        self.assertEqual(apply_changes(after.show, after.inverse)[0], town())

    def test_a_slide_that_is_moved_away_leaves_its_section_behind(self) -> None:
        after = apply_edit(town(), ReorderSlides(("b",), 4))
        self.assertEqual(told(after.show), {"": "a", "The town": "c", "Noon": "deb"})
        self.assertEqual(apply_changes(after.show, after.inverse)[0], town())

    def test_a_section_that_is_moved_whole_keeps_its_name(self) -> None:
        self.assertEqual(
            told(apply_edit(town(), ReorderSlides(("b", "c"), 3)).show), {"": "a", "Noon": "de", "The town": "bc"}
        )

    def test_putting_a_slide_where_it_is_changes_nothing(self) -> None:
        self.assertEqual(apply_edit(town(), ReorderSlides(("b",), 1)).show, town())

    def test_a_copy_opens_nothing_and_a_name_is_given_like_any_other_field(self) -> None:
        self.assertEqual(
            told(apply_edit(town(), DuplicateSlides(("b",), "copy")).show),
            {"": "a", "The town": "bcopy-sc", "Noon": "de"},
        )
        self.assertEqual(
            told(apply_edit(town(), ChangeSlides(("c",), {"opens_section": "The fixing"})).show)["The fixing"], "c"
        )

    def test_a_skipped_slide_leaves_its_section_to_the_next(self) -> None:
        skipped = apply_edit(town(), ChangeSlides(("b", "d", "e"), {"skipped": True})).show
        self.assertEqual(shown_sections(skipped), (Section("", ("a",)), Section("The town", ("c",))))

    @given(st.lists(st.sampled_from("abcde"), min_size=1, max_size=5, unique=True), st.integers(0, 5))
    def test_however_slides_are_moved_no_section_is_lost_while_it_has_a_slide(self, moving: list[str], to: int) -> None:
        outcome = apply_edit(town(), ReorderSlides(tuple(moving), to))
        self.assertEqual(
            sorted(slide.opens_section for slide in outcome.show.slides if slide.opens_section), ["Noon", "The town"]
        )
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], town())
