"""What was removed from a show lies in its bin, comes back as it was, or goes for good."""

from datetime import timedelta
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import override_settings
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from ritornel.core.document.decoding import to_json
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.web.operations.tidying import tidy
from ritornel.web.releases.filming import film_path
from ritornel.web.releases.folders import edition_place
from ritornel.web.releases.models import Edition, FilmJob
from ritornel.web.shows.models import Show
from ritornel.web.shows.services import media_path, value_of
from ritornel.web.takes.models import Recording, Take
from tests.web.base import WebTest
from tests.web.test_show_list import HouseTest

BIN = "/shows/clock/bin"


class ShowBinTest(WebTest):
    """Of each kind one thing is removed: a take, a recorded one, a film, an edition and an entry of the shelf."""

    def setUp(self) -> None:
        super().setUp()
        self.take = Take.objects.create(show=self.row, person=self.ines, number=1, body=to_json(TakeValue((), 61_000)))
        self.recording = Recording.objects.create(
            show=self.row, number=1, state="ended", body=to_json(TakeValue((), 5000))
        )
        self.film = FilmJob.objects.create(
            show=self.row, person=self.ines, document=b"", state="ready", size_bytes=2_500_000
        )
        film_path(self.film).write_bytes(b"a film")
        for _ in range(2):
            self.post("/shows/clock/editions", {"audience": "anyone"})
        self.edition = Edition.objects.get(number=1)
        picture = SimpleUploadedFile("dial.svg", b'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')
        self.entry = self.client.post("/shows/clock/shelf", {"file": picture}).json()["asset"]
        self.removals = {
            "take": ("/shows/clock/takes/1/remove", self.take),
            "recording": (f"/shows/clock/record/{self.recording.pk}/remove", self.recording),
            "film": (f"/shows/clock/films/{self.film.pk}/remove", self.film),
            "edition": ("/shows/clock/editions/1/remove", self.edition),
        }

    def drop(self) -> None:
        self.edit({"do": "drop assets", "asset_ids": [self.entry["id"]]})

    def remove_all(self) -> None:
        for address, _ in self.removals.values():
            self.assertEqual(self.post(address).status_code, 200)
        self.drop()

    def test_what_was_removed_is_listed_by_kind_with_who_and_until_when(self) -> None:
        self.assertContains(self.client.get(BIN), "The bin of this show is empty.")
        self.remove_all()
        page = self.client.get(BIN).content.decode()
        for words in (
            "From the shelf",
            "Take 1, 1:01.0",
            "Recorded take 1, 0:05.0",
            "the-orlmere-clock-1280x720.mp4",
            "2.5 MB",
            "Edition 1, ",
            f"here until {(timezone.localtime() + timedelta(days=30)).strftime('%-d %b')}",
        ):
            self.assertIn(words, page)
        self.assertEqual(page.count("Removed by ines"), 5)
        self.assertContains(self.client.get("/bin/"), "4 removed")

    def test_nobody_finds_it_meanwhile_and_it_comes_back_as_it_was(self) -> None:
        self.remove_all()
        state = self.client.get("/shows/clock/films").json()
        self.assertEqual(([entry["number"] for entry in state["editions"]], state["films"]), ([2], []))
        self.assertEqual(self.client.get(f"/shows/clock/films/{self.film.pk}/file").status_code, 404)
        self.assertEqual(self.client.get("/shows/clock/editions/1.zip").status_code, 404)
        address = self.edition.release.address
        self.assertEqual(self.client.get(f"/s/{address}/1/performance.json").status_code, 404)
        for kind, (_, row) in self.removals.items():
            self.assertEqual(self.client.post(f"{BIN}/{kind}/{row.pk}/back").status_code, 302)
            self.assertEqual(type(row).objects.get(pk=row.pk), row)
            self.assertEqual(self.client.post(f"{BIN}/{kind}/{row.pk}/back").status_code, 404)
        self.assertEqual(self.client.get(f"/s/{address}/1/performance.json").status_code, 200)
        self.assertEqual(self.client.get(f"/shows/clock/films/{self.film.pk}/file").status_code, 200)

    def test_an_entry_of_the_shelf_comes_back_by_an_edit(self) -> None:
        before = value_of(self.row).asset(self.entry["id"])
        self.drop()
        revision = self.row.edits.last().first_revision - 1
        self.client.post(f"/shows/clock/history/{revision}/back", {"asset": self.entry["id"]})
        self.assertEqual(value_of(self.row).asset(self.entry["id"]), before)
        self.assertContains(self.client.get(BIN), "The bin of this show is empty.")
        self.post("/shows/clock/undo")
        self.assertIsNone(value_of(self.row).asset(self.entry["id"]))

    def test_for_good_frees_its_storage_and_says_how_much(self) -> None:
        self.remove_all()
        places = {"film": film_path(self.film), "edition": edition_place(self.edition.release.address, 1)}
        for kind, (_, row) in self.removals.items():
            place = places.get(kind)
            self.assertTrue(place is None or place.exists(), "in the bin everything is kept")
            with self.captureOnCommitCallbacks(execute=True):
                reply = self.client.post(f"{BIN}/{kind}/{row.pk}/remove", follow=True)
            self.assertContains(reply, "is gone for good.")
            self.assertFalse(type(row).everywhere.filter(pk=row.pk).exists())
            self.assertFalse(place is not None and place.exists(), kind)
        path = media_path(self.entry["sha256"])
        self.assertTrue(path.is_file())
        reply = self.client.post(f"{BIN}/entry/{self.entry['id']}/remove", follow=True)
        self.assertContains(reply, "are free again.")
        self.assertFalse(path.exists())
        self.assertContains(reply, "The bin of this show is empty.")

    def test_a_slide_is_removed_for_good_and_lies_there_again_only_when_it_is_removed_again(self) -> None:
        self.edit({"do": "remove slides", "slide_ids": ["bell-s"]})
        self.assertContains(self.client.get(BIN), "The bell")
        reply = self.client.post(f"{BIN}/slide/bell-s/remove", follow=True)
        self.assertContains(reply, "The bell is gone for good. The history still shows what the show was before.")
        self.assertContains(reply, "The bin of this show is empty.")
        self.assertRedirects(self.client.post(f"{BIN}/slide/bell-s/remove"), BIN)
        self.assertEqual(self.client.post(f"{BIN}/slide/esc-s/remove").status_code, 404)
        self.post("/shows/clock/undo")
        self.assertIsNotNone(value_of(Show.objects.get(pk="clock")).slide("bell-s"))
        self.edit({"do": "remove slides", "slide_ids": ["bell-s"]})
        self.assertContains(self.client.get(BIN), f"{BIN}/slide/bell-s/remove")

    def test_a_medium_that_another_show_holds_stays(self) -> None:
        self.client.post("/shows/clock/duplicate")
        self.drop()
        reply = self.client.post(f"{BIN}/entry/{self.entry['id']}/remove", follow=True)
        self.assertContains(reply, "another show, a film or an edition holds it too")
        self.assertTrue(media_path(self.entry["sha256"]).is_file())

    def test_the_edition_that_the_address_shows_is_not_removed(self) -> None:
        reply = self.post("/shows/clock/editions/2/remove")
        self.assertEqual(reply.status_code, 400)
        self.assertIn("Edition 2 is the newest", reply.json()["error"])
        self.assertEqual(self.edition.release.newest.number, 2)

    def test_numbers_in_the_bin_are_not_given_again(self) -> None:
        self.remove_all()
        Edition.objects.get(number=2).put_into_bin(self.ines)
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.assertEqual([edition.number for edition in Edition.objects.all()], [3])

    def test_a_film_that_came_to_nothing_is_gone_at_once(self) -> None:
        failed = FilmJob.objects.create(show=self.row, person=self.ines, document=b"", state="failed")
        self.assertEqual(self.post(f"/shows/clock/films/{failed.pk}/remove").json()["in_bin"], "")
        self.assertFalse(FilmJob.everywhere.filter(pk=failed.pk).exists())

    @override_settings(BIN_DAYS=7)
    def test_when_its_time_is_over_it_goes_by_itself_and_not_before(self) -> None:
        self.remove_all()
        for days, left in ((6.9, 1), (7.1, 0)):
            for _, row in self.removals.values():
                removed_at = timezone.now() - timedelta(days=days)
                type(row).everywhere.filter(pk=row.pk).update(removed_at=removed_at)
            with self.captureOnCommitCallbacks(execute=True), mock.patch("ritornel.web.operations.tasks.free"):
                tidy()
            kept = [type(row).everywhere.filter(pk=row.pk).count() for _, row in self.removals.values()]
            self.assertEqual(kept, [left] * 4)
        self.assertFalse(film_path(self.film).exists())

    def test_no_thing_in_the_bin_costs_a_query_of_its_own(self) -> None:
        self.remove_all()
        self.client.get(BIN)
        with CaptureQueriesContext(connection) as few:
            self.client.get(BIN)
        for number in range(2, 6):
            body = to_json(TakeValue((), 9))
            Take.objects.create(show=self.row, number=number, body=body, removed_at=timezone.now(), removed_by=self.odo)
            FilmJob.objects.create(
                show=self.row, person=self.ines, document=b"", state="ready", removed_at=timezone.now()
            )
        with CaptureQueriesContext(connection) as many:
            self.assertContains(self.client.get(BIN), "Take 5")
        self.assertEqual(len(few), len(many))


class SharedBinTest(HouseTest):
    def test_an_editor_brings_takes_back_but_not_films_or_editions(self) -> None:
        Take.objects.create(show=self.row, number=1, body=to_json(TakeValue((), 9)), removed_at=timezone.now())
        film = FilmJob.objects.create(
            show=self.row, person=self.ines, document=b"", state="ready", removed_at=timezone.now()
        )
        self.invite("edit")
        page = self.theirs.get(BIN)
        self.assertContains(page, "Take 1")
        self.assertNotContains(page, "1280x720")
        self.assertEqual(self.theirs.post(f"{BIN}/film/{film.pk}/back").status_code, 404)
        self.assertEqual(self.theirs.post(f"{BIN}/take/nine/back").status_code, 404)
