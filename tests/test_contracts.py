"""The contracts of pyproject.toml, each seen to catch a violation that is planted in the graph of imports."""

import ast
import copy
import functools
import re
import tomllib
import unittest
from pathlib import Path
from typing import Any

import grimp
from importlinter.configuration import configure
from importlinter.contracts.forbidden import ForbiddenContract
from importlinter.contracts.layers import LayersContract

ROOT = Path(__file__).parents[1]
PLANTED = {
    "The core is built in layers": ("ritornel.core.time.spans", "ritornel.core.document.show"),
    "Nothing but the web knows the web": ("ritornel.outside.standins", "ritornel.web.shows.models"),
    "The core has no clock, no chance and no threads outside of render": ("ritornel.core.reference.live", "time"),
    "Others reach shows by its services": ("ritornel.web.takes.views", "ritornel.web.shows.persistence"),
    "Others reach editor by its services": ("ritornel.web.releases.views", "ritornel.web.editor.score"),
    "Others reach library by its services": ("ritornel.web.exchange.imports", "ritornel.web.library.uploads"),
    "Others reach exchange by its services": ("ritornel.web.shows.pages", "ritornel.web.exchange.plans"),
    "Others reach takes by its services": ("ritornel.web.stage.views", "ritornel.web.takes.models"),
    "Others reach stage by its services": ("ritornel.web.takes.views", "ritornel.web.stage.rooms"),
    "Others reach releases by its services": ("ritornel.web.shows.pages", "ritornel.web.releases.editions"),
    "Others reach people by its services": ("ritornel.web.library.shelf", "ritornel.web.people.roles"),
    "Others reach streams by its services": ("ritornel.web.editor.show_feed", "ritornel.web.streams.hub"),
    "Others reach help by its services": ("ritornel.web.shows.pages", "ritornel.web.help.first_show"),
}


@functools.cache
def imports() -> Any:
    """The graph of all imports. Each test plants into a copy."""
    return grimp.build_graph("ritornel", include_external_packages=True, cache_dir=None)


def kept(options: dict[str, Any], graph: Any) -> bool:
    """Whether a contract holds in a graph."""
    configure()
    kind = {"layers": LayersContract, "forbidden": ForbiddenContract}[options["type"]]
    session = {"root_packages": ["ritornel"], "include_external_packages": "true"}
    # The library reads its options as words, as from an INI file.
    options = {name: str(value).lower() if isinstance(value, bool) else value for name, value in options.items()}
    return bool(kind(options["name"], session, options).check(graph, verbose=False).kept)


class ContractsTest(unittest.TestCase):
    contracts = tomllib.loads((ROOT / "pyproject.toml").read_text())["tool"]["importlinter"]["contracts"]

    def test_each_contract_has_a_planted_violation(self) -> None:
        self.assertEqual([contract["name"] for contract in self.contracts], list(PLANTED))

    def test_each_contract_catches_what_is_planted_and_nothing_else(self) -> None:
        for contract in self.contracts:
            with self.subTest(contract["name"]):
                self.assertTrue(kept(contract, copy.deepcopy(imports())))
                graph = copy.deepcopy(imports())
                importer, imported = PLANTED[contract["name"]]
                graph.add_import(importer=importer, imported=imported, line_number=1, line_contents="planted")
                self.assertFalse(kept(contract, graph))


class MigrationsTest(unittest.TestCase):
    def test_none_uses_code_that_goes_on_changing(self) -> None:
        """A migration says what was; what it needs of the program stands in it as it was then."""
        found = [
            f"{path.relative_to(ROOT)}: {line.strip()}"
            for path in sorted((ROOT / "src").rglob("migrations/0*.py"))
            for line in path.read_text().splitlines()
            if re.match(r"\s*(from|import) ritornel", line)
        ]
        self.assertEqual(found, [])


class MadeByNameTest(unittest.TestCase):
    """Values of many fields are made by name: whoever reads `Asset(a, b, 1, 0, 0)` has to count."""

    MOST = 4
    """So many arguments by place are read without counting: an id, a name, a box and what stands in it."""

    def test_no_call_in_the_program_gives_more_than_four_values_by_place_to_a_value_of_the_core(self) -> None:
        trees = {path: ast.parse(path.read_text()) for path in sorted((ROOT / "src/ritornel").rglob("*.py"))}
        large = {
            node.name
            for tree in trees.values()
            for node in ast.walk(tree)
            if isinstance(node, ast.ClassDef) and sum(isinstance(line, ast.AnnAssign) for line in node.body) >= 9
        }
        self.assertIn("Slide", large)
        found = [
            f"{path.relative_to(ROOT)}:{node.lineno} {node.func.id}"
            for path, tree in trees.items()
            for node in ast.walk(tree)
            if isinstance(node, ast.Call)
            and isinstance(node.func, ast.Name)
            and node.func.id in large
            and len(node.args) > self.MOST
        ]
        self.assertEqual(found, [])


class ScriptRoomsTest(unittest.TestCase):
    """The rooms of JavaScript say what they are, and hold to it."""

    SCRIPTS = ROOT / "src/ritornel/web/static/ritornel"

    def rooms(self) -> dict[str, list[Path]]:
        rooms = {folder.name: sorted(folder.glob("*.js")) for folder in self.SCRIPTS.iterdir() if folder.is_dir()}
        return {name: files for name, files in rooms.items() if files}

    def imported(self, file: Path) -> set[str]:
        """The other rooms that a module imports from, at once or later."""
        found = re.findall(r"""(?:from|import\()\s*["']\.\./([a-z]+)/""", file.read_text())
        return set(found) - {file.parent.name}

    def test_each_room_says_what_it_is_and_which_file_to_read_first(self) -> None:
        for name, files in self.rooms().items():
            with self.subTest(name):
                words = (self.SCRIPTS / name / "README.md").read_text()
                self.assertTrue(words.startswith(f"# {name}\n"))
                self.assertIn("first.", words)
                # A path names a file of the program, a bare name one of the room or of another.
                known = {file.name for room in self.rooms().values() for file in room}
                for script in re.findall(r"`([\w./-]+\.(?:js|py))`", words):
                    if script.endswith(".py") or "/" in script:
                        places = (ROOT / "src/ritornel" / script, ROOT / script, self.SCRIPTS / script)
                        here = (self.SCRIPTS / name / script).resolve()
                        self.assertTrue(any(place.is_file() for place in (*places, here)), script)
                    else:
                        self.assertIn(script, known)
                self.assertTrue(files)

    def test_what_every_page_uses_needs_no_room_the_painter_only_that_and_nobody_a_page(self) -> None:
        for name, files in self.rooms().items():
            for file in files:
                with self.subTest(f"{name}/{file.name}"):
                    imported = self.imported(file)
                    self.assertNotIn("pages", imported)
                    if name == "ui":
                        self.assertEqual(imported, set())
                    if name == "player":
                        self.assertLessEqual(imported, {"ui"})
