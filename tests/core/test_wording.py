import doctest

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core import wording
from ritornel.core.document import Show, Slide
from ritornel.core.document.changes import PutSettings
from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.names import Named
from ritornel.core.wording import count_text, list_text, one_line
from tests.examples import shape, sound, text


class WordingTest(SimpleTestCase):
    def test_the_examples_hold(self) -> None:
        self.assertEqual(doctest.testmod(wording).failed, 0)

    def test_counts_know_singular_and_plural(self) -> None:
        self.assertEqual([count_text(n, "slide") for n in (0, 1, 2)], ["0 slides", "1 slide", "2 slides"])
        self.assertEqual(count_text(2, "entry", "entries"), "2 entries")
        self.assertEqual([list_text(["A", "B", "C"][:n]) for n in range(4)], ["", "A", "A and B", "A, B and C"])


class OneLineTest(SimpleTestCase):
    @given(st.text())
    def test_what_comes_out_is_one_line_and_stays_as_it_is(self, words: str) -> None:
        line = one_line(words)
        self.assertEqual(line, one_line(line))
        self.assertFalse(set(line) & set("\r\n\t\x00\u2028\u202e\x85"))
        self.assertEqual(line, line.strip())
        line.encode()

    def test_letters_of_any_script_and_signs_made_of_several_stay(self) -> None:
        for words in ("\u05e9\u05e2\u05d5\u05df", "cafe\u0301", "👩\u200d🔧 at work", "e\u200cf"):
            self.assertEqual(one_line(words), words)

    def test_every_name_in_a_show_is_one_line_however_it_comes(self) -> None:
        broken = "Noon\r\nBcc: all@orlmere.example\u202e"
        fine = "Noon Bcc: all@orlmere.example"
        slide = Slide("s", broken, objects=(shape("a"), text("b", "line\nbreak")), opens_section=broken)
        for value in (slide, from_json(to_json(Slide("s", "x")).replace(b'"x"', to_json(broken)), Slide, "A slide")):
            self.assertEqual(value.name, fine)
        self.assertEqual(slide.opens_section, fine)
        self.assertEqual(
            (Show("s", broken).title, PutSettings(broken, 0, "hold", "on cue", holds_by_cue={}).title), (fine, fine)
        )
        self.assertEqual(Show("s", "\n").title, "Untitled show")

    def test_whatever_has_a_name_has_one_line_of_it(self) -> None:
        """A new kind of thing with a name cannot be forgotten.

        A section takes its name from a slide; the others are named by the program.
        """
        of_the_program = {"Transition", "LayoutPlace", "SlideLayout", "Section", "FirstAct"}
        kinds = [
            kind
            for kind in _structs()
            if "name" in kind.__struct_fields__ and kind.__module__.startswith("ritornel.core.document.")
        ]
        self.assertIn(type(sound()), kinds)
        self.assertEqual(
            [kind.__name__ for kind in kinds if not issubclass(kind, Named) and kind.__name__ not in of_the_program], []
        )


def _structs() -> list[type]:
    import msgspec

    found, waiting = [], [msgspec.Struct]
    while waiting:
        below = waiting.pop().__subclasses__()
        waiting += below
        found += below
    return found
