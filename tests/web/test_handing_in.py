from unittest import mock

from django.contrib.auth.models import User
from django.test import Client

from ritornel.web.releases import filming
from ritornel.web.releases.handing_in import handed_in_path
from ritornel.web.releases.models import FilmJob, HandIn
from tests.web.base import WebTest


class HandingInTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        with mock.patch("ritornel.web.releases.views.film"):
            self.post("/shows/clock/films", {"kind": "pdf", "style": "slides"})
        self.job = FilmJob.objects.get()
        filming.make_film(self.job.id, FilmJob.claim(self.job.id) or "")
        self.theirs = Client()
        self.theirs.force_login(self.odo)

    def hand_in(self, **body: object):  # type: ignore[no-untyped-def]
        return self.post(f"/shows/clock/films/{self.job.id}/hand-in", body)

    def test_it_comes_to_the_page_of_whom_it_was_handed_in_to_and_the_maker_sees_when_it_was_looked_at(self) -> None:
        self.assertEqual(self.hand_in(to="Odo", note="With thanks.").json()["to"], "odo")
        page = self.theirs.get("/handed-in/")
        self.assertContains(page, "The Orlmere clock · new")
        self.assertContains(page, "With thanks.")
        self.assertContains(self.client.get("/handed-in/"), "not looked at yet")
        entry = HandIn.objects.get()
        reply = self.theirs.get(f"/handed-in/{entry.pk}/file?save")
        self.assertEqual((reply.content[:4], reply.headers["Content-Type"]), (b"%PDF", "application/pdf"))
        self.assertIn("the-orlmere-clock-slides.pdf", reply.headers["Content-Disposition"])
        self.assertContains(self.client.get("/handed-in/"), "looked at")
        self.assertNotContains(self.client.get("/handed-in/"), "not looked at yet")

    def test_it_stays_when_the_makers_own_goes_until_it_is_put_away(self) -> None:
        self.hand_in(to="odo")
        self.post(f"/shows/clock/films/{self.job.id}/remove")
        entry = HandIn.objects.get()
        self.assertEqual(self.theirs.get(f"/handed-in/{entry.pk}/file").status_code, 200)
        self.assertEqual(self.theirs.post(f"/handed-in/{entry.pk}/put-away").status_code, 302)
        self.assertEqual((HandIn.objects.count(), self.theirs.get(f"/handed-in/{entry.pk}/file").status_code), (0, 404))

    def test_it_is_handed_in_by_the_name_that_is_shown_and_a_shared_name_is_asked_about(self) -> None:
        User.objects.filter(pk=self.odo.pk).update(first_name="Tamsin", last_name="Roake")
        self.assertEqual(self.hand_in(to="tamsin roake").json()["to"], "Tamsin Roake")
        other = User.objects.create_user("tamsin2", first_name="Tamsin", last_name="Roake")
        choices = self.hand_in(to="Tamsin Roake").json()["choices"]
        self.assertEqual({one["about"] for one in choices}, {"signs in as odo", "signs in as tamsin2"})
        self.assertEqual(HandIn.objects.count(), 1, "nothing was handed in yet")
        self.hand_in(to="Tamsin Roake", to_id=other.pk)
        self.assertEqual(HandIn.objects.first().recipient, other)  # type: ignore[union-attr]
        stranger = User.objects.create_user("nobody-asked")
        self.assertEqual(self.hand_in(to="Tamsin Roake", to_id=stranger.pk).status_code, 400)

    def test_it_is_handed_in_to_the_owner_of_a_section(self) -> None:
        User.objects.create_user("tamsin")
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"given_to": "Odo"}})
        self.assertEqual(self.hand_in(to="section ii").json()["to"], "odo")
        # Of two to whom slides of it were given it is asked which is meant.
        self.edit({"do": "change slides", "slide_ids": ["two-s"], "changes": {"given_to": "tamsin"}})
        choices = self.hand_in(to="Section II").json()["choices"]
        self.assertEqual({one["name"] for one in choices}, {"odo", "tamsin"})
        reply = self.hand_in(to="Section I")
        self.assertEqual(
            (reply.status_code, reply.json()["error"]),
            (400, "Section I was given to nobody. Nothing was handed in."),
        )
        self.assertEqual(HandIn.objects.count(), 1)
        owners = '"section_owners": {"Section II": ["Odo", "tamsin"]}'
        self.assertContains(self.client.get("/shows/clock/release"), owners)

    def test_it_is_withdrawn_and_replaced_and_the_receiver_sees_which_is_newest(self) -> None:
        first = self.hand_in(to="odo").json()["id"]
        second = self.hand_in(to="odo").json()["id"]
        page = self.theirs.get("/handed-in/").content.decode()
        self.assertLess(page.index("· the newest"), page.index("· an earlier one"))
        with self.captureOnCommitCallbacks(execute=True):
            third = self.hand_in(to="odo", replaces=second).json()
        self.assertEqual({line["id"] for line in third["handed"]}, {first, third["id"]})
        self.assertContains(self.theirs.get("/handed-in/"), "it replaces an earlier one")
        kept = {path.name for path in handed_in_path(HandIn.objects.get(pk=first)).parent.iterdir()}
        self.assertEqual(len(kept), 2, "the file of the one that was replaced is gone")
        self.assertEqual(self.theirs.post(f"/handed-in/{first}/withdraw").status_code, 404, "only its maker can")
        left = self.post(f"/handed-in/{first}/withdraw", {}).json()["handed"]
        self.assertEqual([line["id"] for line in left], [third["id"]])
        self.assertNotContains(self.theirs.get("/handed-in/"), "· an earlier one")

    def test_nobody_else_can_look_at_it(self) -> None:
        self.hand_in(to="odo")
        entry = HandIn.objects.get()
        for path in ("file", "put-away"):
            self.assertEqual(
                self.client.post(f"/handed-in/{entry.pk}/{path}").status_code, 405 if path == "file" else 404
            )
        self.assertEqual(self.client.get(f"/handed-in/{entry.pk}/file").status_code, 404)

    def test_somebody_who_is_not_here_is_told_and_nothing_is_handed_in(self) -> None:
        wrong = (
            ({"to": "nobody"}, "Nobody here is called “nobody”"),
            ({"to": ""}, "Nobody here is called"),
            ({"to": "odo", "note": "x" * 1001}, "at most 1000 can go along"),
        )
        for body, words in wrong:
            reply = self.hand_in(**body)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(words, reply.json()["error"])
        self.assertEqual(HandIn.objects.count(), 0)
