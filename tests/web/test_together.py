import json
import re
from datetime import timedelta
from typing import Any

from django.contrib.auth.models import User
from django.core import mail
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, override_settings
from django.utils import timezone

from ritornel.core.errors import UnknownName
from ritornel.web.editor.presence import presence
from ritornel.web.people.identity import proves
from ritornel.web.people.models import Comment, Invitation
from ritornel.web.people.roles import Access
from tests.web.base import WebTest

BASE = "/shows/clock"


class TogetherTest(WebTest):
    def invite(self, address: str = "pauwel@orlmere.example", role: str = "edit", **more: Any) -> Any:
        return self.post(f"{BASE}/people/invite", {"address": address, "role": role, **more})

    def code(self, address: str = "pauwel@orlmere.example") -> str:
        return Invitation.objects.get(address=address).mail_code

    def arrive(self, address: str = "pauwel@orlmere.example", name: str = "Pauwel Drees") -> Client:
        """Somebody else's browser, once they have accepted their invitation."""
        client = Client()
        reply = client.post(f"/invited/{self.code(address)}/", {"name": name, "password": "six years of Saturdays"})
        self.assertEqual(reply.status_code, 302, reply.content[-600:])
        return client

    def come(self, role: str, **more: Any) -> Client:
        self.invite(role=role, **more)
        return self.arrive()


class InvitingTest(TogetherTest):
    def test_a_letter_brings_a_link_that_lets_one_person_in(self) -> None:
        reply = self.invite(role="record", name="Pauwel", section="esc-s").json()
        person = reply["people"][0]
        self.assertEqual((person["state"], person["section_name"]), ("sent", "II  How it keeps time"))
        (letter,) = mail.outbox
        self.assertIn("record the section “How it keeps time” of the show “The Orlmere clock”", letter.body)
        link = re.search(r"http://testserver(\S+)", str(letter.body))
        assert link
        page = Client().get(link[1])
        self.assertContains(page, "ines asks you to record one section")
        client = self.arrive()
        self.assertEqual(Invitation.objects.get().state, "accepted")
        self.assertContains(client.get("/"), "asks you to record one section")

    def test_mail_that_was_sent_is_read_on_the_page_of_mail(self) -> None:
        with override_settings(EMAIL_BACKEND="ritornel.web.people.mail.FileMailBackend"):
            self.invite()
            self.assertContains(self.client.get("/mail/"), f"/invited/{self.code()}/")
            self.client.force_login(self.odo)
            self.assertContains(self.client.get("/mail/"), "You have sent no mail yet.")

    def test_an_invitation_belongs_to_who_accepts_it_first(self) -> None:
        self.invite()
        other = Client()
        other.force_login(self.odo)
        self.assertContains(other.get(f"/invited/{self.code()}/"), "You are signed in as odo.")
        self.assertEqual(other.get(f"{BASE}/").status_code, 404, "looking lets nobody in")
        self.arrive()
        late = Client().get(f"/invited/{self.code()}/")
        self.assertContains(late, "This invitation was opened already, and belongs to who opened it.", status_code=403)
        self.assertContains(other.post(f"/invited/{self.code()}/"), "was opened already", status_code=403)
        self.assertContains(Client().get("/invited/nothing-like-it/"), "There is no such invitation.", status_code=404)

    def test_who_has_an_account_accepts_with_one_press(self) -> None:
        self.invite()
        other = Client()
        other.force_login(self.odo)
        self.assertRedirects(other.post(f"/invited/{self.code()}/"), f"{BASE}/")
        self.assertEqual(Invitation.objects.get().person, self.odo)
        self.assertTrue(proves(self.odo, "pauwel@orlmere.example"))

    def test_a_weak_password_or_no_name_is_told_where_it_was_given(self) -> None:
        self.invite()
        for name, password, words in (
            ("Pauwel", "short", "at least 8 characters"),
            ("Pauwel", "password1", "too common"),
            ("Pauwel", "73519046281", "entirely numeric"),
            ("Pauwel Drees", "pauwel@orlmere", "too similar"),
            (" ", "six years of Saturdays", "Say what you are called"),
        ):
            reply = Client().post(f"/invited/{self.code()}/", {"name": name, "password": password})
            self.assertContains(reply, words, status_code=400)
        self.assertFalse(User.objects.filter(username="pauwel@orlmere.example").exists())

    def test_a_link_expires_and_can_be_withdrawn(self) -> None:
        self.invite()
        Invitation.objects.update(sent_at=timezone.now() - timedelta(days=15))
        self.assertContains(Client().get(f"/invited/{self.code()}/"), "was not opened in time", status_code=410)
        old = self.code()
        self.invite()
        self.assertNotEqual(self.code(), old)
        number = Invitation.objects.get().pk
        self.post(f"{BASE}/people/{number}/withdraw")
        self.assertContains(
            Client().get(f"/invited/{self.code()}/"), "ines has withdrawn this invitation.", status_code=410
        )
        self.post(f"{BASE}/people/{number}/restore")
        self.assertEqual(Client().get(f"/invited/{self.code()}/").status_code, 200)

    def test_access_stops_at_once(self) -> None:
        client = self.come("edit")
        self.assertEqual(client.get(f"{BASE}/").status_code, 200)
        self.post(f"{BASE}/people/{Invitation.objects.get().pk}/withdraw")
        for path in ("/", "/score.json", "/performance.json", "/media/noon"):
            self.assertEqual(client.get(BASE + path).status_code, 404, path)
        edit = {"revision": 0, "edit": {"do": "change show", "changes": {"title": "Mine"}}}
        self.assertEqual(client.post(f"{BASE}/edit", edit, content_type="application/json").status_code, 404)

    def test_what_is_asked_wrongly_is_told_and_invites_nobody(self) -> None:
        self.assertIn("“pauwel” is no e-mail address. Nobody was invited.", self.invite("pauwel").json()["error"])
        self.assertIn("Choose the section", self.invite(role="record", section="nowhere").json()["error"])
        self.assertEqual(self.invite(role="rule").status_code, 400)
        self.assertEqual((Invitation.objects.count(), len(mail.outbox)), (0, 0))
        self.client.force_login(self.odo)
        self.assertEqual(self.invite().status_code, 404)


