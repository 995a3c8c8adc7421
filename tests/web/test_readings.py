"""Shows from files that the worker reads."""

import io
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest import mock

import pypdfium2 as pdfium
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from ritornel.core.errors import Cancelled
from ritornel.web.shows import readings
from ritornel.web.shows.models import Reading, Show
from ritornel.web.shows.readings import came, read
from ritornel.web.shows.services import media_path, value_of
from tests.web.base import WebTest


def pages(count: int) -> bytes:
    document = pdfium.PdfDocument.new()
    for _ in range(count):
        document.new_page(960, 540)
    out = io.BytesIO()
    document.save(out)
    return out.getvalue()


class ReadingsTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        began = mock.patch("ritornel.web.shows.tasks.read_pages")
        self.began = began.start()
        self.addCleanup(began.stop)

    def send(self, data: bytes, name: str = "pages.pdf") -> str:
        """Where to ask for what becomes of a file."""
        reply = self.client.post("/shows/from-pdf", {"file": SimpleUploadedFile(name, data)})
        self.assertEqual(reply.status_code, 200, reply.content[:300])
        return str(reply.json()["reading"])

    def told(self, address: str) -> dict[str, Any]:
        return self.client.get(address).json()  # type: ignore[no-any-return]

    def test_a_pdf_becomes_a_show_of_its_pages(self) -> None:
        address = self.send(pages(3))
        self.assertEqual(self.told(address)["state"], "waiting")
        (asked,) = (call.args[0] for call in self.began.call_args_list)
        hashes = read(asked)
        told = self.told(address)
        self.assertEqual((told["state"], told["done"], told["total"]), ("ready", 3, 3))
        show = value_of(Show.objects.get(pk=told["address"].rstrip("/").split("/")[-1]))
        self.assertEqual((show.title, len(show.slides), show.slides[0].name), ("pages", 3, "Page 1"))
        self.assertEqual(hashes, [asset.sha256 for asset in show.assets])
        self.assertTrue(all(media_path(sha256).is_file() for sha256 in hashes))
        self.assertFalse(came(asked).exists())

    def test_how_far_it_is_read_is_told_with_how_long_it_will_take(self) -> None:
        address = self.send(pages(12))
        told: list[tuple[int, int]] = []
        unpacked = readings.unpack_pdf

        def watched(path: Path, name: str, show_id: str, watch: Callable[[int, int], None]) -> Any:
            return unpacked(path, name, show_id, lambda done, total: (told.append((done, total)), watch(done, total))[1])

        with mock.patch("ritornel.web.shows.confined.WATCH_EVERY_S", 0.005), mock.patch.object(readings, "unpack_pdf", watched):
            read(Reading.objects.get().pk)
        self.assertEqual(told, sorted(told))
        self.assertGreater(len({done for done, total in told if total == 12}), 3)
        Reading.objects.update(state="running", started_at=timezone.now() - timedelta(seconds=10), heard_at=timezone.now(), done=50, total=200)
        self.assertAlmostEqual(self.told(address)["left_s"], 30, delta=1)
        Reading.objects.update(done=2)
        self.assertIsNone(self.told(address)["left_s"], "two pages of two hundred are too few to judge by")

    def test_one_that_is_told_to_stop_makes_nothing(self) -> None:
        address = self.send(pages(3))
        self.client.post(self.told(address)["cancel"])
        before = Show.objects.count()
        self.assertEqual(read(Reading.objects.get().pk), [])
        self.assertEqual((self.told(address)["state"], Show.objects.count()), ("cancelled", before))
        self.assertFalse(came(Reading.objects.get().pk).exists())

    def test_one_that_is_told_to_stop_at_work_ends_its_reader(self) -> None:
        address = self.send(pages(200))

        def stops(_: Any, *given: Any, watch: Any, **how: Any) -> Any:
            Reading.objects.update(cancel_wanted=True)
            with self.assertRaises(Cancelled):
                watch()
            raise Cancelled("Nothing was made.")

        with mock.patch("ritornel.web.shows.intake.confined", stops):
            read(Reading.objects.get().pk)
        self.assertEqual(self.told(address)["state"], "cancelled")

    def test_what_is_no_pdf_makes_no_show_and_says_why(self) -> None:
        before = Show.objects.count()
        for data in (b"GIF89a", pages(2)[:200]):
            address = self.send(data, "x.pdf")
            read(Reading.objects.get(state="waiting").pk)
            told = self.told(address)
            self.assertEqual((told["state"], told["message"]), ("failed", "“x.pdf” is no PDF that can be read. Nothing was made."))
        self.assertEqual(Show.objects.count(), before)

    def test_a_request_without_a_file_and_one_too_large_are_refused_at_once(self) -> None:
        self.assertEqual(self.client.post("/shows/from-pdf").json()["error"], "Choose a PDF first.")
        with mock.patch("ritornel.web.shows.intake.settings") as settings:
            settings.MEDIA_LIMITS.file_bytes = 10
            reply = self.client.post("/shows/from-pdf", {"file": SimpleUploadedFile("x.pdf", pages(1))})
        self.assertEqual(reply.status_code, 400)
        self.assertIn("Nothing was made.", reply.json()["error"])
        self.assertEqual((Reading.objects.count(), self.began.call_count), (0, 0))

    def test_a_reader_whose_worker_is_gone_is_told_so(self) -> None:
        address = self.send(pages(1))
        Reading.objects.update(state="running", heard_at=timezone.now() - timedelta(seconds=20))
        self.assertEqual(self.told(address)["message"], "The worker stopped while it read “pages.pdf”. Choose the file again.")
        lost = Reading.objects.get()
        self.send(pages(1))
        self.assertFalse(Reading.objects.filter(pk=lost.pk).exists() or came(lost.pk).exists(), "the next one takes its place")

    def test_nobody_else_sees_or_stops_it(self) -> None:
        address = self.send(pages(1))
        cancel = self.told(address)["cancel"]
        self.client.force_login(self.odo)
        self.assertEqual((self.client.get(address).status_code, self.client.post(cancel).status_code), (404, 404))
        self.assertFalse(Reading.objects.get().cancel_wanted)
