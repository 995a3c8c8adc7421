"""What is kept of shows that were read last is what is written, and no more of it than may be."""

from datetime import UTC, datetime
from unittest import mock

from django.db import transaction
from django.test import SimpleTestCase, TransactionTestCase

from ritornel.core.document.edits import RemoveSlides
from ritornel.core.document.show import Slide
from ritornel.demo.orlmere import orlmere
from ritornel.web.people.services import User
from ritornel.web.shows import editing
from ritornel.web.shows.models import Show
from ritornel.web.shows.persistence import create_rows, value_of
from ritornel.web.shows.recent_shows import RecentShows, recent_shows
from ritornel.web.shows.services import edit_show, undo

MADE = datetime(2026, 6, 1, tzinfo=UTC)


class RecentShowsTest(SimpleTestCase):
    def test_what_nobody_asked_for_the_longest_goes_first(self) -> None:
        kept = RecentShows(most_slides=7)
        parts = ((Slide("a"), Slide("b")), ())
        for revision in (1, 2):
            kept.put(("clock", MADE, revision), parts)
        kept.get(("clock", MADE, 1))
        kept.put(("clock", MADE, 3), parts)
        found = [kept.get(("clock", MADE, revision)) for revision in (1, 2, 3)]
        self.assertEqual(found, [parts, None, parts])

    def test_a_show_that_was_made_again_under_its_id_is_another(self) -> None:
        kept = RecentShows()
        kept.put(("clock", MADE, 1), ((Slide("a"),), ()))
        self.assertIsNone(kept.get(("clock", datetime(2026, 6, 2, tzinfo=UTC), 1)))


class KeptValueTest(TransactionTestCase):
    def setUp(self) -> None:
        recent_shows.cache_clear()
        self.addCleanup(recent_shows.cache_clear)
        self.ines = User.objects.create(username="ines")
        self.row = Show(id="orlmere", owner=self.ines)
        create_rows(self.row, orlmere())

    def read(self) -> list[str]:
        self.row = Show.objects.get(pk="orlmere")
        return [slide.id for slide in value_of(self.row).slides]

    def test_each_revision_is_what_was_written(self) -> None:
        before = self.read()
        edit_show("orlmere", self.ines, RemoveSlides(("bell-s",)))
        self.assertEqual(self.read(), [slide_id for slide_id in before if slide_id != "bell-s"])
        undo("orlmere", self.ines)
        self.assertEqual(self.read(), before)
        with self.assertNumQueries(1):
            self.read()

    def test_what_is_written_of_a_show_between_reading_and_writing_an_edit_stays(self) -> None:
        """A folder has no revision: an edit that was computed before it was given must not take it back."""
        compute = editing.value_of

        def meanwhile(row: Show) -> object:
            Show.objects.filter(pk="orlmere").update(folder="Towers")
            return compute(row)

        with mock.patch.object(editing, "value_of", meanwhile):
            edit_show("orlmere", self.ines, RemoveSlides(("bell-s",)))
        self.assertEqual(Show.objects.get(pk="orlmere").folder, "Towers")

    def test_what_a_transaction_takes_back_is_not_kept(self) -> None:
        before = self.read()
        with self.assertRaises(ZeroDivisionError), transaction.atomic():
            self.row.slides.filter(slide_id="bell-s").delete()
            Show.objects.filter(pk="orlmere").update(revision=1)
            self.assertNotIn("bell-s", self.read())
            raise ZeroDivisionError
        Show.objects.filter(pk="orlmere").update(revision=1)
        self.assertEqual(self.read(), before)
