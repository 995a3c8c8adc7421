"""Whose an address is, and how somebody signs in."""

import re
from typing import Any
from unittest import mock

from django.contrib.auth.models import User
from django.core import mail
from django.test import Client, override_settings

from ritornel.web.config.rate_limits import Brake
from ritornel.web.people.identity import create_account, prove, proven_person, proves
from ritornel.web.people.models import Invitation
from ritornel.web.people.sign_in import PAIR
from tests.web.base import WebTest

PASSWORD = "six years of Saturdays"
ADDRESS = "pauwel@orlmere.example"


class InvitationProofTest(WebTest):
    def invite(self) -> dict[str, Any]:
        return self.post("/shows/clock/people/invite", {"address": ADDRESS, "role": "edit"}).json()  # type: ignore[no-any-return]

    def mailed_link(self, number: int = -1) -> str:
        link = re.search(r"http://testserver(/invited/\S+)", str(mail.outbox[number].body))
        assert link
        return link[1]

    def accept(self, link: str, **more: str) -> Client:
        client = Client()
        reply = client.post(link, {"name": "Pauwel Drees", "password": PASSWORD, **more})
        self.assertEqual(reply.status_code, 302, reply.content[-700:])
        return client

    def test_the_link_that_who_invites_is_shown_proves_nothing(self) -> None:
        shown = self.invite()["people"][0]["link"].removeprefix("http://testserver")
        self.assertNotEqual(shown, self.mailed_link())
        self.assertContains(
            Client().post(shown, {"name": "Ines herself", "password": PASSWORD}),
            "A sign-in name has 3 to 40",
            status_code=400,
        )
        client = self.accept(shown, sign_in_name="not-pauwel")
        self.assertEqual(client.get("/shows/clock/").status_code, 200, "the show opens for them all the same")
        person = User.objects.get(username="not-pauwel")
        self.assertEqual((person.email, proves(person, ADDRESS), proven_person(ADDRESS)), ("", False, None))

    def test_the_link_in_the_mail_proves_the_address(self) -> None:
        self.invite()
        self.accept(self.mailed_link())
        person = proven_person(ADDRESS)
        assert person
        self.assertTrue(Client().login(username=ADDRESS, password=PASSWORD))
        self.assertEqual(Client().get(self.mailed_link()).status_code, 403)

    def test_where_mail_is_kept_for_its_sender_no_link_proves_anything(self) -> None:
        with override_settings(EMAIL_BACKEND="ritornel.web.people.mail.FileMailBackend"):
            self.invite()
        code = Invitation.objects.get().mail_code
        self.assertContains(Client().get(f"/invited/{code}/"), "Choose a name to sign in with.")
        self.accept(f"/invited/{code}/", sign_in_name="pauwel")
        self.assertIsNone(proven_person(ADDRESS))

    def test_a_row_tells_none_of_its_links(self) -> None:
        self.invite()
        row = str(Invitation.objects.values().get())
        entry = Invitation.objects.get()
        self.assertNotIn(entry.link_code, row)
        self.assertNotIn(entry.mail_code, row)

    def test_whoever_proves_an_address_later_gets_it_and_no_account_changes_hands(self) -> None:
        squatter = User.objects.create_user(ADDRESS, ADDRESS, "what the inviter chose")
        prove(squatter, ADDRESS)
        person = create_account("Pauwel Drees", PASSWORD, sign_in_name="pauwel")
        prove(person, ADDRESS)
        self.assertEqual(proven_person(ADDRESS), person)
        for password, account in ((PASSWORD, person), ("what the inviter chose", squatter)):
            client = Client()
            self.assertTrue(client.login(username=ADDRESS, password=password))
            self.assertEqual(client.session["_auth_user_id"], str(account.pk))

    def test_an_account_for_an_address_whose_name_somebody_has_gets_a_name_of_its_own(self) -> None:
        User.objects.create_user(ADDRESS, "", "what the inviter chose")
        self.invite()
        self.accept(self.mailed_link())
        person = proven_person(ADDRESS)
        assert person
        self.assertNotEqual(person.username, ADDRESS)
        self.assertTrue(Client().login(username=ADDRESS, password=PASSWORD))

    def test_a_sign_in_name_is_nobody_elses_and_no_address(self) -> None:
        shown = self.invite()["people"][0]["link"].removeprefix("http://testserver")
        for name, words in (
            ("ODO", "is taken"),
            (ADDRESS, "A sign-in name has"),
            ("a", "A sign-in name has"),
            ("a\nb", "A sign-in name has"),
        ):
            self.assertContains(
                Client().post(shown, {"name": "P", "password": PASSWORD, "sign_in_name": name}), words, status_code=400
            )
        self.assertEqual(User.objects.count(), 2)


