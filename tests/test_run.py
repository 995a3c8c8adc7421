"""The command that sets everything up."""

import importlib.machinery
import importlib.util
from pathlib import Path
from types import ModuleType

from django.test import SimpleTestCase

ROOT = Path(__file__).resolve().parents[1]


def run_module() -> ModuleType:
    loader = importlib.machinery.SourceFileLoader("ritornel_run", str(ROOT / "run"))
    spec = importlib.util.spec_from_loader("ritornel_run", loader)
    assert spec
    module = importlib.util.module_from_spec(spec)
    loader.exec_module(module)
    return module


class RunTest(SimpleTestCase):
    def test_the_built_styles_are_those_of_the_sources(self) -> None:
        self.assertFalse(run_module().stale_styles(), "type: ./run css")

    def test_all_dependencies_are_pinned_with_hashes_and_name_no_address(self) -> None:
        for name in ("requirements.txt", "requirements-dev.txt"):
            text = (ROOT / name).read_text()
            packages = [line for line in text.splitlines() if line and not line.startswith((" ", "#"))]
            self.assertTrue(all("==" in line for line in packages), name)
            self.assertEqual(text.count("==") <= text.count("--hash=sha256:"), True)
            self.assertNotIn("://", text)

    def test_ci_calls_what_the_readme_names(self) -> None:
        self.assertIn("./run test", (ROOT / ".ci/run").read_text())
        for command in ("./run demo", "./run test"):
            self.assertIn(command, (ROOT / "README.md").read_text())

    def test_every_picture_the_readme_shows_is_there_and_none_is_left_over(self) -> None:
        readme = (ROOT / "README.md").read_text()
        pictures = {path.name for path in (ROOT / "docs/screenshots").glob("*.png")}
        self.assertEqual({name for name in pictures if f"docs/screenshots/{name}" in readme}, pictures)
        self.assertEqual(readme.count("docs/screenshots/"), len(pictures))
