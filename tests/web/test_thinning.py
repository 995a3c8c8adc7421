"""Older steps of a history are put together by days, and nothing but their number changes."""

from datetime import timedelta

from django.test import override_settings
from django.utils import timezone

from ritornel.core.document.changes import apply_changes
from ritornel.core.document.show import Show as ShowValue
from ritornel.web.operations.tidying import tidy
from ritornel.web.shows.history import changes_of, state_of_revision
from ritornel.web.shows.models import Edit, NamedPoint, Show
from ritornel.web.shows.services import thin_history, thinnable_shows, value_of
from tests.web.base import WebTest


class ThinTest(WebTest):
    """Five steps of a day 100 days ago, two of one 95 days ago, two of today."""

    def setUp(self) -> None:
        super().setUp()
        self.first = value_of(self.row)
        self.rename("esc-s", "Tick")
        self.rename("esc-s", "Tock")
        self.edit({"do": "remove slides", "slide_ids": ["bell-s", "who-s"]})
        self.post("/shows/clock/undo")
        self.rename("two-s", "Pair")
        self.age(100)
        self.rename("two-s", "Brothers")
        self.edit({"do": "move slides", "slide_ids": ["thx-s"], "to": 0})
        self.age(95, since=5)
        self.rename("noon-s", "Midday")
        self.rename("noon-s", "Twelve")

    def rename(self, slide_id: str, name: str) -> None:
        self.edit({"do": "change slides", "slide_ids": [slide_id], "changes": {"name": name}})

    def age(self, days: int, since: int = 0) -> None:
        """Lets the steps after a revision be so many days old."""
        noon = timezone.now().replace(hour=12)
        Edit.objects.filter(revision__gt=since).update(at=noon - timedelta(days=days))

    def now(self) -> ShowValue:
        self.row = Show.objects.get(pk="clock")
        return value_of(self.row)

    def at(self, revision: int) -> ShowValue | None:
        now = self.now()
        return state_of_revision(self.row, now, revision)

    def revisions(self) -> list[int]:
        return list(self.row.edits.order_by("revision").values_list("revision", flat=True))

    def test_each_older_day_becomes_one_step_and_leads_to_the_same_shows(self) -> None:
        was = {revision: self.at(revision) for revision in (0, 5, 7, 8, 9)}
        self.assertEqual(thinnable_shows(), ["clock"])
        self.assertEqual(thin_history("clock"), 5)
        self.assertEqual(self.revisions(), [5, 7, 8, 9])
        self.assertEqual({revision: self.at(revision) for revision in was}, was)
        self.assertIsNone(self.at(3), "that is within a day that is one step now")
        replayed = self.first
        for step in self.row.edits.order_by("revision"):
            replayed, _ = apply_changes(replayed, changes_of(step))
        self.assertEqual(replayed, self.now())
        self.assertEqual((thinnable_shows(), thin_history("clock")), ([], 0))

    def test_a_point_with_a_name_stays_where_it_is(self) -> None:
        self.row.points.create(person=self.ines, revision=2, name="Before the bell")
        was = self.at(2)
        thin_history("clock")
        self.assertEqual(self.revisions(), [2, 5, 7, 8, 9])
        self.assertEqual(self.at(2), was)
        self.assertEqual(NamedPoint.objects.get().revision, 2)

    def test_the_page_says_what_the_line_stands_for_and_that_steps_are_put_together(self) -> None:
        thin_history("clock")
        page = self.client.get("/shows/clock/history")
        self.assertContains(page, "5 steps: Change name of")
        self.assertContains(page, "Steps older than 90 days are put together")

    def test_it_cannot_be_undone_and_what_is_younger_can(self) -> None:
        thin_history("clock")
        for _ in range(3):
            self.post("/shows/clock/undo")
        show = self.now()
        self.assertEqual([show.slides[1].name, show.slide("two-s").name], [self.first.slides[0].name, "Brothers"])
        self.assertIsNone(self.score()["history"]["undo"])

    def test_an_undo_that_is_younger_than_what_it_took_back_stays(self) -> None:
        self.age(99, since=7)
        self.post("/shows/clock/undo")
        was = self.at(9)
        thin_history("clock")
        self.assertEqual(self.revisions(), [5, 7, 9, 10])
        self.assertEqual(self.at(9), was)
        self.assertIsNone(self.row.edits.get(revision=10).of)

    def test_steps_of_several_people_name_nobody(self) -> None:
        Edit.objects.filter(revision=2).update(person=self.odo)
        thin_history("clock")
        self.assertContains(self.client.get("/shows/clock/history"), "<h3>Several people</h3>")

    @override_settings(HISTORY_DAYS=0)
    def test_with_no_days_set_every_step_stays_for_ever(self) -> None:
        self.assertEqual((thinnable_shows(), thin_history("clock")), ([], 0))

    def test_the_daily_tidying_does_it_and_says_so(self) -> None:
        done = {entry.what: entry.count for entry in tidy()}
        self.assertEqual(done["Older steps of histories, put together"], 5)