class RolesTest(TogetherTest):
    def test_each_role_may_do_just_what_it_says(self) -> None:
        wanted = {
            "edit": {
                "/": 200,
                "/score.json": 200,
                "/performance.json": 200,
                "/record": 200,
                "/comments": 200,
                "/people": 404,
                "/release": 404,
            },
            "comment": {
                "/": 404,
                "/score.json": 404,
                "/performance.json": 200,
                "/record": 404,
                "/comments": 200,
                "/people": 404,
                "/release": 404,
            },
            "watch": {
                "/": 404,
                "/performance.json": 200,
                "/record": 404,
                "/comments": 404,
                "/media/noon": 200,
                "/archive": 404,
            },
            "record": {
                "/": 404,
                "/score.json": 404,
                "/performance.json": 404,
                "/record": 200,
                "/comments": 200,
                "/archive": 404,
                "/release": 404,
            },
        }
        client = self.come("edit")
        number = Invitation.objects.get().pk
        for role, pages in wanted.items():
            self.post(f"{BASE}/people/{number}/change", {"role": role, "section": "esc-s"})
            for path, status in pages.items():
                self.assertEqual(client.get(BASE + path).status_code, status, (role, path))

    def test_a_contributor_sees_and_changes_their_section_only(self) -> None:
        client = self.come("record", section="esc-s")
        found = client.get(f"{BASE}/record.json?section=noon-s").json()
        self.assertEqual([line["name"] for line in found["sections"]], ["How it keeps time"])
        self.assertEqual([slide["id"] for slide in found["section"]["slides"]], ["esc-s", "two-s"])
        owner = self.client.get(f"{BASE}/record.json").json()
        self.assertEqual([line["who"] for line in owner["sections"]], ["", "pauwel@orlmere.example", "", ""])
        allowed = {"section": "esc-s", "writer": "their-window"}
        self.assertEqual(client.post(f"{BASE}/record/begin", allowed, content_type="application/json").status_code, 200)
        for section in ("noon-s", "men-s"):
            refused = client.post(
                f"{BASE}/record/begin", {**allowed, "section": section}, content_type="application/json"
            )
            self.assertEqual(refused.status_code, 400)
            self.assertEqual(client.get(f"{BASE}/record/show.json?section={section}").status_code, 400)
            self.assertEqual(client.post(f"{BASE}/record/keep?section={section}").status_code, 400)
        self.assertEqual(client.get(f"{BASE}/media/works").status_code, 200)
        self.assertEqual(client.get(f"{BASE}/media/night").status_code, 404)
        thumbs = [slide["thumb"] for slide in owner["section"]["slides"]]
        self.assertEqual([client.get(thumb).status_code for thumb in thumbs], [404] * len(thumbs))
        self.assertEqual(client.get(found["section"]["slides"][0]["thumb"]).status_code, 200)
        mine = self.post(f"{BASE}/record/begin", {"section": "men-s", "writer": "own-window"}).json()["id"]
        self.assertEqual(client.get(f"{BASE}/record/{mine}/peaks").status_code, 404)
        unpicks = {"slide_id": "men-s", "recording": None}
        self.assertEqual(client.post(f"{BASE}/record/pick", unpicks, content_type="application/json").status_code, 404)

    def test_a_contributor_keeps_what_they_recorded_of_their_section(self) -> None:
        client = self.come("record", section="esc-s")
        begun = client.post(
            f"{BASE}/record/begin", {"section": "esc-s", "writer": "their-window"}, content_type="application/json"
        ).json()
        about = {
            "writer": "their-window",
            "state": "ended",
            "events": [{"event": "arrived", "slide_id": "esc-s", "at_ms": 0}],
        }
        sound = SimpleUploadedFile("sound", bytes(96_000))
        client.post(f"{BASE}/record/{begun['id']}/more", {"about": json.dumps(about), "sound": sound})
        kept = client.post(f"{BASE}/record/keep?section=esc-s")
        self.assertEqual((kept.status_code, kept.json()["history"]), (200, {"undo": None, "redo": None}))
        voices = [line["voice"] is not None for line in self.score()["slides"].values()]
        self.assertEqual(voices, [False, False, True, False, False, False, False, False, False])
        self.assertEqual(client.post(f"{BASE}/undo", {}, content_type="application/json").status_code, 404)

    def test_an_act_that_there_is_not_raises(self) -> None:
        with self.assertRaisesRegex(UnknownName, "There is no act “burn”"):
            Access("own").may("burn")  # type: ignore[arg-type]


