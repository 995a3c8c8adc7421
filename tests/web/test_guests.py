import re
from datetime import timedelta
from typing import Any

from django.core import mail
from django.test import Client
from django.utils import timezone

from ritornel.web.releases.models import Guest, Release
from tests.web.base import WebTest


class GuestsTest(WebTest):
    """A release that is not open to anyone."""

    def setUp(self) -> None:
        super().setUp()
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.address = f"/s/{Release.objects.get().address}/"

    def settings(self, **body: Any) -> Any:
        return self.post("/shows/clock/release/settings", body)

    def link(self, address: str) -> str:
        return f"{self.address}for/{Guest.objects.get(address=address).code}/"

    def seen(self, client: Client) -> list[int]:
        """What a browser is answered for the page, the performance and a picture."""
        performance = f"{self.address}1/performance.json"
        picture = next(name for name in self.client.get(performance).json()["media"].values() if name.endswith(".jpg"))
        return [client.get(path).status_code for path in (self.address, performance, f"{self.address}1/{picture}")]

    def test_each_guest_has_a_link_that_lets_their_browser_in_and_can_be_withdrawn(self) -> None:
        self.settings(audience="invited")
        reply = self.post("/shows/clock/guests", {"addresses": "odo@orlmere.example; tamsin@orlmere.example"}).json()
        self.assertEqual(
            [guest["address"] for guest in reply["guests"]], ["odo@orlmere.example", "tamsin@orlmere.example"]
        )
        self.assertEqual(len(mail.outbox), 2)
        stranger, odo, tamsin = Client(), Client(), Client()
        self.assertEqual(self.seen(stranger), [403, 404, 404])
        for client, address in ((odo, "odo@orlmere.example"), (tamsin, "tamsin@orlmere.example")):
            self.assertRedirects(client.get(self.link(address)), self.address)
            self.assertEqual(self.seen(client), [200, 200, 200])
        self.post(f"/shows/clock/guests/{Guest.objects.get(address='odo@orlmere.example').pk}")
        self.assertEqual((self.seen(odo), self.seen(tamsin)), ([403, 404, 404], [200, 200, 200]))
        self.assertEqual(Client().get(self.link("odo@orlmere.example")).status_code, 403)
        self.assertEqual(self.seen(self.client), [200, 200, 200])

    def test_one_wrong_address_and_nobody_is_written_to(self) -> None:
        self.settings(audience="invited")
        reply = self.post("/shows/clock/guests", {"addresses": "odo@orlmere.example, tamsin"})
        self.assertEqual(
            (reply.status_code, reply.json()["error"]), (400, "“tamsin” is no e-mail address. Nobody was written to.")
        )
        self.assertEqual((Guest.objects.count(), len(mail.outbox)), (0, 0))
        self.client.force_login(self.odo)
        self.assertEqual(self.post("/shows/clock/guests", {"addresses": "odo@orlmere.example"}).status_code, 404)

    def test_everybody_at_a_mail_domain_can_ask_for_a_link_and_nobody_learns_who_may(self) -> None:
        self.settings(audience="domain", domain="@orlmere.example")
        stranger = Client()
        self.assertContains(stranger.get(self.address), "@orlmere.example", status_code=403)
        for address in ("odo@orlmere.example", "somebody@elsewhere.example", "x@notorlmere.example"):
            reply = stranger.post(f"{self.address}ask", {"address": address})
            self.assertContains(reply, f"If {address} may see it, mail with a link is on its way there.")
        (letter,) = mail.outbox
        self.assertEqual(letter.to, ["odo@orlmere.example"])
        link = re.search(r"http://testserver(\S+)", str(letter.body))
        assert link
        self.assertRedirects(stranger.get(link[1]), self.address)
        self.assertEqual(self.seen(stranger), [200, 200, 200])
        stranger.post(f"{self.address}ask", {"address": "odo@orlmere.example"})
        self.assertEqual(len(mail.outbox), 1)
        Guest.objects.update(sent_at=timezone.now() - timedelta(minutes=5))
        stranger.post(f"{self.address}ask", {"address": "odo@orlmere.example"})
        self.assertEqual(len(mail.outbox), 2)
        self.assertContains(
            stranger.post(f"{self.address}ask", {"address": "odo"}),
            "“odo” is no e-mail address. Nothing was sent.",
            status_code=400,
        )

    def test_who_was_shut_out_cannot_let_themselves_in_again(self) -> None:
        self.settings(audience="domain", domain="orlmere.example")
        stranger = Client()
        stranger.post(f"{self.address}ask", {"address": "odo@orlmere.example"})
        self.post(f"/shows/clock/guests/{Guest.objects.get().pk}")
        Guest.objects.update(sent_at=timezone.now() - timedelta(minutes=5))
        stranger.post(f"{self.address}ask", {"address": "odo@orlmere.example"})
        self.assertEqual((len(mail.outbox), Guest.objects.get().withdrawn_at is None), (1, False))

    def test_an_audience_that_there_is_not_is_refused(self) -> None:
        for body, words in (
            ({"audience": "friends"}, "not “friends”"),
            ({"audience": "domain", "domain": "orlmere"}, "“orlmere” is no mail domain"),
        ):
            reply = self.settings(**body)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(words, reply.json()["error"])
        self.assertEqual(Release.objects.get().audience, "anyone")

    def test_another_page_says_how_the_show_behaves_there_only_where_anyone_may_see_it(self) -> None:
        page = Client().get(f"{self.address}?start=press&loop=on&sound=off&steps=off&controls=off")
        self.assertIn("frame-ancestors *", page.headers["Content-Security-Policy"])
        self.assertIn(
            '"starts_itself": false, "starts_silent": false, "loops": true, '
            '"sound": false, "steps": false, "controls": false',
            page.content.decode(),
        )
        self.settings(audience="invited")
        self.assertNotIn("frame-ancestors *", self.client.get(self.address).headers["Content-Security-Policy"])
