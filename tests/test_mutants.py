import unittest

from tests.mutants import mutants_of, sample


class MutantsTest(unittest.TestCase):
    def changed(self, source: str) -> set[tuple[str, str]]:
        return {(kind, text) for _, kind, text in mutants_of(source)}

    def test_each_kind_of_change_is_made(self) -> None:
        self.assertEqual(self.changed("x = a + b"), {("operator", "x = a - b")})
        self.assertEqual(self.changed("x = a < b"), {("comparison", "x = a <= b")})
        self.assertEqual(self.changed("x = 600"), {("number", "x = 601")})
        self.assertEqual(self.changed("x = True"), {("truth", "x = False")})
        self.assertEqual(self.changed("x = a if b else c"), {("condition", "x = a if not b else c")})

    def test_one_mutant_changes_one_place(self) -> None:
        self.assertEqual(self.changed("x = a + b + c"), {("operator", "x = a + b - c"), ("operator", "x = a - b + c")})

    def test_a_sample_is_drawn_again_by_its_seed(self) -> None:
        drawn = sample(5, 3)
        self.assertEqual(len(drawn), 5)
        self.assertEqual([entry[:3] for entry in sample(5, 3)], [entry[:3] for entry in drawn])
