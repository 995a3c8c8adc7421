import re
from datetime import timedelta
from unittest import mock

from django.db import connection
from django.test import Client, override_settings
from django.test.utils import CaptureQueriesContext
from django.urls import reverse
from django.utils import timezone

from ritornel.web.editor.presence import Somebody, presence
from ritornel.web.operations.tidying import tidy
from ritornel.web.people.models import Invitation
from ritornel.web.releases.models import Release
from ritornel.web.shows.models import Show
from ritornel.web.shows.pages import copied_title
from ritornel.web.shows.services import value_of
from tests.web.base import WebTest


class HouseTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.theirs = Client()
        self.theirs.force_login(self.odo)

    def invite(self, role: str, section: str = "") -> None:
        known = {"by": self.ines, "address": "odo@orlmere.example", "name": "Odo", "role": role, "section": section}
        Invitation.objects.create(show=self.row, person=self.odo, accepted_at=timezone.now(), **known)


class FoundTest(HouseTest):
    def titles(self, query: str = "") -> list[str]:
        page = self.client.get(f"/{query}").content.decode()
        return [title.strip() for title in re.findall(r"<h3[^>]*><a[^>]*>([^<]*)</a>", page)]

    def another(self, title: str) -> None:
        self.client.post("/shows/new", {"title": title})

    def test_shows_are_found_by_words_in_titles_on_slides_and_in_notes_and_it_is_told_where(self) -> None:
        self.another("The bell")
        self.assertEqual(self.titles("?q=orlmere+CLOCK"), ["The Orlmere clock"])
        self.assertContains(self.client.get("/?q=one+tooth"), "Slide 3: lets one tooth pass")
        self.assertEqual(self.titles("?q=the+bell"), ["The bell", "The Orlmere clock"])
        self.assertContains(self.client.get("/?q=nowhere"), "No show has “nowhere” in its title")
        self.assertNotContains(self.client.get("/?q=<b>x"), "<b>x")

    def test_what_somebody_may_not_see_of_a_show_is_not_found_in_it(self) -> None:
        self.invite("record", "esc-s")
        self.assertContains(self.theirs.get("/?q=escapement"), "The Orlmere clock")
        self.assertContains(self.theirs.get("/?q=thirty+years"), "No show has")

    def test_they_come_in_the_order_that_is_wanted(self) -> None:
        self.another("A short one")
        self.assertEqual(self.titles(), ["A short one", "The Orlmere clock"])
        self.assertEqual(self.titles("?sort=title"), ["A short one", "The Orlmere clock"])
        self.assertEqual(self.titles("?sort=length"), ["The Orlmere clock", "A short one"])
        self.assertEqual(self.titles("?sort=nonsense"), ["A short one", "The Orlmere clock"])

    def test_shows_lie_in_folders_and_shared_ones_apart(self) -> None:
        self.another("The bell")
        self.client.post("/shows/clock/folder", {"folder": "  Towers\n "})
        page = self.client.get("/").content.decode()
        self.assertLess(page.index("In no folder"), page.index("The bell"))
        self.assertLess(page.index(">Towers<"), page.index("The Orlmere clock</a>"))
        reply = self.client.post("/shows/clock/folder", {"folder": "x" * 61}, follow=True)
        self.assertContains(reply, "name has 61 characters; it takes 60. Nothing was changed.")
        self.assertEqual(Show.objects.get(pk="clock").folder, "Towers")
        self.invite("edit")
        seen = self.theirs.get("/").content.decode()
        self.assertLess(seen.index("Shared with you"), seen.index("The Orlmere clock</a>"))
        self.assertNotIn("Towers", seen, "a folder is its owner's order")

    def test_who_is_in_a_show_now_is_told(self) -> None:
        presence().open("clock", Somebody("w1", self.odo.pk, "Odo", "esc-s", ()), mock.Mock())
        self.addCleanup(presence().close, "clock", "w1")
        self.assertContains(self.client.get("/"), "Odo is in it now.")

    def test_no_show_costs_a_query_of_its_own(self) -> None:
        self.client.get("/")
        with self.assertNumQueries(6):
            self.client.get("/")
        for _ in range(3):
            self.client.post("/shows/clock/duplicate")
        self.client.get("/")
        with self.assertNumQueries(6):
            self.client.get("/?q=tooth")


