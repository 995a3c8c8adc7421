"""docs/glossary.md against the code: one word for one thing."""

import ast
import re
import unittest
from collections import defaultdict
from pathlib import Path

ROOT = Path(__file__).parents[1]
SOURCE = ROOT / "src" / "ritornel"
ROWS = {"Asset", "Show", "Slide", "Take"}
"""Rows of the database carry the names of the values they store."""
RETIRED = frozenset(
    (
        *(
            "smalls",
            "confined",
            "parted",
            "crew",
            "looked",
            "hearing",
            "intake",
            "lettered",
            "dress",
            "bare",
            "courier",
        ),
        *("slim", "veils", "told", "drawn", "mended", "differing", "brakes"),
        *("utils", "helpers", "manager", "misc", "common"),
    )
)
"""Words that module names do not have any more, and some that they never get."""


def modules() -> list[Path]:
    """All modules of ours that people read; migrations tell what was."""
    return [path for path in SOURCE.rglob("*.py") if "migrations" not in path.parts]


def classes_of(path: Path) -> set[str]:
    """The public classes that a module defines."""
    body = ast.parse(path.read_text(encoding="utf-8")).body
    return {node.name for node in body if isinstance(node, ast.ClassDef) and not node.name.startswith("_")}


class GlossaryTest(unittest.TestCase):
    rows = re.findall(
        r"^\| ([^|]+) \| ([^|]+) \| `([^`]+)`(?: `(\w+)`)? \|$", (ROOT / "docs/glossary.md").read_text(), re.M
    )

    def test_every_word_stands_where_the_glossary_says(self) -> None:
        self.assertGreater(len(self.rows), 50)
        for word, _, module, name in self.rows:
            path = SOURCE / module
            self.assertTrue(path.is_file(), f"{word}: there is no {module}")
            if name:
                self.assertIn(name, classes_of(path), word)

    def test_every_word_has_one_line(self) -> None:
        words = [word for word, *_ in self.rows]
        self.assertEqual(sorted(words), sorted(set(words)))

    def test_no_two_public_classes_have_one_name(self) -> None:
        where = defaultdict(list)
        for path in modules():
            for name in classes_of(path):
                if name != "Command":  # Django asks for this name
                    where[name].append(path.relative_to(SOURCE).as_posix())
        twice = {name: paths for name, paths in where.items() if len(paths) > 1}
        self.assertEqual(set(twice), ROWS, twice)
        for paths in twice.values():
            self.assertEqual(sum(path.endswith("models.py") for path in paths), 1, paths)

    def test_no_module_has_a_name_that_was_given_up(self) -> None:
        self.assertEqual([path.name for path in modules() if path.stem in RETIRED], [])
