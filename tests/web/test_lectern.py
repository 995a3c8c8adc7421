from datetime import timedelta

from django.utils import timezone

from ritornel.web.people.models import Invitation
from ritornel.web.stage.models import Run
from tests.web.base import WebTest


class LecternTest(WebTest):
    def begin(self) -> Run:
        self.post("/shows/clock/run")
        return Run.objects.get()

    def test_the_lectern_tells_what_each_beat_brings(self) -> None:
        page = self.client.get("/shows/clock/lectern")
        self.assertContains(page, "Pallets")
        self.assertContains(page, "Left alone, the falling weight")

    def test_another_device_sees_the_show_but_not_the_notes(self) -> None:
        run = self.begin()
        self.client.logout()
        self.assertContains(self.client.get(f"/house/{run.house_code}/"), "The Orlmere clock")
        show = self.client.get(f"/house/{run.house_code}/performance.json").json()
        self.assertNotIn("notes", {name for slide in show["slides"] for name in slide})
        for address in show["media"].values():
            self.assertEqual(self.client.get(address).status_code, 200, address)

    def test_asking_again_gives_the_same_addresses(self) -> None:
        first, again = self.post("/shows/clock/run").json(), self.post("/shows/clock/run").json()
        self.assertEqual(first, again)
        self.assertIn("<svg", first["house"]["square"])
        self.assertEqual(self.client.get("/shows/clock/run.json").json(), first)

    def test_addresses_that_were_ended_or_are_a_day_old_lead_nowhere(self) -> None:
        run = self.begin()
        self.post("/shows/clock/run/end")
        for address in (
            f"/house/{run.house_code}/",
            f"/house/{run.house_code}/performance.json",
            f"/remote/{run.remote_code}/",
        ):
            self.assertEqual(self.client.get(address).status_code, 404, address)
        self.assertIsNone(self.client.get("/shows/clock/run.json").json())
        old = self.post("/shows/clock/run").json()
        Run.objects.update(begun_at=timezone.now() - timedelta(hours=25))
        self.assertEqual(self.client.get("/" + old["house"]["address"].split("/", 3)[3]).status_code, 404)

    def test_one_code_does_not_open_what_the_other_does_and_guesses_open_nothing(self) -> None:
        run = self.begin()
        for address in (
            f"/house/{run.remote_code}/",
            f"/remote/{run.house_code}/",
            "/house/aaaaaaaaaaaa/",
            f"/house/{run.house_code}/media/no-such/100",
        ):
            self.assertEqual(self.client.get(address).status_code, 404, address)

    def test_nobody_else_may_open_or_lead_a_run(self) -> None:
        self.begin()
        self.client.force_login(self.odo)
        for address in ("/shows/clock/lectern", "/shows/clock/house", "/shows/clock/run.json"):
            self.assertEqual(self.client.get(address).status_code, 404, address)
        for address in ("/shows/clock/run", "/shows/clock/run/end", "/shows/clock/run/say"):
            self.assertEqual(self.post(address, {"kind": "state"}).status_code, 404, address)

    def test_a_remote_can_only_press_and_a_message_needs_a_kind(self) -> None:
        run = self.begin()
        self.assertEqual(self.post("/shows/clock/run/say", {"seq": 3}).status_code, 400)
        self.client.logout()
        self.assertEqual(self.post(f"/remote/{run.remote_code}/press", {"act": "next"}).json(), {"pressed": "next"})
        refused = self.post(f"/remote/{run.remote_code}/press", {"act": "remove"})
        self.assertEqual(
            (refused.status_code, refused.json()["error"]),
            (400, "A remote cannot do “remove”; it can do next, back, black."),
        )

    def test_a_row_does_not_tell_its_codes(self) -> None:
        run = self.begin()
        kept = str(Run.objects.filter(pk=run.pk).values().get())
        self.assertNotIn(run.house_code, kept)
        self.assertNotIn(run.remote_code, kept)
        self.assertRegex(run.house_code, "^[a-z2-9]{12}$")

    def test_only_what_is_shown_or_heard_is_given_to_the_house_and_only_at_its_own_speed(self) -> None:
        run = self.begin()
        self.client.logout()
        for asset, rate in (("noon", 150), ("waltz", 99), ("waltz", 10**40), ("no-such", 100)):
            self.assertEqual(
                self.client.get(f"/house/{run.house_code}/media/{asset}/{rate}").status_code, 404, (asset, rate)
            )

    def test_the_codes_of_somebody_who_may_not_edit_any_more_open_nothing(self) -> None:
        Invitation.objects.create(
            show=self.row,
            by=self.ines,
            address="odo@orlmere.example",
            role="edit",
            person=self.odo,
            accepted_at=timezone.now(),
        )
        self.client.force_login(self.odo)
        run = self.begin()
        paths = [f"/house/{run.house_code}/{name}" for name in ("", "performance.json", "media/noon/100")] + [
            f"/remote/{run.remote_code}/"
        ]
        self.assertEqual([self.client.get(path).status_code for path in paths], [200] * 4)
        for change in ({"role": "watch"}, {"withdrawn_at": timezone.now(), "role": "edit"}):
            Invitation.objects.update(**change)
            self.assertEqual([self.client.get(path).status_code for path in paths], [404] * 4)
            self.assertEqual(self.post(f"/remote/{run.remote_code}/press", {"act": "next"}).status_code, 404)
            Invitation.objects.update(withdrawn_at=None, role="edit")
