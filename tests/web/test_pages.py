import json
import re

from django.contrib.auth.models import User
from django.templatetags.static import static
from django.test import SimpleTestCase

from ritornel.core.document import Frame
from ritornel.web.config.file_names import file_title
from ritornel.web.config.page_data import page_data
from ritornel.web.shows.models import Show
from tests.web.base import WebTest


class SignInTest(WebTest):
    def test_one_signs_in_and_out_and_is_taken_to_what_one_wanted(self) -> None:
        person = User.objects.create_user("tamsin", password="eleven winders")
        self.client.logout()
        reply = self.client.post(
            "/sign-in/?next=/shows/clock/",
            {"username": "tamsin", "password": "eleven winders", "next": "/shows/clock/"},
        )
        self.assertRedirects(reply, "/shows/clock/", fetch_redirect_response=False)
        self.assertEqual(int(self.client.session["_auth_user_id"]), person.pk)
        self.assertRedirects(self.client.post("/sign-out/"), "/sign-in/")
        self.assertNotIn("_auth_user_id", self.client.session)

    def test_a_sign_in_leads_nowhere_else(self) -> None:
        User.objects.create_user("tamsin", password="eleven winders")
        self.client.logout()
        reply = self.client.post(
            "/sign-in/", {"username": "tamsin", "password": "eleven winders", "next": "//elsewhere.example/"}
        )
        self.assertRedirects(reply, "/", fetch_redirect_response=False)

    def test_cookies_are_safe(self) -> None:
        self.client.logout()
        User.objects.create_user("tamsin", password="eleven winders")
        cookie = self.client.post("/sign-in/", {"username": "tamsin", "password": "eleven winders"}).cookies[
            "sessionid"
        ]
        self.assertTrue(cookie["httponly"])
        self.assertEqual(cookie["samesite"], "Lax")


class PageDataTest(SimpleTestCase):
    def test_no_words_of_a_show_end_the_element_or_begin_anything(self) -> None:
        title = "</script><!-- & <b>"
        text = page_data({"title": title, "frame": Frame(1280, 720)})
        self.assertEqual(len(re.findall(r"[<>&]", text)), 4)
        body = text.removeprefix('<script id="start" type="application/json">').removesuffix("</script>")
        self.assertEqual(json.loads(body), {"title": title, "frame": {"width_px": 1280, "height_px": 720}})


class ListTest(WebTest):
    def test_a_new_show_has_a_slide_with_its_title(self) -> None:
        self.client.post("/shows/new", {"title": "  The bell  "})
        row = Show.objects.exclude(pk="clock").get()
        detail = self.client.get(f"/shows/{row.pk}/slides/opening.json").json()["slide"]
        self.assertEqual(
            (row.title, detail["objects"][0]["paragraphs"][0]["runs"][0]["text"]), ("The bell", "The bell")
        )

    def test_a_show_without_a_title_gets_one(self) -> None:
        self.client.post("/shows/new", {"title": " "})
        self.assertTrue(Show.objects.filter(title="Untitled show").exists())

    def test_a_removed_show_is_gone_with_all_that_belongs_to_it(self) -> None:
        self.post("/shows/clock/editions", {"audience": "anyone"})
        self.post("/shows/clock/takes", {"events": [], "ended_ms": 5})
        self.client.post("/shows/clock/remove")
        self.client.post("/bin/clock/remove")
        self.assertEqual(Show.everywhere.count(), 0)
        self.assertEqual(self.client.get("/shows/clock/").status_code, 404)

    def test_a_title_becomes_a_file_name(self) -> None:
        self.assertEqual(file_title("The Orlmere clock – 2nd edition"), "the-orlmere-clock-2nd-edition")
        self.assertEqual(file_title("Часы"), "show")

    def test_a_title_cannot_carry_markup_into_a_page(self) -> None:
        self.edit({"do": "change show", "changes": {"title": "</script><b>bold</b>"}})
        for path in ("/", "/shows/clock/", "/shows/clock/play", "/shows/clock/rehearse"):
            self.assertNotContains(self.client.get(path), "</script><b>")

    def test_an_emptied_show_opens_plays_and_is_not_released(self) -> None:
        for slide_id in self.score()["order"]:
            self.edit({"do": "remove slides", "slide_ids": [slide_id]})
        self.assertEqual(self.client.get("/shows/clock/").status_code, 200)
        self.assertEqual(self.client.get("/shows/clock/performance.json").json()["length_ms"], 0)
        self.assertIn(
            "has no slides to release", self.post("/shows/clock/editions", {"audience": "anyone"}).json()["error"]
        )


class StaticTest(WebTest):
    def test_scripts_and_fonts_are_ours_and_answered_briefly_when_unchanged(self) -> None:
        reply = self.client.get(static("ritornel/pages/compose.js"))
        self.assertEqual(reply.status_code, 200)
        self.assertIn("javascript", reply.headers["Content-Type"])
        again = self.client.get(
            static("ritornel/pages/compose.js"), headers={"If-Modified-Since": reply.headers["Last-Modified"]}
        )
        self.assertEqual((again.status_code, again.content), (304, b""))
        self.assertEqual(self.client.get(static("fonts/spectral/400.woff2")).status_code, 200)

    def test_the_icon_browsers_ask_for_by_themselves_is_there(self) -> None:
        self.assertRedirects(
            self.client.get("/favicon.ico"), "/static/ritornel/mark.svg", status_code=301, fetch_redirect_response=False
        )

    def test_no_page_asks_anything_of_the_network(self) -> None:
        for path in ("/", "/shows/clock/", "/shows/clock/play", "/shows/clock/rehearse", "/shows/clock/release"):
            self.assertNotRegex(self.client.get(path).content.decode(), r'(src|href)="(https?:)?//')