class HandInByAddressTest(WebTest):
    def test_only_a_proven_address_reaches_anybody(self) -> None:
        from ritornel.web.releases.models import FilmJob

        job = FilmJob.objects.create(show=self.row, person=self.ines, document=b"", state="ready")
        from ritornel.web.releases.filming import film_path

        film_path(job).write_bytes(b"film")
        User.objects.filter(pk=self.odo.pk).update(email=ADDRESS)
        hand_in = lambda to: self.post(f"/shows/clock/films/{job.id}/hand-in", {"to": to})  # noqa: E731
        self.assertIn("Nobody here is called", hand_in(ADDRESS).json()["error"])
        prove(self.odo, ADDRESS)
        self.assertEqual(hand_in(ADDRESS.upper()).json()["to"], "odo")
        self.assertEqual(hand_in("Odo").json()["to"], "odo")


class SignInTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.odo.set_password(PASSWORD)
        self.odo.save()

    def try_it(self, password: str, name: str = "odo", address: str = "192.0.2.1", client: Client | None = None) -> Any:
        return (client or Client()).post("/sign-in/", {"username": name, "password": password}, REMOTE_ADDR=address)

    def test_after_some_wrong_passwords_there_is_a_time_to_wait_which_is_told(self) -> None:
        for _ in range(6):
            self.assertContains(self.try_it("guess"), "do not belong together")
        late = self.try_it(PASSWORD)
        self.assertContains(late, "Too many wrong passwords came for this name. Wait ", status_code=429)
        self.assertTrue(0 < int(late.headers["Retry-After"]) <= 301)
        self.assertEqual(self.try_it(PASSWORD, address="192.0.2.2").status_code, 302, "from elsewhere it works")

    def test_the_others_of_an_office_are_not_locked_out(self) -> None:
        for number in range(60):
            self.try_it("guess", name=f"somebody-{number % 12}")
        self.assertEqual(self.try_it(PASSWORD).status_code, 302)

    def test_guesses_from_everywhere_do_not_hold_up_a_browser_that_was_there_before(self) -> None:
        own = Client()
        self.assertEqual(self.try_it(PASSWORD, client=own).status_code, 302)
        own.post("/sign-out/")
        for number in range(31):
            self.try_it("guess", address=f"198.51.100.{number}")
        self.assertEqual(
            self.try_it(PASSWORD, address="203.0.113.9").status_code, 429, "an unknown browser has to wait"
        )
        self.assertEqual(self.try_it(PASSWORD, client=own, address="203.0.113.9").status_code, 302)

    def test_signing_in_forgets_ones_own_mistakes(self) -> None:
        for _ in range(5):
            self.try_it("guess")
        self.try_it(PASSWORD)
        self.assertEqual(PAIR.wait_s("odo", "192.0.2.1", times=6), 0)

    def test_a_forged_mark_of_a_known_browser_is_worth_nothing(self) -> None:
        own = Client()
        own.cookies["known"] = '["odo"]'
        for number in range(31):
            self.try_it("guess", address=f"198.51.100.{number}")
        self.assertEqual(self.try_it(PASSWORD, client=own, address="203.0.113.9").status_code, 429)


