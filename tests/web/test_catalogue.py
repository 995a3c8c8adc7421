"""The catalogue and the video site, as prompt, slow and failing services."""

from contextlib import AbstractContextManager
from unittest.mock import patch

from django.test import override_settings

from ritornel.outside import standins
from ritornel.web.shows.services import Show
from tests.web.base import WebTest


class OutsideTest(WebTest):
    def names(self, words: str, kind: str = "") -> list[str]:
        reply = self.client.get("/shows/clock/catalogue", {"words": words, "kind": kind})
        self.assertEqual(reply.status_code, 200, reply.content)
        return [entry["name"] for entry in reply.json()["found"]]

    def test_it_is_searched_by_all_words_those_in_the_name_first(self) -> None:
        self.assertEqual(self.names("bell"), ["The hour bell", "Bell", "Small bell"])
        self.assertEqual(self.names("bell", "sound"), ["Bell", "Small bell"])
        self.assertEqual(self.names("brass gear"), ["The going train"])
        self.assertEqual(self.names("ines night"), ["The tower at night"])
        self.assertEqual(self.names("zeppelin"), [])
        self.assertEqual(len(self.names("")), 16)

    def test_a_thing_comes_onto_the_shelf_with_its_credit_and_is_used_like_any_other(self) -> None:
        asset = self.post("/shows/clock/catalogue/sound-ratchet").json()["asset"]
        self.assertEqual((asset["name"], asset["author"], asset["licence"]), ("Ratchet", "Tibor Hale", "CC0 1.0"))
        self.assertEqual(asset["credit"], "“Ratchet” by Tibor Hale, CC0 1.0")
        revision = Show.objects.get(pk="clock").revision
        again = self.post("/shows/clock/catalogue/sound-ratchet").json()
        self.assertEqual((again["asset"]["id"], again["revision"]), (asset["id"], revision), "it is there already")
        self.post("/shows/clock/undo")
        self.assertNotIn(asset["id"], [entry["id"] for entry in self.score()["assets"]])

    def test_what_lies_on_the_shelf_without_a_credit_is_given_one(self) -> None:
        asset = self.post("/shows/clock/catalogue/music-waltz").json()["asset"]
        self.assertEqual(asset["id"], "waltz", "the demo's own waltz, which lay there without a credit")
        self.assertEqual(
            self.score()["assets"][-1]["credit"] or asset["credit"],
            "“Winders' waltz” by The Orlmere Town Band, CC0 1.0",
        )

    def test_a_thing_can_be_seen_or_heard_before_it_is_used(self) -> None:
        self.assertEqual(
            self.client.get("/shows/clock/catalogue/picture-bell/sample").headers["Content-Type"], "image/jpeg"
        )
        self.assertEqual(self.client.get("/shows/clock/catalogue/gone/sample").status_code, 404)

    def test_the_address_of_a_video_becomes_a_clip(self) -> None:
        asset = self.post(
            "/shows/clock/videos", {"address": " https://clips.orlmere.example/watch/pendulum-swings?t=3 "}
        ).json()["asset"]
        self.assertEqual((asset["kind"], asset["name"], asset["lasts_ms"]), ("clip", "Pendulum swings", 12_000))
        self.assertIn("https://clips.orlmere.example/watch/pendulum-swings", asset["credit"])

    def test_an_address_that_leads_nowhere_is_told_and_nothing_changes(self) -> None:
        for address, words in (
            (
                "https://clips.orlmere.example/watch/gone",
                "There is no video at “https://clips.orlmere.example/watch/gone”",
            ),
            ("https://elsewhere.example/watch/pendulum-swings", "There is no video at"),
            ("javascript:alert(1)", "There is no video at"),
            ("", "Put in the address of a video"),
        ):
            reply = self.post("/shows/clock/videos", {"address": address})
            self.assertEqual((reply.status_code, words in reply.json()["error"]), (400, True), address)
        self.assertEqual(self.post("/shows/clock/catalogue/gone").status_code, 400)
        self.assertIn("it has no “smell”", self.client.get("/shows/clock/catalogue", {"kind": "smell"}).json()["error"])
        self.assertEqual(Show.objects.get(pk="clock").revision, 0)

    def behaving(self, manner: str) -> AbstractContextManager[None]:
        return override_settings(OUTSIDE_MANNER=manner, OUTSIDE_S=0.2)

    def test_a_service_that_fails_is_told_and_nothing_changes(self) -> None:
        with self.behaving("failing"):
            for reply in (self.client.get("/shows/clock/catalogue"), self.post("/shows/clock/catalogue/sound-tick")):
                words = (
                    "The catalogue cannot be asked now: It answered with an error (503). Nothing was changed; "
                    "try again in a while."
                )
                self.assertEqual((reply.status_code, reply.json()["error"]), (400, words))
            self.assertIn(
                "The video site cannot be asked now",
                self.post("/shows/clock/videos", {"address": "https://x.example"}).json()["error"],
            )
            self.assertEqual(self.client.get("/shows/clock/catalogue/sound-tick/sample").status_code, 404)
        self.assertEqual(Show.objects.get(pk="clock").revision, 0)

    def test_a_service_that_does_not_answer_is_given_up(self) -> None:
        with self.behaving("slow"), patch.object(standins, "SLOW_S", 0.6):
            reply = self.client.get("/shows/clock/catalogue")
        self.assertEqual((reply.status_code, "did not answer within 0.2 s" in reply.json()["error"]), (400, True))
