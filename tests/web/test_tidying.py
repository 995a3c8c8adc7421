"""What nothing refers to goes, what anything refers to stays."""

import os
import time
from datetime import timedelta
from io import StringIO
from pathlib import Path
from typing import Any
from unittest import mock

from django.contrib.sessions.models import Session
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.test import Client
from django.utils import timezone

from ritornel.demo.orlmere import media
from ritornel.web.jobs.derived_files import derived_path, make_once
from ritornel.web.operations.tasks import tidy_daily
from ritornel.web.operations.tidying import free_media, tidy
from ritornel.web.releases.filming import film_path
from ritornel.web.releases.folders import edition_place
from ritornel.web.releases.models import FilmJob, Release
from ritornel.web.shows.services import Show, create_rows, media_path, value_of
from tests.web.base import WebTest
from tests.web.test_shelf import png


class TidyTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        temporary = mock.patch("ritornel.web.operations.tidying.settings.TEMPORARY", self.var / "tmp")
        temporary.start()
        self.addCleanup(temporary.stop)
        (self.var / "tmp").mkdir()

    def old(self, path: Path, data: bytes = b"left") -> Path:
        """A file that was last touched more than a day ago."""
        if not path.exists():
            path.parent.mkdir(parents=True, exist_ok=True)
            path.write_bytes(data)
        os.utime(path, (time.time() - 25 * 3600,) * 2)
        return path

    def all_old(self) -> None:
        for path in self.var.rglob("*"):
            os.utime(path, (time.time() - 25 * 3600,) * 2)

    def test_what_anything_refers_to_stays(self) -> None:
        self.post("/shows/clock/editions", {"audience": "anyone"})
        job = FilmJob.objects.create(show=self.row, person=self.ines, document=b"", state="ready")
        film_path(job).write_bytes(b"film")
        make_once(
            derived_path("thumbnails", value_of(self.row).assets[0].sha256, ".webp"),
            lambda path: path.write_bytes(b"small"),
        )
        added = self.client.post("/shows/clock/shelf", {"file": SimpleUploadedFile("a.png", png())}).json()["asset"]
        self.post("/shows/clock/undo")
        self.all_old()
        before = {
            path for path in self.var.rglob("*") if path.is_file() and path.suffix not in (".lock", ".place", ".queued")
        }
        tidy()
        self.assertEqual({path for path in before if not path.exists()}, set())
        self.assertTrue(media_path(added["sha256"]).exists(), "undo could bring it back")

    def test_what_nothing_refers_to_goes_once_it_is_a_day_old(self) -> None:
        old, young = media_path("ab" * 32), media_path("cd" * 32)
        gone = [
            self.old(old),
            self.old(derived_path("thumbnails", "ab" * 32, ".webp")),
            self.old(self.var / "derived/lighter/v0/ab/old.mp4").parent.parent,
            self.old(self.var / "smalls/ab/x.webp").parent.parent,
            self.old(self.var / "films/nobodys.mp4"),
            self.old(self.var / "films/handed-in/nobodys.mp4"),
            self.old(self.var / "tmp/upload-of-192-MB.upload"),
            self.old(media_path("ef" * 32).with_name(".unfinished-x-" + "ef" * 32)),
        ]
        for name in ("editions/gone/1", "recordings/gone", "readings/gone"):
            self.old(self.var / name / "file")
            gone.append(self.old((self.var / name).parent if name.startswith("editions") else self.var / name))
        young.parent.mkdir(parents=True)
        young.write_bytes(b"just come")
        (self.var / "tmp/now.upload").write_bytes(b"coming")
        Session.objects.create(session_key="old", session_data="", expire_date=timezone.now() - timedelta(days=1))
        told = StringIO()
        call_command("tidy", stdout=told)
        self.assertEqual([path for path in gone if path.exists()], [])
        self.assertTrue(young.exists() and (self.var / "tmp/now.upload").exists())
        self.assertFalse(Session.objects.filter(session_key="old").exists())
        self.assertIn("Media that no show holds: 1 removed, 0.0 MB", told.getvalue())
        self.assertIn("MB were freed.", told.getvalue())

    def test_a_lock_that_is_held_stays(self) -> None:
        target = derived_path("thumbnails", "ab" * 32, ".webp")

        def write(path: Path) -> None:
            self.all_old()
            tidy()
            self.assertFalse(make_once(target, self.fail, wait=False), "the lock is still one")
            path.write_bytes(b"whole")

        make_once(target, write)

    def test_the_worker_does_it_once_a_day(self) -> None:
        with (
            mock.patch("ritornel.web.operations.tasks.tidy_house") as asked,
            mock.patch("ritornel.web.operations.tasks.settings.VAR", self.var),
        ):
            for _ in range(3):
                tidy_daily()
            self.assertEqual(asked.call_count, 1)
            self.old(self.var / "tidied")
            tidy_daily()
            self.assertEqual(asked.call_count, 2)


class RemovedShowTest(WebTest):
    def remove(self, show_id: str) -> list[Any]:
        with mock.patch("ritornel.web.operations.tasks.free") as asked, self.captureOnCommitCallbacks(execute=True):
            self.client.post(f"/shows/{show_id}/remove")
            self.client.post(f"/bin/{show_id}/remove")
        return [call.args[0] for call in asked.call_args_list]

    def test_its_bytes_are_free_at_once_and_what_another_show_holds_stays(self) -> None:
        shared = next(asset for asset, _ in media().values() if asset.id == "noon")
        other = Show(id="other", owner=self.odo)
        import msgspec

        create_rows(
            other, msgspec.structs.replace(value_of(self.row), id="other", slides=(), music=(), assets=(shared,))
        )
        self.post("/shows/clock/editions", {"audience": "anyone"})
        job = FilmJob.objects.create(show=self.row, person=self.ines, document=b"", state="ready")
        film_path(job).write_bytes(b"film")
        edition = edition_place(Release.objects.get().address, 1)
        hashes = {asset.sha256 for asset in value_of(self.row).assets}
        (asked,) = self.remove("clock")
        self.assertEqual(set(asked), hashes)
        self.assertFalse(film_path(job).exists() or edition.exists())
        freed = free_media(asked)
        self.assertEqual((freed.count, freed.bytes > 100_000), (len(hashes) - 1, True))
        self.assertEqual({sha256 for sha256 in hashes if media_path(sha256).exists()}, {shared.sha256})

    def test_a_show_that_is_not_removed_after_all_keeps_everything(self) -> None:
        stranger = Client()
        stranger.force_login(self.odo)
        self.assertEqual(stranger.post("/shows/clock/remove").status_code, 404)
        self.assertEqual(free_media([asset.sha256 for asset in value_of(self.row).assets]).count, 0)
