"""What was written by earlier versions means what it meant."""

import importlib
import json
from pathlib import Path

import msgspec
from django.test import SimpleTestCase

from ritornel.core.document.objects import Clip
from ritornel.core.document.show import Show
from ritornel.core.formats.archive import read_show_json, show_json
from ritornel.core.formats.upgrades import STEPS, VERSION, upgrade
from ritornel.core.schedule.performance import perform
from tests.examples import example_a

STORED = Path(__file__).parent / "archives"
LENGTHS_MS = {3: 9500, 4: 11_800, 5: 10_800, 7: 10_800, 8: 10_800, 9: 10_800, 10: 10_800}
"""Of the second slide: a clip of 3 s came in version 4, and ran at 150 % from version 5 on."""


class UpgradesTest(SimpleTestCase):
    def stored(self, version: int) -> Show:
        return read_show_json((STORED / f"version-{version}.json").read_bytes(), "x.ritornel")

    def test_each_version_has_a_show_that_was_written_by_it(self) -> None:
        """Versions 1 and 2 are older than this repository."""
        versions = {json.loads(path.read_bytes())["version"] for path in STORED.glob("*.json")}
        self.assertEqual(versions, set(range(3, VERSION)))
        self.assertLessEqual(set(STEPS), versions)

    def test_a_show_of_each_version_runs_as_it_did(self) -> None:
        """The lengths are those that the program of that version told when it wrote the show."""
        for version, second_ms in LENGTHS_MS.items():
            with self.subTest(version):
                schedule = perform(self.stored(version)).schedule
                self.assertEqual([slide.length_ms for slide in schedule.slides], [15_000, second_ms])
                beats = [[beat.start_ms for beat in slide.beats] for slide in schedule.slides]
                self.assertEqual(beats, [[900], [0, 3100, 6800]])

    def test_what_each_version_brought_is_still_there(self) -> None:
        clip = self.stored(4).slides[1].objects[-1]
        assert isinstance(clip, Clip)
        self.assertEqual((clip.in_ms, clip.out_ms, clip.fade_out_ms, clip.rate_pct), (1000, 4000, 200, 100))
        quicker = self.stored(5).slides[1].objects[-1]
        assert isinstance(quicker, Clip)
        self.assertEqual((quicker.rate_pct, quicker.captions[0].text), (150, "It swings."))
        self.assertEqual(self.stored(7).slides[1].opens_section, "Two wheels")
        self.assertTrue(self.stored(7).slides[0].also_live)
        self.assertEqual([spare.object.name for spare in self.stored(8).slides[0].spares], ["An older text"])
        self.assertEqual(self.stored(9).slides[1].given_to, "Odo Brakspear")
        self.assertEqual((self.stored(9).language, self.stored(9).notes_as_captions), ("en", False))
        self.assertEqual((self.stored(10).language, self.stored(10).notes_as_captions), ("de", True))

    def test_a_show_of_each_version_is_the_same_when_it_is_written_now_and_read_again(self) -> None:
        for path in sorted(STORED.glob("*.json")):
            with self.subTest(path.stem):
                show = read_show_json(path.read_bytes(), path.name)
                self.assertEqual(read_show_json(show_json(show), path.name), show)

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
