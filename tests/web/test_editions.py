"""Editions as the static files they are served from."""

import errno
import gzip
import importlib
import json
import os
import shutil
import time
from pathlib import Path
from types import SimpleNamespace
from unittest import mock

from django.test import Client

from ritornel.core.document.decoding import to_json
from ritornel.core.schedule.performance import builtins_of, perform
from ritornel.web.releases.folders import edition_place, served_file
from ritornel.web.releases.models import Edition, Release
from ritornel.web.shows.services import media_path, value_of
from tests.web.base import WebTest
from tests.web.editions_of_before import performance_of_before


class FoldersTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        address = self.post("/shows/clock/editions", {"audience": "anyone"}).json()["address"]
        self.path = "/" + address.split("/", 3)[3]
        self.release = Release.objects.get()
        self.folder = edition_place(self.release.address, 1)

    def test_an_edition_is_a_folder_whose_addresses_lie_beside_each_other(self) -> None:
        show = json.loads((self.folder / "performance.json").read_bytes())
        self.assertEqual((show["title"], len(show["slides"])), ("The Orlmere clock", 9))
        for name in show["media"].values():
            self.assertTrue((self.folder / name).is_file(), name)
        page = (self.folder / "index.html").read_text()
        self.assertIn('"performance": "performance.json", "calm": "calm.json"', page)
        self.assertNotIn(self.release.address, page)
        for name in ("performance.json", "calm.json"):
            self.assertEqual(
                gzip.decompress((self.folder / f"{name}.gz").read_bytes()), (self.folder / name).read_bytes()
            )

    def test_strangers_are_served_those_files_and_nothing_else_of_the_folder(self) -> None:
        self.client.logout()
        plain = self.client.get(self.path + "1/performance.json")
        packed = self.client.get(self.path + "1/performance.json", headers={"Accept-Encoding": "gzip"})
        self.assertEqual(plain.content, (self.folder / "performance.json").read_bytes())
        self.assertEqual((packed.headers["Content-Encoding"], gzip.decompress(packed.content)), ("gzip", plain.content))
        for name in ("index.html", "performance.json.gz", "nothing.png", "..%2f..%2fritornel.sqlite3", "%2e%2e"):
            self.assertEqual(self.client.get(self.path + "1/" + name).status_code, 404, name)
        self.assertIsNone(served_file(self.release.address, 1, "../1/performance.json"))

    def test_it_keeps_its_media_whatever_becomes_of_the_store(self) -> None:
        asset = value_of(self.row).assets[0]
        media_path(asset.sha256).unlink()
        name = json.loads((self.folder / "performance.json").read_bytes())["media"][asset.id]
        self.assertEqual(self.client.get(self.path + "1/" + name).status_code, 200)

    def test_one_that_cannot_be_made_leaves_nothing(self) -> None:
        with mock.patch("ritornel.web.releases.editions.put_in_place", side_effect=OSError(errno.ENOSPC, "no space")):
            reply = self.post("/shows/clock/editions", {"audience": "anyone"})
        self.assertEqual(reply.status_code, 507)
        self.assertIn("The disk is full: no edition of “The Orlmere clock” could be made.", reply.json()["error"])
        self.assertEqual(Edition.objects.count(), 1)
        self.assertEqual([path.name for path in self.folder.parent.parent.iterdir()], [self.release.address])
        self.assertEqual([path.name for path in self.folder.parent.iterdir()], ["1"])

    def test_what_a_killed_one_left_is_not_used(self) -> None:
        left = edition_place(self.release.address, 2)
        left.mkdir()
        (left / "old.png").write_bytes(b"of one that never came to be")
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.assertFalse((left / "old.png").exists())
        self.assertTrue((left / "performance.json").is_file())

    def test_what_killed_ones_left_half_laid_out_goes_after_a_day(self) -> None:
        root = self.folder.parent.parent
        yesterday, now = root / ".yesterday", root / ".now"
        for left in (yesterday, now):
            left.mkdir()
            (left / "performance.json").write_bytes(b"half of")
            self.addCleanup(shutil.rmtree, left, True)
        os.utime(yesterday, (time.time() - 25 * 3600,) * 2)
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.assertEqual(
            (yesterday.exists(), now.exists()), (False, True), "one that is being made beside it is left alone"
        )

    def test_the_files_go_with_the_edition_once_it_is_gone(self) -> None:
        with self.captureOnCommitCallbacks(execute=True):
            self.row.delete()
        self.assertFalse(self.folder.parent.exists())

    def test_editions_that_were_kept_in_the_database_are_laid_out_as_they_were(self) -> None:
        show = value_of(self.row)
        staged = perform(show)
        media = staged.media(lambda asset, rate_pct: f"/s/{self.release.address}/7/{self.name_of(asset.id)}")
        old = SimpleNamespace(
            release=self.release,
            number=7,
            document=to_json(show),
            performance=to_json(performance_of_before(builtins_of(staged, media))),
            calm=b"",
            first=b"",
            save=mock.Mock(),
        )
        models = mock.Mock()
        models.get_model.return_value.objects.select_related.return_value.iterator.return_value = [old]
        importlib.import_module("ritornel.web.releases.migrations.0010_edition_folders").lay_out(models, None)
        self.assertEqual(old.title, "The Orlmere clock")
        seven = edition_place(self.release.address, 7)
        importlib.import_module("ritornel.web.releases.migrations.0011_editions_without_notes").clean_folder(seven)
        now, then = (json.loads((folder / "performance.json").read_bytes()) for folder in (self.folder, seven))
        self.assertEqual(then, performance_of_before(now))
        self.assertTrue(all((seven / name).is_file() for name in then["media"].values()))
        self.assertEqual(
            (seven / "calm.json").read_bytes(), (seven / "performance.json").read_bytes(), "it had none of its own"
        )

    def name_of(self, asset_id: str) -> str:
        return str(json.loads((self.folder / "performance.json").read_bytes())["media"][asset_id])

    def test_where_files_cannot_be_shared_they_are_copied(self) -> None:
        with mock.patch("ritornel.web.releases.folders.os.link", side_effect=OSError("another disk")):
            self.post("/shows/clock/editions", {"audience": "anyone"})
        name = self.name_of("waltz")
        copy = edition_place(self.release.address, 2) / name
        self.assertEqual(copy.read_bytes(), (self.folder / name).read_bytes())
        self.assertNotEqual(copy.stat().st_ino, (self.folder / name).stat().st_ino)
        self.assertEqual(Path(media_path(name.split(".")[0])).stat().st_ino, (self.folder / name).stat().st_ino)


class AudienceTest(WebTest):
    def test_the_first_edition_is_refused_until_its_audience_is_said(self) -> None:
        reply = self.post("/shows/clock/editions")
        self.assertEqual((reply.status_code, reply.json()["field"]), (400, "audience"))
        self.assertIn("Say first who may see “The Orlmere clock”", reply.json()["error"])
        self.assertEqual((Release.objects.count(), Edition.objects.count()), (0, 0))
        state = self.post("/shows/clock/editions", {"audience": "domain", "domain": "orlmere.town"}).json()
        self.assertEqual((state["audience"], state["domain"]), ("domain", "orlmere.town"))
        again = self.post("/shows/clock/editions")
        self.assertEqual((again.status_code, again.json()["audience"]), (200, "domain"), "the next one is for the same")

    def test_a_look_of_the_makers_own_is_no_opening(self) -> None:
        address = self.post("/shows/clock/editions", {"audience": "anyone"}).json()["address"]
        self.client.get(address)
        self.assertEqual(Edition.objects.get().opened, 0)
        Client().get(address)
        self.assertEqual(Edition.objects.get().opened, 1)
