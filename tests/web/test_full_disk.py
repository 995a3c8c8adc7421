"""A full disk, as SQLite and the file system tell of it."""

import asyncio
import contextlib
import errno
import os
import sqlite3
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from unittest import mock

from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client, SimpleTestCase, TransactionTestCase, override_settings

from ritornel.demo.orlmere import media
from ritornel.web.config.bodies import BodyLimit
from ritornel.web.config.disk_reserve import RESERVE, RESERVE_BYTES, keep_open, mind_reserve
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.models import Edit, Show
from ritornel.web.shows.services import create_rows
from tests.web.base import QUICK_HASHERS

PASSWORD = "six years of Saturdays"


@contextlib.contextmanager
def full_database() -> Iterator[None]:
    """The database may not grow by a page: SQLite then answers as on a full disk (SQLITE_FULL)."""
    with connection.cursor() as cursor:
        pages = cursor.execute("PRAGMA page_count").fetchone()[0]
        cursor.execute("VACUUM")
        pages = cursor.execute("PRAGMA page_count").fetchone()[0]
        cursor.execute(f"PRAGMA max_page_count = {pages}")
    try:
        yield
    finally:
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA max_page_count = 1073741823")


@override_settings(PASSWORD_HASHERS=QUICK_HASHERS)
class FullDatabaseTest(TransactionTestCase):
    def setUp(self) -> None:
        self.ines = User.objects.create_user("ines", password=PASSWORD)
        self.row = Show(id="clock", owner=self.ines)
        create_rows(self.row, blank_show("clock", "The clock"))
        self.client.force_login(self.ines)

    def edit(self, notes: str) -> Any:
        slide = self.row.slides.get().slide_id
        body = {
            "revision": Show.objects.get().revision,
            "edit": {"do": "change slides", "slide_ids": [slide], "changes": {"notes": notes}},
        }
        return self.client.post("/shows/clock/edit", body, content_type="application/json")

    def test_an_edit_is_refused_in_a_sentence_and_goes_through_when_there_is_room(self) -> None:
        with full_database():
            reply = self.edit("x" * 90_000)
            self.assertEqual(reply.status_code, 507)
            self.assertIn(
                "The server's disk is full, so nothing could be kept. Nothing was changed", reply.json()["error"]
            )
            self.assertEqual((Show.objects.get().revision, Edit.objects.count()), (0, 0))
            self.assertEqual(self.client.get("/shows/clock/").status_code, 200, "a show can be looked at")
        self.assertEqual(self.edit("x" * 90_000).status_code, 200)
        self.assertEqual(Show.objects.get().revision, 1)

    def test_asking_for_a_film_is_refused_in_a_sentence(self) -> None:
        with full_database(), mock.patch("ritornel.web.releases.views.film") as queued:
            # The first rows may still fit into the last page.
            for _ in range(60):
                reply = self.client.post("/shows/clock/films", {"kind": "mp4"}, content_type="application/json")
                if reply.status_code != 200:
                    break
        self.assertEqual(reply.status_code, 507)
        self.assertLess(queued.call_count, 60)

    def test_people_sign_in_look_and_sign_out_while_there_is_no_room(self) -> None:
        with full_database():
            for _ in range(40):
                browser = Client()
                reply = browser.post("/sign-in/", {"username": "ines", "password": PASSWORD})
                self.assertEqual(reply.status_code, 302, reply.content[-300:])
                self.assertEqual(browser.get("/").status_code, 200)
                self.assertContains(browser.get("/shows/clock/"), "The clock")
            self.assertTrue(
                browser.cookies["sessionid"].value.startswith("~"), "the last of them found no room for a session"
            )
            browser.cookies["sessionid"] = browser.cookies["sessionid"].value[:-3] + "abc"
            self.assertEqual(browser.get("/").status_code, 302, "a forged one is worth nothing")
        browser = Client()
        with full_database():
            for _ in range(40):
                browser.post("/sign-in/", {"username": "ines", "password": PASSWORD})
        browser.post("/sign-out/")
        self.assertEqual(browser.get("/").status_code, 302)

    def test_a_page_tells_it_as_a_page(self) -> None:
        with full_database():
            for _ in range(80):
                reply = self.client.post("/shows/new", {"title": "x" * 200})
                if reply.status_code != 302:
                    break
        self.assertContains(reply, "The server&#x27;s disk is full", status_code=507)


