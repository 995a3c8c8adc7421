"""What was written by earlier versions means what it meant."""

import importlib
import json
from pathlib import Path

import msgspec
from django.test import SimpleTestCase

from ritornel.core.formats.archive import read_show_json, show_json
from ritornel.core.formats.upgrades import STEPS, VERSION, upgrade
from tests.examples import example_a

STORED = Path(__file__).parent / "archives"


class UpgradesTest(SimpleTestCase):
    def test_each_step_has_a_show_of_its_version(self) -> None:
        self.assertEqual({path.stem for path in STORED.glob("*.json")}, {f"version-{step}" for step in STEPS})

    def test_version_6_slides_of_a_show_on_cue_go_on_by_themselves_where_they_did(self) -> None:
        data = (STORED / "version-6.json").read_bytes()
        show = read_show_json(data, "x.ritornel")
        self.assertEqual(
            [(slide.id, slide.also_live) for slide in show.slides], [("one", True), ("two", False), ("three", True)]
        )
        slides = tuple(msgspec.structs.replace(slide, also_live=False) for slide in show.slides)
        self.assertEqual(
            msgspec.structs.replace(show, slides=slides),
            example_a(end="black", runs="on cue"),
            "nothing else has changed",
        )
        self_running = json.loads(data)["show"] | {"runs": "self-running"}
        self.assertEqual(upgrade(self_running, 6), self_running)

    def test_what_is_given_stays_as_it_is_and_the_present_version_is_not_touched(self) -> None:
        given = json.loads((STORED / "version-6.json").read_bytes())["show"]
        before = json.dumps(given)
        upgrade(given, 1)
        self.assertEqual(json.dumps(given), before)
        self.assertIs(upgrade(given, VERSION), given)

    def test_a_show_that_is_written_and_read_is_the_same(self) -> None:
        show = example_a(runs="on cue")
        self.assertEqual(read_show_json(show_json(show), "x"), show)

    def test_the_database_is_brought_on_in_the_same_way_and_so_is_what_undo_brings_back(self) -> None:
        migration = importlib.import_module("ritornel.web.shows.migrations.0010_also_live")
        slides = json.loads((STORED / "version-6.json").read_bytes())["show"]["slides"]
        self.assertEqual([slide.get("also_live", False) for slide in migration.marked(slides)], [True, False, True])
        change = [{"change": "put slide", "slide": slides[0]}]
        self.assertTrue(migration.marked(change)[0]["slide"]["also_live"])
