"""Shows from files that the worker reads."""

import io
import zipfile
from datetime import timedelta
from typing import Any
from unittest import mock

import pypdfium2 as pdfium
from asgiref.sync import async_to_sync
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from ritornel.core.errors import BadMedia, Cancelled
from ritornel.web.exchange import import_jobs
from ritornel.web.exchange.import_jobs import folder_of, read
from ritornel.web.exchange.imports import LOST_WORDS
from ritornel.web.jobs.resuming import resume_lost
from ritornel.web.shows.models import Reading, Show
from ritornel.web.shows.services import media_path, value_of
from tests.core.formats.opendocument import LOSSY, page, presentation
from tests.web.base import WebTest, held, lost


def pages(count: int) -> bytes:
    document = pdfium.PdfDocument.new()
    for _ in range(count):
        document.new_page(960, 540)
    out = io.BytesIO()
    document.save(out)
    return out.getvalue()


class ReadingWebTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        began = mock.patch("ritornel.web.exchange.imports.read_file")
        self.began = began.start()
        self.addCleanup(began.stop)

    def send(self, data: bytes, name: str = "pages.pdf", kind: str = "pdf") -> str:
        """Where to ask for what becomes of a file."""
        reply = self.client.post(f"/shows/from-{kind}", {"file": SimpleUploadedFile(name, data)})
        self.assertEqual(reply.status_code, 200, reply.content[:300])
        return str(reply.json()["reading"])

    def told(self, address: str) -> dict[str, Any]:
        return self.client.get(address).json()  # type: ignore[no-any-return]


