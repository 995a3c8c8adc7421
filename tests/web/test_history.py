"""A show's history: listed by day and person, looked at, and brought back whole or slide by slide."""

from datetime import timedelta
from typing import Any

from django.test import Client
from django.utils import timezone

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.themes import THEMES
from ritornel.web.people.models import Invitation
from ritornel.web.shows.history import state_of_revision
from ritornel.web.shows.models import Show
from ritornel.web.shows.services import removed_parts, value_of
from tests.web.base import WebTest


class HistoryTest(WebTest):
    def value(self) -> Any:
        return value_of(Show.objects.get(pk="clock"))

    def setUp(self) -> None:
        super().setUp()
        self.first = self.value()
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}})
        self.edit({"do": "remove slides", "slide_ids": ["who-s"]})
        self.post("/shows/clock/undo")
        self.edit({"do": "remove slides", "slide_ids": ["bell-s"]})

    def test_a_state_leads_back_though_others_made_steps_after_it_was_read(self) -> None:
        row = Show.objects.get(pk="clock")
        now = value_of(row)
        self.edit({"do": "remove slides", "slide_ids": ["two-s"]})
        self.assertEqual(state_of_revision(row, now, 0), self.first)

    def test_it_is_listed_in_words_by_person_the_latest_first_with_what_was_undone(self) -> None:
        page = self.client.get("/shows/clock/history").content.decode()
        self.assertIn("<h3>ines</h3>", page)
        found = [page.index(words) for words in ("Remove slide “The bell”", "Undone: Remove slide", "Change name of")]
        self.assertEqual(found, sorted(found))

    def test_a_point_that_was_named_is_seen_where_it_stands(self) -> None:
        self.client.post("/shows/clock/history/points", {"name": "  Before the   rehearsal "})
        self.assertContains(self.client.get("/shows/clock/history"), "Before the rehearsal")
        self.assertContains(self.client.get("/shows/clock/history/4"), "Before the rehearsal")

    def test_large_changes_and_editions_make_points_by_themselves(self) -> None:
        theme = to_builtins(next(theme for theme in THEMES.values() if theme != self.value().theme))
        before = Show.objects.get(pk="clock").revision
        self.edit({"do": "change theme", "theme": theme})
        self.post("/shows/clock/editions", {"audience": "anyone", "despite": True})
        points = list(Show.objects.get(pk="clock").points.order_by("revision").values_list("revision", "name"))
        self.assertEqual(points, [(before, "Before the theme was changed"), (before + 1, "Edition 1")])
        page = self.client.get("/shows/clock/history").content.decode()
        found = [page.index(words) for words in ("Edition 1", "Before the theme was changed", "The show as it began")]
        self.assertEqual(found, sorted(found))
        self.assertContains(self.client.get(f"/shows/clock/history/{before}"), "Before the theme was changed")

    def test_a_point_is_played_with_the_slides_and_media_it_had(self) -> None:
        self.edit({"do": "remove slides", "slide_ids": ["two-s"]})
        self.edit({"do": "drop assets", "asset_ids": ["works"]})
        then = self.client.get("/shows/clock/performance.json?revision=0").json()
        now = self.client.get("/shows/clock/performance.json").json()
        self.assertEqual([item["id"] for item in then["slides"]], [item.id for item in self.first.slides])
        self.assertNotIn("two-s", [item["id"] for item in now["slides"]])
        self.assertNotIn("works", now["media"])
        self.assertEqual(then["media"]["works"], "/shows/clock/history/0/media/works/100")
        self.assertEqual(then["media"]["night"], now["media"]["night"])
        self.assertEqual(self.client.get(then["media"]["works"]).status_code, 200)
        self.assertEqual(self.client.get("/shows/clock/performance.json?revision=999").status_code, 404)
        self.assertContains(self.client.get("/shows/clock/history/0"), "/shows/clock/play?revision=0")

    def test_removed_slides_are_seen_for_thirty_days_and_brought_back(self) -> None:
        page = self.client.get("/shows/clock/bin").content.decode()
        self.assertIn("Bring The bell back", page)
        self.assertNotIn("Bring Who winds it? back", page, "that was undone")
        self.assertIn("Removed by ines", page)
        (removed,) = removed_parts(Show.objects.get(pk="clock"), self.value())
        picture = self.client.get(f"/shows/clock/history/{removed.revision}/bell-s.png")
        self.assertEqual(picture.status_code, 200)
        self.client.post(f"/shows/clock/history/{removed.revision}/back", {"slide": "bell-s"})
        self.assertEqual(self.value().slide("bell-s"), self.first.slide("bell-s"))
        self.assertEqual(removed_parts(Show.objects.get(pk="clock"), self.value()), ())
        self.edit({"do": "remove slides", "slide_ids": ["bell-s"]})
        self.assertEqual(len(removed_parts(Show.objects.get(pk="clock"), self.value())), 1)
        self.row.edits.update(at=timezone.now() - timedelta(days=31))
        self.assertEqual(removed_parts(Show.objects.get(pk="clock"), self.value()), ())

    def test_a_point_is_looked_at_beside_now_with_what_differs(self) -> None:
        page = self.client.get("/shows/clock/history/0")
        self.assertContains(page, "of 9 slides differ from now.")
        self.assertContains(page, "removed since")
        picture = self.client.get("/shows/clock/history/0/bell-s.png")
        self.assertEqual((picture.status_code, picture["Content-Type"]), (200, "image/png"))
        self.assertEqual(self.client.get("/shows/clock/history/99").status_code, 404)

    def test_the_whole_show_is_brought_back_and_that_is_undone_like_any_edit(self) -> None:
        before = self.value()
        self.assertEqual(self.client.post("/shows/clock/history/0/back").status_code, 302)
        self.assertEqual(self.value(), self.first)
        self.post("/shows/clock/undo")
        self.assertEqual(self.value(), before)

    def test_one_slide_is_brought_back_where_it_stood_and_the_others_stay(self) -> None:
        self.client.post("/shows/clock/history/0/back", {"slide": "bell-s"})
        now = self.value()
        self.assertEqual([slide.id for slide in now.slides], [slide.id for slide in self.first.slides])
        self.assertEqual(now.slide("bell-s"), self.first.slide("bell-s"))
        self.assertEqual(now.slide("esc-s").name, "Tick")

    def test_media_that_a_slide_needs_come_back_with_it(self) -> None:
        used = [item.asset_id for item in self.first.slide("bell-s").objects if hasattr(item, "asset_id")]
        self.edit({"do": "drop assets", "asset_ids": used})
        self.client.post("/shows/clock/history/0/back", {"slide": "bell-s"})
        self.assertEqual({asset.id for asset in self.value().assets} & set(used), set(used))
        self.assertEqual(self.client.get(f"/shows/clock/media/{used[0]}").status_code, 200)

    def test_who_may_edit_sees_it_and_who_may_only_watch_does_not(self) -> None:
        guest = Client()
        guest.force_login(self.odo)
        self.assertEqual(guest.get("/shows/clock/history").status_code, 404)
        Invitation.objects.create(
            show=self.row,
            by=self.ines,
            person=self.odo,
            address="odo@orlmere.example",
            role="watch",
            accepted_at=timezone.now(),
        )
        self.assertEqual(guest.get("/shows/clock/history").status_code, 404)