class AccountTest(WebTest):
    def proof(self) -> str:
        link = re.search(r"http://testserver(/account/proof/\S+)", str(mail.outbox[-1].body))
        assert link
        return link[1]

    def test_an_address_is_proven_by_a_link_that_is_mailed_to_it(self) -> None:
        self.client.post("/account/addresses", {"address": "Ines@Orlmere.example"})
        self.assertEqual(mail.outbox[-1].to, ["ines@orlmere.example"])
        self.assertContains(self.client.get(self.proof()), "Is <b>ines@orlmere.example</b> your address?")
        self.assertIsNone(proven_person("ines@orlmere.example"), "a mail program that opens links proves nothing")
        other = Client()
        other.force_login(self.odo)
        self.assertContains(other.post(self.proof()), "This link is for another account", status_code=403)
        self.client.post(self.proof())
        self.assertContains(self.client.get("/account/"), "ines@orlmere.example is known to be yours.")
        number = self.ines.proven_addresses.get().pk
        other.post(f"/account/addresses/{number}/forget")
        self.assertEqual(proven_person("ines@orlmere.example"), self.ines)
        self.client.post(f"/account/addresses/{number}/forget")
        self.assertIsNone(proven_person("ines@orlmere.example"))

    def test_what_is_wrong_is_told_and_sends_nothing(self) -> None:
        self.assertContains(
            self.client.post("/account/addresses", {"address": "ines"}), "“ines” is no e-mail address", status_code=400
        )
        with override_settings(EMAIL_BACKEND="ritornel.web.people.mail.FileMailBackend"):
            self.assertContains(
                self.client.post("/account/addresses", {"address": ADDRESS}),
                "No mail goes out from here",
                status_code=400,
            )
        self.assertEqual(mail.outbox, [])
        self.assertEqual(self.client.post("/account/proof/xyz/").status_code, 410)
        for _ in range(6):
            last = self.client.post("/account/addresses", {"address": ADDRESS})
        self.assertContains(last, "Mail was asked for several times already. Try again in", status_code=400)
        self.assertEqual(len(mail.outbox), 5)

    def test_name_and_password_are_changed(self) -> None:
        self.client.post("/account/name", {"name": "Ines\nRoake"})
        self.assertEqual(User.objects.get(pk=self.ines.pk).first_name, "Ines Roake")
        self.assertContains(
            self.client.post("/account/name", {"name": " "}), "Say what you are called", status_code=400
        )
        self.ines.set_password(PASSWORD)
        self.ines.save()
        self.client.force_login(self.ines)
        self.assertContains(
            self.client.post("/account/password", {"old": "x", "new": "another of these"}),
            "This is not your password",
            status_code=400,
        )
        self.assertContains(
            self.client.post("/account/password", {"old": PASSWORD, "new": "1234"}), "too short", status_code=400
        )
        self.client.post("/account/password", {"old": PASSWORD, "new": "another of these"})
        self.assertEqual(self.client.get("/account/").status_code, 200, "and one stays signed in")
        self.assertTrue(Client().login(username="ines", password="another of these"))


class MailTest(WebTest):
    def invite(self, address: str) -> Any:
        return self.post("/shows/clock/people/invite", {"address": address, "role": "watch"})

    def test_so_much_mail_and_no_more_goes_out_for_a_show_within_an_hour(self) -> None:
        with mock.patch("ritornel.web.people.mail.LETTERS", Brake("a little mail", "2/hour")):
            for number in range(2):
                self.assertEqual(self.invite(f"{number}@orlmere.example").status_code, 200)
            refused = self.invite(ADDRESS)
        self.assertEqual((refused.status_code, 3500 < int(refused.headers["Retry-After"]) <= 3601), (429, True))
        self.assertIn(
            "So much mail cannot go out for one show within an hour. Nothing was sent. Try again in 60 minutes.",
            refused.json()["error"],
        )
        self.assertEqual((Invitation.objects.count(), len(mail.outbox)), (2, 2))

    def test_a_title_of_several_lines_is_one_in_the_subject(self) -> None:
        self.edit({"do": "change show", "changes": {"title": "Noon\r\nBcc: all@orlmere.example"}})
        self.assertEqual(self.invite(ADDRESS).status_code, 200)
        self.assertEqual(mail.outbox[0].subject, "ines asks you to watch “Noon Bcc: all@orlmere.example”")

    def test_a_mail_server_that_takes_nothing_is_told(self) -> None:
        with mock.patch("django.core.mail.EmailMessage.send", side_effect=ConnectionRefusedError):
            refused = self.invite(ADDRESS)
        self.assertIn("the mail server did not take it", refused.json()["error"])


class DoorTest(WebTest):
    def test_the_page_that_refuses_somebody_tells_nothing_of_the_show(self) -> None:
        from ritornel.web.releases.models import Guest, Release

        self.post("/shows/clock/editions", {"audience": "anyone"})
        release = Release.objects.get()
        guest = Guest.objects.create(release=release, address=ADDRESS)
        for audience, domain in (("invited", ""), ("domain", "orlmere.example")):
            self.post("/shows/clock/release/settings", {"audience": audience, "domain": domain})
            for path in (f"/s/{release.address}/", f"/s/{release.address}/for/{guest.code}/"):
                guest.withdrawn_at = "2026-11-01T00:00Z"
                guest.save()
                page = Client().get(path)
                self.assertEqual(page.status_code, 403)
                for words in ("Orlmere clock", "ines", "The Orlmere"):
                    self.assertNotContains(page, words, status_code=403)

    def test_asking_too_often_is_told(self) -> None:
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.post("/shows/clock/release/settings", {"audience": "domain", "domain": "orlmere.example"})
        from ritornel.web.releases.models import Release

        path = f"/s/{Release.objects.get().address}/ask"
        replies = [Client().post(path, {"address": f"somebody-{number}@orlmere.example"}) for number in range(11)]
        self.assertContains(
            replies[-1], "Many links were asked for from here, so nothing was sent. Try again in", status_code=429
        )
        self.assertEqual(len(mail.outbox), 10)