class PagesTest(ReadingWebTest):
    def test_a_pdf_becomes_a_show_of_its_pages(self) -> None:
        address = self.send(pages(3))
        self.assertEqual(self.told(address)["state"], "waiting")
        (asked,) = (call.args[0] for call in self.began.call_args_list)
        hashes = [asset.sha256 for asset in read(asked)]
        told = self.told(address)
        self.assertEqual((told["state"], told["done"], told["total"]), ("ready", 3, 3))
        show = value_of(Show.objects.get(pk=told["address"].rstrip("/").split("/")[-1]))
        self.assertEqual((show.title, len(show.slides), show.slides[0].name), ("pages", 3, "Page 1"))
        self.assertEqual(hashes, [asset.sha256 for asset in show.assets])
        self.assertTrue(all(media_path(sha256).is_file() for sha256 in hashes))
        self.assertFalse(folder_of(asked).exists())

    def test_how_far_it_is_read_is_told_with_how_long_it_will_take(self) -> None:
        address = self.send(pages(12))
        told: list[tuple[int, int]] = []
        unpacked = import_jobs.unpack

        def watched(*given: Any) -> Any:
            *first, watch = given
            return unpacked(*first, lambda done, total: (told.append((done, total)), watch(done, total))[1])

        with (
            mock.patch("ritornel.web.jobs.sandbox.WATCH_EVERY_S", 0.005),
            mock.patch.object(import_jobs, "unpack", watched),
        ):
            read(Reading.objects.get().pk)
        self.assertEqual(told, sorted(told))
        self.assertGreater(len({done for done, total in told if total == 12}), 3)
        Reading.objects.update(
            state="running", started_at=timezone.now() - timedelta(seconds=10), done=50, total=200, **held()
        )
        self.assertAlmostEqual(self.told(address)["left_s"], 30, delta=1)
        Reading.objects.update(done=2)
        self.assertIsNone(self.told(address)["left_s"], "two pages of two hundred are too few to judge by")

    def test_one_that_is_told_to_stop_makes_nothing(self) -> None:
        address = self.send(pages(3))
        self.client.post(self.told(address)["cancel"])
        before = Show.objects.count()
        self.assertEqual(read(Reading.objects.get().pk), ())
        self.assertEqual((self.told(address)["state"], Show.objects.count()), ("cancelled", before))
        self.assertFalse(folder_of(Reading.objects.get().pk).exists())

    def test_one_that_is_told_to_stop_at_work_ends_its_reader(self) -> None:
        address = self.send(pages(200))

        def stops(_: Any, *given: Any, watch: Any, **how: Any) -> Any:
            Reading.objects.update(cancel_wanted=True)
            with self.assertRaises(Cancelled):
                watch()
            raise Cancelled("Nothing was made.")

        with mock.patch("ritornel.web.library.uploads.run_confined", stops):
            read(Reading.objects.get().pk)
        self.assertEqual(self.told(address)["state"], "cancelled")

    def test_what_is_no_pdf_makes_no_show_and_says_why(self) -> None:
        before = Show.objects.count()
        for data in (b"GIF89a", pages(2)[:200]):
            address = self.send(data, "x.pdf")
            read(Reading.objects.get(state="waiting").pk)
            told = self.told(address)
            self.assertEqual(
                (told["state"], told["message"]), ("failed", "“x.pdf” is no PDF that can be read. Nothing was made.")
            )
        self.assertEqual(Show.objects.count(), before)

    def test_a_request_without_a_file_and_one_too_large_are_refused_at_once(self) -> None:
        self.assertEqual(self.client.post("/shows/from-pdf").json()["error"], "Choose a PDF first.")
        with mock.patch("ritornel.web.exchange.imports.settings") as settings:
            settings.MEDIA_LIMITS.file_bytes = 10
            reply = self.client.post("/shows/from-pdf", {"file": SimpleUploadedFile("x.pdf", pages(1))})
        self.assertEqual(reply.status_code, 400)
        self.assertIn("Nothing was made.", reply.json()["error"])
        self.assertEqual((Reading.objects.count(), self.began.call_count), (0, 0))

    def test_one_whose_worker_is_gone_goes_on_by_itself_and_says_so_when_it_cannot(self) -> None:
        address = self.send(pages(1))
        asked: list[str] = []
        for _ in range(3):
            Reading.objects.update(state="running", **lost())
            self.assertEqual(self.told(address)["state"], "waiting")
            resume_lost(Reading, asked.append, LOST_WORDS)
        self.assertEqual(len(asked), 2)
        self.assertEqual((self.told(address)["state"], self.told(address)["message"]), ("failed", LOST_WORDS))

    def test_one_that_was_killed_in_the_middle_is_read_again_from_the_start(self) -> None:
        self.send(pages(2))
        found = Reading.objects.get()
        (folder_of(found.pk) / "media").mkdir()
        (folder_of(found.pk) / "media" / ("ab" * 32)).write_bytes(b"half of a page")
        self.assertEqual(len(read(found.pk)), 2)

    def test_what_somebody_never_came_back_for_is_swept_away_after_a_day(self) -> None:
        self.send(pages(1))
        self.client.force_login(self.odo)
        self.send(pages(1))
        self.assertEqual(Reading.objects.count(), 2, "a file that waits for the worker is left alone")
        old = Reading.objects.get(owner=self.ines)
        Reading.objects.filter(pk=old.pk).update(asked_at=timezone.now() - timedelta(hours=25))
        self.send(pages(1))
        self.assertFalse(Reading.objects.filter(pk=old.pk).exists() or folder_of(old.pk).exists())

    def test_nobody_else_sees_or_stops_it(self) -> None:
        address = self.send(pages(1))
        cancel = self.told(address)["cancel"]
        self.client.force_login(self.odo)
        self.assertEqual((self.client.get(address).status_code, self.client.post(cancel).status_code), (404, 404))
        self.assertFalse(Reading.objects.get().cancel_wanted)