class FullFilesTest(TransactionTestCase):
    def setUp(self) -> None:
        self.ines = User.objects.create(username="ines")
        self.row = Show(id="clock", owner=self.ines)
        create_rows(self.row, blank_show("clock", "The clock"))
        self.client.force_login(self.ines)

    def test_an_upload_an_archive_and_a_reading_are_refused_in_a_sentence(self) -> None:
        no_room = OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))
        picture = next(iter(media().values()))[1]
        for fault in (
            "ritornel.web.config.atomic_files.os.fsync",
            "ritornel.web.library.uploads.tempfile.TemporaryDirectory",
        ):
            with mock.patch(fault, side_effect=no_room):
                reply = self.client.post(
                    "/shows/clock/shelf",
                    {"file": SimpleUploadedFile("noon.jpg", picture)},
                    headers={"X-CSRFToken": "x"},
                )
            self.assertEqual((reply.status_code, "disk is full" in reply.json()["error"]), (507, True), fault)
        with mock.patch("ritornel.web.config.downloads.tempfile.TemporaryFile", side_effect=no_room):
            reply = self.client.get("/shows/clock/archive")
        self.assertContains(reply, "disk is full", status_code=507)
        with mock.patch("ritornel.web.exchange.imports.write_down", side_effect=no_room):
            reply = self.client.post(
                "/shows/from-archive", {"file": SimpleUploadedFile("a.ritornel", b"PK")}, headers={"X-CSRFToken": "x"}
            )
        self.assertEqual((reply.status_code, "disk is full" in reply.json()["error"]), (507, True))
        self.assertEqual(self.row.assets.count(), 0)


class ReserveTest(SimpleTestCase):
    """The room that is kept so that a server can start on a full disk; tried on a file system of 60 MB, and as steps
    here.
    """

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def minded(self, free_bytes: int) -> bool:
        with mock.patch("ritornel.web.config.disk_reserve.shutil.disk_usage", return_value=mock.Mock(free=free_bytes)):
            mind_reserve(self.folder)
        return (self.folder / RESERVE).is_file()

    def test_it_is_made_of_real_bytes_while_there_is_room_given_up_on_a_full_disk_and_made_again(self) -> None:
        self.assertTrue(self.minded(10**9))
        self.assertGreaterEqual((self.folder / RESERVE).stat().st_blocks * 512, RESERVE_BYTES)
        self.assertTrue(self.minded(2 * RESERVE_BYTES), "what is there stays")
        self.assertFalse(self.minded(0))
        self.assertFalse(self.minded(2 * RESERVE_BYTES), "it is not made of the last that is free")
        self.assertTrue(self.minded(10**9))

    def test_a_disk_that_fills_meanwhile_stops_nothing(self) -> None:
        with mock.patch.object(Path, "write_bytes", side_effect=OSError(errno.ENOSPC, "No space left on device")):
            self.assertFalse(self.minded(10**9))

    def test_a_held_connection_keeps_the_database_open(self) -> None:
        database = self.folder / "a.sqlite3"
        made = sqlite3.connect(database)
        made.execute("PRAGMA journal_mode=WAL")
        made.execute("CREATE TABLE a (b)")
        held = keep_open(database)
        made.close()
        self.assertTrue((self.folder / "a.sqlite3-shm").is_file())
        held.close()
        self.assertFalse((self.folder / "a.sqlite3-shm").exists(), "else the last to close takes it along")


class FullBodyTest(SimpleTestCase):
    def test_a_body_that_django_cannot_put_into_a_file_is_read_to_its_end_and_told(self) -> None:
        pieces = [b"x" * 100_000] * 9
        sent: list[Any] = []

        async def inner(scope: Any, receive: Any, send: Any) -> None:
            await receive()
            raise OSError(errno.ENOSPC, "No space left on device")

        async def receive() -> Any:
            return {"type": "http.request", "body": pieces.pop(), "more_body": bool(pieces)}

        async def send(message: Any) -> None:
            sent.append(message)

        headers = [(b"content-length", b"900000"), (b"x-csrftoken", b"x")]
        asyncio.run(
            BodyLimit(inner)(
                {"type": "http", "method": "POST", "path": "/shows/clock/shelf", "headers": headers}, receive, send
            )
        )
        self.assertEqual((sent[0]["status"], pieces), (507, []))
        self.assertIn(b"The server's disk is full", sent[1]["body"])