class CopyTest(HouseTest):
    def test_a_copy_has_the_slides_builds_notes_and_shelf_and_is_independent(self) -> None:
        reply = self.client.post("/shows/clock/duplicate")
        copy = Show.objects.exclude(pk="clock").get()
        self.assertEqual(reply.headers["Location"], f"/?made={copy.pk}")
        self.assertEqual(copy.title, "The Orlmere clock, copy")
        first, second = value_of(self.row), value_of(copy)
        self.assertEqual((first.slides, first.assets, first.music), (second.slides, second.assets, second.music))
        asset = first.assets[0]
        self.assertEqual(self.client.get(f"/shows/{copy.pk}/media/{asset.id}").status_code, 200)
        self.edit({"do": "remove slides", "slide_ids": ["esc-s"]})
        self.assertIsNotNone(value_of(Show.objects.get(pk=copy.pk)).slide("esc-s"))
        self.client.post("/shows/clock/duplicate")
        self.assertTrue(Show.objects.filter(title="The Orlmere clock, copy 2").exists())

    def test_a_copy_is_called_as_is_wanted(self) -> None:
        self.client.post("/shows/clock/duplicate", {"title": " The bell \n"})
        self.assertTrue(Show.objects.filter(title="The bell").exists())

    def test_a_long_title_stays_within_bounds(self) -> None:
        self.assertEqual(len(copied_title("x" * 200, set())), 194)

    def test_who_may_edit_may_copy_and_the_copy_is_theirs(self) -> None:
        self.assertEqual(self.theirs.post("/shows/clock/duplicate").status_code, 404)
        self.invite("edit")
        self.theirs.post("/shows/clock/duplicate")
        self.assertEqual(Show.objects.exclude(pk="clock").get().owner, self.odo)


class BinTest(HouseTest):
    def setUp(self) -> None:
        super().setUp()
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.watch = reverse("watch", args=[Release.objects.get().address])

    def test_a_removed_show_is_in_the_bin_and_nobody_opens_it(self) -> None:
        self.assertContains(self.client.post("/shows/clock/remove", follow=True), "lies in the bin for 30 days.")
        for path in ("/shows/clock/", "/shows/clock/score.json", self.watch):
            self.assertEqual(self.client.get(path).status_code, 404, path)
        self.assertNotContains(self.client.get("/"), "<h3")
        page = self.client.get("/bin/")
        self.assertContains(page, "The Orlmere clock")
        self.assertContains(page, "Removed by ines")
        self.assertRegex(page.content.decode(), r"· \d\.\d MB")

    def test_no_show_in_the_bin_costs_a_query_of_its_own(self) -> None:
        self.client.post("/shows/clock/duplicate")
        copy = Show.objects.exclude(pk="clock").get()
        self.client.post(f"/shows/{copy.pk}/remove")
        self.client.get("/bin/")
        with CaptureQueriesContext(connection) as one:
            self.assertContains(self.client.get("/bin/"), "other shows hold its media too")
        self.client.post("/shows/clock/remove")
        self.client.get("/bin/")
        with CaptureQueriesContext(connection) as two:
            self.client.get("/bin/")
        self.assertEqual(len(one), len(two))

    def test_brought_back_it_is_as_it_was_with_its_release(self) -> None:
        before = value_of(self.row)
        self.client.post("/shows/clock/remove")
        self.client.post("/bin/clock/bring-back")
        self.assertEqual(value_of(Show.objects.get(pk="clock")), before)
        self.assertEqual(self.client.get(self.watch).status_code, 200)
        self.assertEqual(self.client.post("/bin/clock/bring-back").status_code, 404)

    def test_gone_for_good_it_tells_what_is_free_again(self) -> None:
        self.client.post("/shows/clock/remove")
        reply = self.client.post("/bin/clock/remove", follow=True)
        self.assertRegex(reply.content.decode(), r"is gone for good\. \d+\.\d MB are free again\.")
        self.assertFalse(Show.everywhere.exists())

    def test_a_bin_is_its_owners(self) -> None:
        self.client.post("/shows/clock/remove")
        self.assertContains(self.theirs.get("/bin/"), "The bin is empty.")
        for act in ("bring-back", "remove"):
            self.assertEqual(self.theirs.post(f"/bin/clock/{act}").status_code, 404)
        self.assertTrue(Show.everywhere.exists())

    @override_settings(BIN_DAYS=7)
    def test_when_its_time_is_over_it_goes_by_itself_and_not_before(self) -> None:
        self.client.post("/shows/clock/remove")
        for days, left in ((6.9, 1), (7.1, 0)):
            Show.everywhere.update(removed_at=timezone.now() - timedelta(days=days))
            with self.captureOnCommitCallbacks():
                tidy()
            self.assertEqual(Show.everywhere.count(), left)
