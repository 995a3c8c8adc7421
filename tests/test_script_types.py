import unittest

import msgspec

from tests.script_types import PLACE, TypeWriter


class ScriptTypesTest(unittest.TestCase):
    def test_the_types_that_scripts_are_checked_against_are_those_of_the_core(self) -> None:
        self.assertEqual(PLACE.read_text(), TypeWriter().text(), "write them again: python -m tests.script_types")

    def test_what_is_left_out_where_it_is_as_usual_is_optional_and_sequences_have_their_order(self) -> None:
        text = PLACE.read_text()
        self.assertIn("list?: ", text)
        self.assertIn("type Pass = [start_ms: number, end_ms: number,", text)
        self.assertIn('kind: "text" | "table" | "picture" | "clip" | "shape";', text)

    def test_alternatives_without_a_name_are_refused(self) -> None:
        class Bell(msgspec.Struct, tag_field="kind", tag="bell"):
            weight_kg: int = 0

        class Dial(msgspec.Struct, tag_field="kind", tag="dial"):
            width_mm: int = 0

        with self.assertRaisesRegex(KeyError, "Bell"):
            TypeWriter().text_of(Bell | Dial)
