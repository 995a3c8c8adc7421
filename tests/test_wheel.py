"""The program as a package, installed into an environment of its own, with what the package itself asks for and
nothing else. The environment of the tests lends what is asked for, so that nothing is fetched twice.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from importlib import metadata
from pathlib import Path

from django.test import SimpleTestCase
from packaging.requirements import Requirement
from packaging.utils import canonicalize_name

from ritornel.demo.orlmere import MEDIA

ROOT = Path(__file__).resolve().parents[1]


def asked_for(requirements: list[str]) -> set[str]:
    """The distributions that `requirements` need, with those that these need in turn."""
    found: set[str] = set()
    waiting = [(Requirement(line), "") for line in requirements]
    while waiting:
        requirement, extra = waiting.pop()
        name = canonicalize_name(requirement.name)
        if name in found or (requirement.marker and not requirement.marker.evaluate({"extra": extra})):
            continue
        found.add(name)
        lines = [Requirement(line) for line in metadata.requires(name) or ()]
        waiting += [(line, extra) for line in lines for extra in ("", *requirement.extras)]
    return found


def lend(distribution: metadata.Distribution, site: Path) -> None:
    """Makes a distribution of this environment one of `site` too, by links."""
    for name in {file.parts[0] for file in distribution.files or () if file.parts[0] not in ("..", "__pycache__")}:
        (site / name).symlink_to(Path(str(distribution.locate_file(name))).resolve())


class WheelTest(SimpleTestCase):
    def call(self, *words: object, folder: Path) -> str:
        # Without the path to our own source, which would stand in for what is to be installed.
        alone = {
            name: value for name, value in os.environ.items() if name not in ("PYTHONPATH", "DJANGO_SETTINGS_MODULE")
        }
        done = subprocess.run([str(word) for word in words], cwd=folder, env=alone, capture_output=True, text=True)
        self.assertEqual(done.returncode, 0, f"{words}\n{done.stdout[-1500:]}\n{done.stderr[-1500:]}")
        return done.stdout

    def test_it_makes_a_show_tells_its_schedule_and_films_it(self) -> None:
        with tempfile.TemporaryDirectory(prefix="ritornel-wheel-") as name:
            folder = Path(name)
            quiet = ("-q", "--disable-pip-version-check")
            # A copy, because building leaves folders beside the source.
            source = folder / "source"
            shutil.copytree(ROOT / "src", source / "src", ignore=shutil.ignore_patterns("__pycache__"))
            for file in ("pyproject.toml", "README.md", "requirements.in"):
                shutil.copy(ROOT / file, source)
            self.call(sys.executable, "-m", "pip", "wheel", *quiet, "--no-deps", "-w", folder, source, folder=folder)
            (wheel,) = folder.glob("ritornel-*.whl")
            # Without a pip of its own, which takes longer to come in than all the rest.
            self.call(sys.executable, "-m", "venv", "--without-pip", folder / "empty", folder=folder)
            pip = (sys.executable, "-m", "pip", "--python", folder / "empty/bin/python")
            (site,) = (folder / "empty").glob("lib/python*/site-packages")
            self.call(*pip, "install", *quiet, "--no-deps", wheel, folder=folder)
            (installed,) = metadata.distributions(name="ritornel", path=[str(site)])
            for name in asked_for(installed.requires or []):
                lend(metadata.distribution(name), site)
            # Each is there in the version that is asked for.
            self.call(*pip, "check", "--disable-pip-version-check", folder=folder)
            ritornel = folder / "empty/bin/ritornel"
            pictures = folder / "pictures"
            pictures.mkdir()
            for number in (1, 2):
                (pictures / f"{number}.jpg").write_bytes(next(iter(sorted(MEDIA.glob("*.jpg")))).read_bytes())
            self.call(ritornel, "new", pictures, "--each", "0.4", "--title", "Two", "-o", "two.ritornel", folder=folder)
            self.assertIn("Two", self.call(ritornel, "schedule", "two.ritornel", folder=folder))
            self.call(ritornel, "render", "two.ritornel", "-o", "two.mp4", "--size", "160x90", folder=folder)
            self.assertGreater((folder / "two.mp4").stat().st_size, 1000)
            # Pages and their scripts came along too.
            django = (
                "import django; django.setup(); from django.template.loader import get_template; "
                "get_template('base.html')"
            )
            environment = f"DJANGO_SETTINGS_MODULE=ritornel.web.config.settings RITORNEL_VAR={folder}/var"
            self.call("/bin/sh", "-c", f'{environment} {folder}/empty/bin/python -c "{django}"', folder=folder)