class CommentTest(TogetherTest):
    def say(self, client: Client, **body: Any) -> Any:
        return client.post(f"{BASE}/comments/say", body, content_type="application/json")

    def test_comments_are_answered_closed_and_opened_again(self) -> None:
        client = self.come("comment")
        said = self.say(client, slide_id="esc-s", object_id="wheel", text="Nine teeth too many?").json()
        (entry,) = next(slide for slide in said["slides"] if slide["id"] == "esc-s")["comments"]
        self.assertEqual(
            (entry["who"], entry["object"], entry["text"]), ("Pauwel Drees", "Wheel", "Nine teeth too many?")
        )
        answered = self.say(self.client, answers=entry["id"], text="No, thirty.").json()
        (entry,) = next(slide for slide in answered["slides"] if slide["id"] == "esc-s")["comments"]
        self.assertEqual([(answer["who"], answer["text"]) for answer in entry["answers"]], [("ines", "No, thirty.")])
        self.assertContains(self.client.get(f"{BASE}/"), "Comments, 1 open")
        self.post(f"{BASE}/comments/{entry['id']}/close")
        self.assertNotContains(self.client.get(f"{BASE}/"), "Comments, 1 open")
        self.say(client, answers=entry["id"], text="I see.")
        self.assertIsNone(Comment.objects.get(pk=entry["id"]).closed_at)

    def test_a_comment_outlives_its_slide(self) -> None:
        self.say(self.client, slide_id="esc-s", text="Keep this one.")
        self.edit({"do": "remove slides", "slide_ids": ["esc-s"]})
        gone = self.client.get(f"{BASE}/comments.json").json()["gone"]
        self.assertEqual([entry["text"] for entry in gone], ["Keep this one."])

    def test_what_is_said_wrongly_is_told_and_says_nothing(self) -> None:
        self.assertIn("A comment needs words.", self.say(self.client, slide_id="esc-s", text="  ").json()["error"])
        gone = self.say(self.client, slide_id="gone", text="Hm").json()["error"]
        self.assertIn("no longer there. Nothing was said; your words are still in the field.", gone)
        contributor = self.come("record", section="esc-s")
        self.assertEqual(self.say(contributor, slide_id="noon-s", text="Hm").status_code, 400)
        self.assertEqual(Comment.objects.count(), 0)


class PresenceTest(TogetherTest):
    def test_only_who_may_edit_says_where_they_are(self) -> None:
        watcher = self.come("watch")
        self.assertEqual(
            watcher.post(f"{BASE}/here", {"window": "their-window"}, content_type="application/json").status_code, 404
        )
        self.assertEqual(
            self.post(f"{BASE}/here", {"window": "own-window", "slide_id": "esc-s", "picked": ["wheel"]}).status_code,
            200,
        )
        self.assertEqual(presence().at("clock"), (), "a window is there while its stream is open")