class PresentationsTest(ReadingWebTest):
    """What is lost of a presentation is told before anything is made of it; PDFs are read alike."""

    def read(self, data: bytes) -> dict[str, Any]:
        """What is told of a presentation once it is read."""
        address = self.send(data, "clock.odp", "presentation")
        self.assertEqual(self.told(address)["state"], "waiting")
        read(Reading.objects.get(state="waiting").pk)
        return self.told(address)

    def test_one_of_which_nothing_is_lost_becomes_a_show_at_once(self) -> None:
        told = self.read(presentation(page("", "page1") + page("", "page2")))
        self.assertEqual((told["state"], told["done"], told["total"], told["plan"]), ("ready", 2, 2, None))
        show = value_of(Show.objects.get(pk=told["address"].rstrip("/").split("/")[-1], owner=self.ines))
        self.assertEqual(len(show.slides), 2)
        self.assertEqual(self.client.post(told["make"]).status_code, 400, "and nothing is made of it twice")

    def test_one_of_which_something_is_lost_waits_until_it_is_wanted_and_is_made_once(self) -> None:
        count = Show.objects.count()
        told = self.read(LOSSY)
        self.assertEqual((told["state"], told["address"], Show.objects.count()), ("ready", None, count))
        self.assertEqual((told["plan"]["slides"], told["plan"]["media"], len(told["plan"]["losses"])), (1, 1, 1))
        made = self.client.post(told["make"]).json()
        show = value_of(Show.objects.get(pk=made["address"].rstrip("/").split("/")[-1], owner=self.ines))
        self.assertTrue(media_path(show.assets[0].sha256).is_file())
        again = self.client.post(told["make"])
        self.assertIn("no longer here to be made into a show", again.json()["error"])
        self.assertEqual((again.status_code, Show.objects.count()), (400, count + 1))
        self.assertFalse(folder_of(Reading.objects.get().pk).exists())

    def test_one_that_is_left_leaves_nothing(self) -> None:
        count = Show.objects.count()
        told = self.read(LOSSY)
        self.client.post(told["cancel"])
        self.assertEqual(self.client.post(told["make"]).status_code, 400)
        self.assertEqual((Show.objects.count(), folder_of(Reading.objects.get().pk).exists()), (count, False))

    def test_nobody_else_makes_it(self) -> None:
        told = self.read(LOSSY)
        self.client.force_login(self.odo)
        self.assertEqual(self.client.post(told["make"]).status_code, 404)
        self.assertTrue(folder_of(Reading.objects.get().pk).exists())

    def test_where_making_fails_it_can_be_tried_again(self) -> None:
        told = self.read(LOSSY)
        with mock.patch.object(import_jobs, "create_rows", side_effect=BadMedia("The disk is full.")):
            self.assertEqual(self.client.post(told["make"]).json()["error"], "The disk is full.")
        self.assertEqual(self.client.post(told["make"]).status_code, 200)

    def test_a_hostile_or_damaged_one_makes_no_show(self) -> None:
        count = Show.objects.count()
        for wrong in (LOSSY[: len(LOSSY) // 2], b"PK\x03\x04nonsense", b"words"):
            told = self.read(wrong)
            self.assertEqual((told["state"], Show.objects.count()), ("failed", count))
            self.assertIn("Nothing was made.", told["message"])
        self.assertEqual(
            self.client.post("/shows/from-presentation").json()["error"],
            "Choose a presentation first; its name ends in .odp.",
        )


class ArchivesTest(ReadingWebTest):
    def archive(self) -> bytes:
        return bytes(self.client.get("/shows/clock/archive").content)

    def read(self, data: bytes) -> dict[str, Any]:
        """What is told of an archive once it is read."""
        address = self.send(data, "x.ritornel", "archive")
        read(Reading.objects.get(state="waiting").pk)
        return self.told(address)

    def test_a_show_goes_out_and_comes_in_as_the_same(self) -> None:
        saved = self.client.get("/shows/clock/archive")
        self.assertEqual(saved.headers["Content-Disposition"], 'attachment; filename="the-orlmere-clock.ritornel"')
        told = self.read(saved.content)
        self.assertEqual((told["state"], told["done"], told["plan"]), ("ready", told["total"], None))
        copy = Show.objects.exclude(pk="clock").get(owner=self.ines)
        self.assertEqual(told["address"], f"/shows/{copy.pk}/")
        one, other = value_of(self.row), value_of(copy)
        self.assertEqual(
            (one.slides, one.music, one.assets, one.title), (other.slides, other.music, other.assets, other.title)
        )

    def test_how_many_of_its_files_are_checked_is_told(self) -> None:
        data, seen = self.archive(), []
        address = self.send(data, "x.ritornel", "archive")
        unpacked = import_jobs.unpack

        def watched(*given: Any) -> Any:
            *first, watch = given
            return unpacked(*first, lambda done, total: (seen.append((done, total)), watch(done, total))[1])

        with (
            mock.patch("ritornel.web.jobs.sandbox.WATCH_EVERY_S", 0.005),
            mock.patch.object(import_jobs, "unpack", watched),
        ):
            read(Reading.objects.get().pk)
        self.assertEqual(self.told(address)["state"], "ready")
        count = len(value_of(self.row).assets)
        self.assertEqual(seen, sorted(seen))
        self.assertTrue({total for _, total in seen} <= {0, count})
        self.assertGreater(len({done for done, total in seen if total == count}), 2)

    def test_one_that_is_told_to_stop_makes_nothing_and_leaves_nothing(self) -> None:
        address = self.send(self.archive(), "x.ritornel", "archive")

        def stops(_: Any, *given: Any, watch: Any, **how: Any) -> Any:
            Reading.objects.update(cancel_wanted=True)
            watch()

        with mock.patch("ritornel.web.library.uploads.run_confined", stops):
            read(Reading.objects.get().pk)
        self.assertEqual((self.told(address)["state"], Show.objects.count()), ("cancelled", 1))
        self.assertFalse(folder_of(Reading.objects.get().pk).exists())

    def test_a_bad_one_is_told_and_makes_nothing(self) -> None:
        outside, lacking = io.BytesIO(), io.BytesIO()
        with zipfile.ZipFile(outside, "w") as bundle:
            bundle.writestr("../escaped", b"")
        with zipfile.ZipFile(io.BytesIO(self.archive())) as whole, zipfile.ZipFile(lacking, "w") as bundle:
            bundle.writestr("show.json", whole.read("show.json"))
        for data, words in (
            (b"no", "“x.ritornel” is not a Ritornel archive, or it is damaged."),
            (self.archive()[:5000], "“x.ritornel” is not a Ritornel archive, or it is damaged."),
            (
                outside.getvalue(),
                "“x.ritornel” holds “../escaped”, which has no place in an archive. Nothing was taken from it.",
            ),
            (lacking.getvalue(), "“x.ritornel” lacks the medium"),
        ):
            told = self.read(data)
            self.assertEqual((told["state"], told["address"], Show.objects.count()), ("failed", None, 1))
            self.assertIn(words, told["message"])
        with self.settings(ARCHIVE_BYTES=1000):
            refused = self.client.post(
                "/shows/from-archive", {"file": SimpleUploadedFile("x.ritornel", self.archive())}
            )
        self.assertIn("at most 0 MB can be read. Nothing was made.", refused.json()["error"])
        self.assertEqual(
            self.client.post("/shows/from-archive").json()["error"],
            "Choose an archive first; its name ends in .ritornel.",
        )

    def test_a_large_one_is_sent_in_pieces_and_whole(self) -> None:
        whole = self.archive()
        self.async_client.force_login(self.ines)
        with (
            mock.patch("ritornel.web.config.downloads.AT_ONCE", 1000),
            mock.patch("ritornel.web.config.downloads.CHUNK", 50_000),
        ):
            reply = async_to_sync(self.pieces)()
        self.assertGreater(len(reply), 3)
        self.assertEqual(b"".join(reply), whole)

    async def pieces(self) -> list[bytes]:
        reply = await self.async_client.get("/shows/clock/archive")
        self.assertTrue(reply.streaming)
        pieces = [piece async for piece in reply.streaming_content]
        self.assertEqual(int(reply.headers["Content-Length"]), sum(map(len, pieces)))
        return pieces

    def test_what_cannot_be_archived_whole_is_not_saved(self) -> None:
        media_path(value_of(self.row).assets[0].sha256).unlink()
        reply = self.client.get("/shows/clock/archive", follow=True)
        self.assertContains(reply, "cannot be archived whole.")
