"""Help for each screen, the example where nobody has a show, and the first show."""

import re
from pathlib import Path

from django.test import Client

from ritornel.web.help.models import FirstShow
from ritornel.web.help.topics import found_topics, help_topics
from ritornel.web.shows.models import Show
from tests.web.base import WebTest

KEYS = Path("src/ritornel/web/static/ritornel/ui/page-keys.js")


class HelpTest(WebTest):
    def test_every_screen_has_a_page_with_its_words_and_the_keys_that_it_shows_itself(self) -> None:
        lists = set(re.findall(r"^\t(\w+): \[$", KEYS.read_text(), re.MULTILINE))
        for topic in help_topics():
            page = self.client.get(f"/help/{topic.name}")
            self.assertContains(page, f'<h1 class="text-3xl">{topic.title}</h1>')
            for word in topic.words:
                self.assertContains(page, f"<dt>{word}</dt>")
            self.assertIn(topic.keys, lists | {"play", "watch", "compose"})
        self.assertEqual(self.client.get("/help/engine").status_code, 404)

    def test_words_are_found_in_all_pages_in_any_order(self) -> None:
        self.assertEqual([topic.name for topic in found_topics("phone REMOTE")], ["lectern"])
        self.assertContains(self.client.get("/help/?q=remote+phone"), "Press from a phone")
        self.assertContains(self.client.get("/help/?q=<b>carburettor"), "Nothing in the help has all of these words")
        self.assertNotContains(self.client.get("/help/?q=<b>carburettor"), "<b>carburettor")

    def test_each_screen_of_a_show_leads_to_its_page(self) -> None:
        for way, topic in (("", "compose"), ("rehearse", "rehearse"), ("release", "release"), ("history", "people")):
            self.assertContains(self.client.get(f"/shows/clock/{way}"), f'href="/help/{topic}"')


class ExampleTest(WebTest):
    def test_a_finished_show_is_played_where_there_is_none_and_its_media_are_there(self) -> None:
        self.assertNotContains(self.client.get("/"), "/help/example.json")
        other = Client()
        other.force_login(self.odo)
        self.assertContains(other.get("/"), "/help/example.json")
        example = other.get("/help/example.json").json()
        self.assertEqual((len(example["slides"]), example["end"], example["music"]), (9, "loop", []))
        for address in example["media"].values():
            self.assertEqual(other.get(address).status_code, 200, address)
        self.assertEqual(other.get("/help/example/nothing").status_code, 404)


class FirstShowTest(WebTest):
    def begin(self) -> str:
        reply = self.client.post("/help/first-show")
        self.show_id = reply["Location"].split("/")[2]
        return self.show_id

    def done(self) -> list[str]:
        state = self.client.get(f"/shows/{self.show_id}/first.json").json()
        return [act["name"] for act in state["acts"] if act["done"]]

    def test_it_is_begun_once_left_and_come_back_to(self) -> None:
        self.assertContains(self.client.get("/help/"), "Make a first show")
        show_id = self.begin()
        self.assertContains(self.client.get(f"/shows/{show_id}/"), 'id="first-show"')
        self.client.post(f"/shows/{show_id}/first/leave")
        self.assertTrue(self.client.get(f"/shows/{show_id}/first.json").json()["left"])
        self.assertContains(self.client.get("/help/"), "Go on with it")
        self.assertEqual(self.begin(), show_id)
        self.assertFalse(self.client.get(f"/shows/{show_id}/first.json").json()["left"])
        self.assertEqual(Show.objects.filter(owner=self.ines).count(), 2)

    def test_acts_are_noticed_however_they_are_done_and_undone(self) -> None:
        show_id = self.begin()
        self.assertEqual(self.done(), [])
        build = {"id": "b", "object_id": "wheel-wheel", "effect": "enters settle", "starts": {"rule": "follows"}}
        give = {"do": "add build", "slide_id": "wheel", "build": {**build, "after_ms": 0, "lasts_ms": 600}}
        reply = self.post(f"/shows/{show_id}/edit", {"revision": 0, "edit": give})
        self.assertEqual(reply.status_code, 200, reply.content)
        self.assertEqual(self.done(), ["build"])
        self.post(f"/shows/{show_id}/undo")
        self.assertEqual(self.done(), [])
        self.post(f"/shows/{show_id}/editions", {"audience": "anyone"})
        self.assertEqual(self.done(), ["release"])

    def test_another_show_has_no_acts_and_one_in_the_bin_is_begun_anew(self) -> None:
        self.assertEqual(self.client.get("/shows/clock/first.json").status_code, 404)
        self.assertNotContains(self.client.get("/shows/clock/"), 'id="first-show"')
        show_id = self.begin()
        self.client.post(f"/shows/{show_id}/remove")
        self.assertNotEqual(self.begin(), show_id)
        self.assertEqual(FirstShow.objects.count(), 2)
