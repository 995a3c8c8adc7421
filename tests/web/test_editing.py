import json
import random
from typing import Any
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, override_settings
from django.utils import timezone

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.themes import THEMES
from ritornel.core.formats.media import Limits
from ritornel.demo.orlmere import MEDIA
from ritornel.web.people.models import Invitation
from ritornel.web.shows import history
from ritornel.web.shows.models import Edit, Show
from ritornel.web.shows.services import value_of
from tests.web.base import WebTest


class EditTest(WebTest):
    def test_an_edit_answers_what_changed_and_counts_the_revision(self) -> None:
        reply = self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}}).json()
        self.assertEqual(
            (reply["revision"], list(reply["slides"]), reply["viewing"]["slide"]["name"]), (1, ["esc-s"], "Tick")
        )
        self.assertEqual(reply["history"], {"undo": "Change name of slide “The escapement”", "redo": None})

    def test_undo_and_redo_restore_exactly_and_a_new_edit_ends_redo(self) -> None:
        before = value_of(Show.objects.get(pk="clock"))
        self.edit({"do": "remove slides", "slide_ids": ["who-s"]})
        self.edit({"do": "move slides", "slide_ids": ["thx-s"], "to": 0})
        after = value_of(Show.objects.get(pk="clock"))
        self.post("/shows/clock/undo")
        self.post("/shows/clock/undo")
        self.assertEqual(value_of(Show.objects.get(pk="clock")), before)
        self.post("/shows/clock/redo")
        self.post("/shows/clock/redo")
        self.assertEqual(value_of(Show.objects.get(pk="clock")), after)
        self.post("/shows/clock/undo")
        self.edit({"do": "change show", "changes": {"title": "Another"}})
        self.assertEqual(self.post("/shows/clock/redo").json()["error"], "There is nothing to do again.")

    def test_a_revision_that_the_log_does_not_know_is_refused_and_nothing_is_lost(self) -> None:
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Mine"}})
        Edit.objects.all().delete()
        reply = self.edit({"do": "remove slides", "slide_ids": ["esc-s"]}, revision=0)
        self.assertEqual((reply.status_code, reply.json()["stale"]), (409, True))
        self.assertIn("was changed elsewhere in the meantime", reply.json()["error"])
        self.assertEqual(self.score()["slides"]["esc-s"]["name"], "Mine")

    def refused(self, edit: object, words: str) -> None:
        before = self.score()
        reply = self.post("/shows/clock/edit", {"revision": before["revision"], "edit": edit})
        self.assertEqual(reply.status_code, 400)
        self.assertIn(words, reply.json()["error"])
        self.assertEqual(self.score(), before)

    def test_an_edit_that_is_sent_twice_is_made_once(self) -> None:
        body = {
            "revision": 0,
            "edit": {"do": "duplicate slides", "slide_ids": ["esc-s"], "stem": "twice"},
            "viewing": "esc-s",
        }

        def send(path, body):
            return self.client.post(
                path, json.dumps(body), content_type="application/json", headers={"X-Edit-Id": "abcdefgh"}
            )

        first, again = send("/shows/clock/edit", body), send("/shows/clock/edit", body)
        self.assertEqual((first.json()["revision"], again.json()), (1, {"again": True, "revision": 1}))
        self.assertEqual((len(self.score()["order"]), Edit.objects.count()), (10, 1))
        other = self.client.post(
            "/shows/clock/undo", "{}", content_type="application/json", headers={"X-Edit-Id": "ijklmnop"}
        )
        twice = self.client.post(
            "/shows/clock/undo", "{}", content_type="application/json", headers={"X-Edit-Id": "ijklmnop"}
        )
        self.assertEqual((other.json()["revision"], twice.json()["again"], len(self.score()["order"])), (2, True, 9))

    def test_an_edit_that_was_refused_is_not_taken_for_made(self) -> None:
        for _ in range(2):
            body = {"revision": 0, "edit": {"do": "remove slides", "slide_ids": ["nowhere"]}}
            reply = self.client.post(
                "/shows/clock/edit",
                json.dumps(body),
                content_type="application/json",
                headers={"X-Edit-Id": "abcdefgh"},
            )
            self.assertEqual(reply.status_code, 400)

    def test_what_cannot_be_is_refused_in_a_sentence(self) -> None:
        build = {"id": "n", "object_id": "pin", "effect": "enters fade", "starts": {"rule": "follows"}}
        self.refused(
            {"do": "add build", "slide_id": "esc-s", "build": {**build, "effect": "enters explode"}},
            "There is no effect “enters explode”",
        )
        self.refused(
            {"do": "add build", "slide_id": "esc-s", "build": {**build, "object_id": "gone"}},
            "not on slide “The escapement” any more",
        )
        self.refused({"do": "add build", "slide_id": "esc-s", "build": {**build, "after_ms": -5}}, "build.after_ms")
        self.refused(
            {"do": "change objects", "slide_id": "esc-s", "object_ids": ["ticks"], "changes": {"family": "Papyrus"}},
            "no font family “Papyrus”",
        )
        self.refused(
            {
                "do": "change objects",
                "slide_id": "noon-s",
                "object_ids": ["noon-1"],
                "changes": {"asset_id": "nothing"},
            },
            "not on the shelf",
        )
        self.refused({"do": "dance"}, "dance")
        self.refused("dance", "The edit")

    def test_a_moved_slide_with_a_number_has_another_picture_also_where_a_paragraph_is_built(self) -> None:
        self.edit({"do": "change furniture", "changes": {"numbers": True}})
        score = self.score()
        built = next(
            s
            for s, line in score["slides"].items()
            if sum(1 for build in line["builds"] if build["part"] and build["part"].endswith("-2"))
        )
        before = score["slides"][built]["thumb"]
        self.edit({"do": "move slides", "slide_ids": [built], "to": 0})
        moved = self.score()["slides"][built]["thumb"]
        self.assertNotEqual(moved, before)
        self.edit({"do": "move slides", "slide_ids": [built], "to": score["order"].index(built)})
        self.assertEqual(self.score()["slides"][built]["thumb"], before)

    def test_a_new_renderer_gives_every_derived_file_another_address(self) -> None:
        before = self.score()
        with (
            mock.patch("ritornel.web.editor.score.RENDERER", 99),
            mock.patch("ritornel.web.library.media_addresses.RENDERER", 99),
        ):
            after = self.score()
        self.assertFalse(
            {line["thumb"] for line in before["slides"].values()} & {line["thumb"] for line in after["slides"].values()}
        )
        self.assertFalse(
            {asset["derived"] for asset in before["assets"]} & {asset["derived"] for asset in after["assets"]}
        )

    def test_a_failure_in_the_middle_of_writing_leaves_the_show_as_it_was(self) -> None:
        before = self.score()
        with (
            mock.patch.object(history, "write_changes", side_effect=RuntimeError("power cut")),
            self.assertRaises(RuntimeError),
        ):
            self.edit({"do": "remove slides", "slide_ids": ["who-s"]})
        self.assertEqual(self.score(), before)

    def test_a_request_that_is_no_json_is_told(self) -> None:
        reply = self.client.post("/shows/clock/edit", "{", content_type="application/json")
        self.assertEqual((reply.status_code, reply.json()["error"]), (400, "The request is not JSON."))


class AnyHistoryTest(WebTest):
    ACTS = ("remove", "move", "duplicate", "undo", "redo")

    def test_rows_are_always_what_the_values_say(self) -> None:
        chance = random.Random(31)  # the same sequences on every run
        for _ in range(12):
            self.check(
                [
                    (chance.choice(self.ACTS), chance.randrange(13), chance.randrange(13))
                    for _ in range(chance.randrange(11))
                ]
            )

    def check(self, acts: list[tuple[str, int, int]]) -> None:
        for number, (act, one, other) in enumerate(acts):
            order = self.score()["order"]
            if act in ("undo", "redo"):
                self.post(f"/shows/clock/{act}")
                continue
            if not order:
                continue
            slide_id = order[one % len(order)]
            edit = {
                "remove": {"do": "remove slides", "slide_ids": [slide_id]},
                "move": {"do": "move slides", "slide_ids": [slide_id], "to": other},
                "duplicate": {"do": "duplicate slides", "slide_ids": [slide_id], "stem": f"n{number}"},
            }[act]
            self.assertEqual(self.edit(edit).status_code, 200)
            self.assertEqual(
                list(Show.objects.get(pk="clock").slides.values_list("position", flat=True)),
                list(range(len(self.score()["order"]))),
            )
        while self.post("/shows/clock/undo").status_code == 200:
            pass
        self.assertEqual(
            self.score()["order"],
            ["noon-s", "who-s", "esc-s", "two-s", "men-s", "dial-s", "bell-s", "night-s", "thx-s"],
        )


class ShelfTest(WebTest):
    def add(self, name: str, data: bytes) -> object:
        return self.client.post("/shows/clock/shelf", {"file": SimpleUploadedFile(name, data)})

    def test_a_file_is_told_by_its_content_and_can_be_undone(self) -> None:
        reply = self.add("again.txt", (MEDIA / "bell.jpg").read_bytes()).json()  # type: ignore[attr-defined]
        self.assertEqual(
            (reply["asset"]["media_type"], reply["asset"]["name"], reply["asset"]["width_px"]),
            ("image/jpeg", "again", 1600),
        )
        self.post("/shows/clock/undo")
        self.assertEqual(len(self.score()["assets"]), 6)

    @override_settings(MEDIA_LIMITS=Limits(file_bytes=50_000, picture_pixels=1000))
    def test_bad_files_are_told_and_nothing_changes(self) -> None:
        before = self.score()
        for name, data, words in (
            ("a.png", b"", "is empty"),
            ("b.png", b"words", "neither a picture nor a sound"),
            ("c.ogg", (MEDIA / "winders-waltz.ogg").read_bytes(), "at most 0 MB"),
            ("d.jpg", (MEDIA / "bell.jpg").read_bytes(), "1600 × 1000 px"),
        ):
            reply = self.add(name, data)
            self.assertEqual(reply.status_code, 400)  # type: ignore[attr-defined]
            self.assertIn(words, reply.json()["error"])  # type: ignore[attr-defined]
        self.assertEqual(self.client.post("/shows/clock/shelf").status_code, 400)
        self.assertEqual(self.score(), before)

    def test_media_come_in_ranges_and_can_run_nothing(self) -> None:
        path = "/shows/clock/media/waltz"
        size = (MEDIA / "winders-waltz.ogg").stat().st_size
        whole, part, tail, beyond = (
            self.client.get(path, headers={"Range": value} if value else {})
            for value in (None, "bytes=10-19", "bytes=-5", f"bytes={size}-")
        )
        self.assertEqual((whole.status_code, len(whole.content)), (200, size))
        self.assertEqual(
            (part.status_code, part.headers["Content-Range"], part.content),
            (206, f"bytes 10-19/{size}", whole.content[10:20]),
        )
        self.assertEqual((tail.content, beyond.status_code), (whole.content[-5:], 416))
        self.assertEqual(whole.headers["Content-Security-Policy"], "default-src 'none'; sandbox")
        self.assertEqual(whole.headers["X-Content-Type-Options"], "nosniff")


class PagesTest(WebTest):
    def test_compose_needs_few_queries_whatever_the_length_of_the_show(self) -> None:
        with self.assertNumQueries(10):
            page = self.client.get("/shows/clock/")
        start = json.loads(page.content.split(b'<script id="start" type="application/json">')[1].split(b"</script>")[0])
        self.assertEqual((len(start["slides"]), start["viewing"]["slide"]["id"]), (9, "noon-s"))
        for number in range(5):
            self.edit({"do": "duplicate slides", "slide_ids": ["esc-s"], "stem": f"n{number}"})
        with self.assertNumQueries(10):
            self.client.get("/shows/clock/")

    def test_the_list_needs_as_many_queries_for_many_shows_as_for_one(self) -> None:
        with self.assertNumQueries(6):
            self.client.get("/")
        self.client.post("/shows/new", {"title": "Second"})
        with self.assertNumQueries(6):
            page = self.client.get("/")
        self.assertContains(page, "The Orlmere clock")
        self.assertContains(page, "Second")

    def test_a_thumbnail_is_a_png_of_the_slide(self) -> None:
        address = self.score()["slides"]["esc-s"]["thumb"]
        self.assertEqual(self.client.get(address).content[:8], b"\x89PNG\r\n\x1a\n")
        self.assertEqual(self.client.get(address + "?size=large").content[16:20], (640).to_bytes(4, "big"))
        self.assertEqual(self.client.get(address + "?size=vast").status_code, 404)

    def test_every_page_has_a_strict_policy(self) -> None:
        for path in (
            "/",
            "/shows/clock/",
            "/shows/clock/play",
            "/shows/clock/rehearse",
            "/shows/clock/release",
            "/sign-in/",
        ):
            reply = self.client.get(path)
            policy = reply.headers["Content-Security-Policy"]
            self.assertIn("default-src 'none'; script-src 'self'; style-src 'self'", policy, path)
            self.assertNotIn("unsafe", policy)
            self.assertNotRegex(
                reply.content.decode(), r"<style|\sstyle=|<script(?![^>]*(src=|application/json))|\son\w+=", path
            )


class WouldTest(WebTest):
    def test_what_an_edit_would_change_is_told_and_nothing_is_kept(self) -> None:
        before = self.score()
        edit = {
            "do": "change slides",
            "slide_ids": ["esc-s"],
            "changes": {"advance": {"rule": "after", "after_ms": 20_000}},
        }
        told = self.post("/shows/clock/would", {"edit": edit, "viewing": "esc-s"}).json()
        self.assertEqual(told["slides"]["esc-s"]["schedule"]["length_ms"], 20_000)
        self.assertEqual(told["starts_ms"]["two-s"] - before["starts_ms"]["two-s"], 5000)
        self.assertEqual(told["viewing"]["slide"]["advance"]["after_ms"], 20_000)
        self.assertEqual(self.score(), before)

    def test_what_could_not_be_made_is_refused_alike(self) -> None:
        edit = {"do": "change slides", "slide_ids": ["gone"], "changes": {"name": "x"}}
        reply = self.post("/shows/clock/would", {"edit": edit})
        self.assertEqual((reply.status_code, "Nothing was changed." in reply.json()["error"]), (400, True))

    def test_a_library_sound_comes_onto_the_shelf_once(self) -> None:
        first = self.post("/shows/clock/shelf/library/bell").json()["asset"]
        again = self.post("/shows/clock/shelf/library/bell").json()["asset"]
        self.assertEqual((first["id"], first["licence"]), (again["id"], "CC0 1.0"))
        refused = self.post("/shows/clock/shelf/library/gong")
        self.assertEqual(
            (refused.status_code, refused.json()["error"]), (400, "There is no sound “gong” in the library.")
        )


class OwnersTest(WebTest):
    PATHS = (
        "/shows/clock/",
        "/shows/clock/score.json",
        "/shows/clock/slides/esc-s.json",
        "/shows/clock/media/waltz",
        "/shows/clock/media/waltz/v1/wave.json",
        "/shows/clock/media/waltz/v1/wave/25/0",
        "/shows/clock/media/waltz/v1/at/150",
        "/shows/clock/captions.vtt",
        "/shows/clock/media/waltz/v1/light",
        "/shows/clock/archive",
        "/shows/clock/play",
        "/shows/clock/performance.json",
        "/shows/clock/rehearse",
        "/shows/clock/release",
        "/shows/clock/films",
        "/shows/clock/films/x/file",
        "/shows/clock/thumbs/esc-s/0.png",
        "/shows/clock/slides/esc-s/ties.json",
    )
    POSTS = (
        "edit",
        "would",
        "undo",
        "redo",
        "shelf",
        "shelf/library/bell",
        "voices/pairs",
        "takes",
        "takes/1/use",
        "takes/1/remove",
        "editions",
        "films",
        "films/x/cancel",
        "films/x/again",
        "remove",
    )

    def test_somebody_elses_show_is_not_found_at_any_address(self) -> None:
        self.client.force_login(self.odo)
        for path in self.PATHS:
            self.assertEqual(self.client.get(path).status_code, 404, path)
        edit = {"revision": 0, "edit": {"do": "remove slides", "slide_ids": ["esc-s"]}, "events": [], "ended_ms": 1}
        for path in self.POSTS:
            self.assertEqual(self.post(f"/shows/clock/{path}", edit).status_code, 404, path)
        self.assertEqual(Show.objects.get(pk="clock").revision, 0)

    def test_nobody_gets_in_without_signing_in(self) -> None:
        self.client.logout()
        for path in self.PATHS:
            self.assertRedirects(self.client.get(path), f"/sign-in/?next={path}", fetch_redirect_response=False)

    def test_a_form_from_elsewhere_is_refused(self) -> None:
        from django.test import Client

        stranger = Client(enforce_csrf_checks=True)
        stranger.force_login(self.ines)
        self.assertEqual(stranger.post("/shows/clock/undo", "{}", content_type="application/json").status_code, 403)


class MeanwhileTest(WebTest):
    """Two editors of one show: Ines, and Pauwel, who was quicker."""

    def setUp(self) -> None:
        super().setUp()
        Invitation.objects.create(
            show=self.row,
            by=self.ines,
            person=self.odo,
            address="odo@orlmere.example",
            role="edit",
            accepted_at=timezone.now(),
        )
        self.other = Client()
        self.other.force_login(self.odo)

    def send(self, client: Client, where: str, **body: Any) -> Any:
        return client.post(f"/shows/clock/{where}", json.dumps(body), content_type="application/json")

    def theirs(self, edit: dict[str, Any], revision: int) -> Any:
        return self.send(self.other, "edit", revision=revision, edit=edit).json()

    def change(self, object_id: str, **changes: Any) -> dict[str, Any]:
        return {"do": "change objects", "slide_id": "esc-s", "object_ids": [object_id], "changes": changes}

    def item(self, object_id: str) -> Any:
        found = value_of(Show.objects.get(pk="clock")).slide("esc-s")
        assert found
        return found.object(object_id)

    def test_edits_of_different_things_are_both_made_and_each_answer_tells_of_the_other(self) -> None:
        self.theirs(self.change("wheel", opacity=0.5), 0)
        reply = self.edit(
            {"do": "change slides", "slide_ids": ["who-s"], "changes": {"name": "Who?"}}, revision=0
        ).json()
        self.assertEqual((reply["revision"], reply["since"], reply["overruled"]), (2, 0, []))
        self.assertEqual(set(reply["slides"]), {"esc-s", "who-s"})
        self.assertEqual(self.item("wheel").opacity, 0.5)

    def test_in_the_same_field_the_later_holds_and_both_are_told_who_changed_what(self) -> None:
        self.theirs(self.change("wheel", opacity=0.5), 0)
        reply = self.edit(self.change("wheel", opacity=0.25), revision=0).json()
        (entry,) = reply["overruled"]
        self.assertEqual(
            (entry["what"], entry["who"], entry["other"], entry["own"]),
            ("the opacity of “Wheel”", "odo", "0.5", "0.25"),
        )
        self.assertEqual(self.item("wheel").opacity, 0.25)
        reply = self.other.get("/shows/clock/changes.json?since=1&viewing=esc-s").json()
        self.assertEqual((reply["revision"], reply["whole"], list(reply["slides"])), (2, False, ["esc-s"]))
        self.assertEqual(reply["viewing"]["slide"]["id"], "esc-s")
        told = reply["overruled"]
        self.assertEqual(
            [(one["by"], one["what"], one["own"]) for one in told], [("ines", "the opacity of “Wheel”", "0.25")]
        )
        back = {"do": "put values", "values": [{"path": told[0]["path"], "value": told[0]["value"]}]}
        self.theirs(back, 2)
        self.assertEqual(self.item("wheel").opacity, 0.5)

    def test_what_others_changed_makes_the_score_of_now_of_an_earlier_one(self) -> None:
        known = self.score()
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}})
        self.edit({"do": "remove slides", "slide_ids": ["bell-s"]})
        self.edit({"do": "move slides", "slide_ids": ["thx-s"], "to": 0})
        reply = self.other.get("/shows/clock/changes.json?since=0").json()
        now = self.score()
        self.assertLess(len(reply["slides"]), len(now["slides"]))
        slides = {slide_id: reply["slides"].get(slide_id, known["slides"].get(slide_id)) for slide_id in reply["order"]}
        made = {**known, **{field: value for field, value in reply.items() if field in now}, "slides": slides}
        self.assertEqual({**made, "history": 0}, {**now, "history": 0})

    def test_the_slide_on_the_stage_comes_along_where_the_stage_shows_it_otherwise(self) -> None:
        def came(edit: dict[str, Any]) -> bool:
            since = Show.objects.get(pk="clock").revision
            self.edit(edit)
            reply = self.client.get(f"/shows/clock/changes.json?since={since}&viewing=esc-s").json()
            if "viewing" in reply:
                fresh = self.client.get("/shows/clock/slides/esc-s.json").json()
                self.assertEqual(reply["viewing"], fresh)
            return "viewing" in reply

        name = {"do": "change slides", "changes": {"name": "Tick"}}
        self.assertFalse(came({**name, "slide_ids": ["thx-s"]}), "far away")
        self.assertTrue(came({**name, "slide_ids": ["esc-s"]}), "itself")
        self.assertTrue(came({**name, "slide_ids": ["two-s"]}), "beside it")
        self.assertTrue(came({"do": "move slides", "slide_ids": ["thx-s"], "to": 0}), "its number")
        self.assertTrue(came({"do": "change theme", "theme": to_builtins(list(THEMES.values())[-1])}), "the theme")

    def test_where_the_log_does_not_reach_back_the_whole_score_comes_and_says_so(self) -> None:
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}})
        self.row.edits.all().delete()
        reply = self.client.get("/shows/clock/changes.json?since=0").json()
        self.assertTrue(reply["whole"])
        self.assertEqual(reply["slides"], self.score()["slides"])
        self.assertEqual(self.client.get("/shows/clock/changes.json?since=x").status_code, 400)

    def test_an_edit_of_what_was_removed_offers_to_bring_it_back_with_it(self) -> None:
        self.theirs({"do": "remove objects", "slide_id": "esc-s", "object_ids": ["wheel"]}, 0)
        edit = self.change("wheel", opacity=0.25)
        reply = self.edit(edit, revision=0)
        self.assertEqual(reply.status_code, 409)
        self.assertIn("odo removed “Wheel” meanwhile", reply.json()["error"])
        self.assertIsNone(self.item("wheel"))
        again = self.post("/shows/clock/edit", {"revision": 0, "edit": edit, "bring_back": reply.json()["gone"]})
        self.assertEqual(again.status_code, 200, again.content)
        self.assertEqual(self.item("wheel").opacity, 0.25)
        slide = value_of(Show.objects.get(pk="clock")).slide("esc-s")
        assert slide
        self.assertIn("wheel", [build.object_id for build in slide.order], "its builds are back, too")

    def test_what_is_wrong_with_an_edit_is_told_as_ever(self) -> None:
        self.theirs(self.change("wheel", opacity=0.5), 0)
        reply = self.edit(self.change("wheel", opacity=7), revision=0)
        self.assertEqual(reply.status_code, 400)
        self.assertNotIn("stale", reply.json())

    def test_undo_is_ones_own_and_leaves_what_the_other_did_since(self) -> None:
        self.edit(self.change("wheel", opacity=0.25))
        self.theirs(self.change("pallets", opacity=0.5), 1)
        reply = self.post("/shows/clock/undo", {"revision": 1}).json()
        self.assertEqual(reply["label"], "Change Wheel")
        self.assertEqual((self.item("wheel").opacity, self.item("pallets").opacity), (1.0, 0.5))
        self.assertEqual(set(reply["slides"]), {"esc-s"})
        self.assertEqual(reply["history"], {"undo": None, "redo": "Change Wheel"})
        self.theirs(self.change("pallets", opacity=0.6), 2)
        self.assertEqual(self.post("/shows/clock/redo", {}).status_code, 200, "another's edit does not end my redo")
        self.assertEqual((self.item("wheel").opacity, self.item("pallets").opacity), (0.25, 0.6))

    def test_undo_says_what_stays_since_another_has_changed_it(self) -> None:
        self.edit(self.change("wheel", opacity=0.25, locked=True))
        self.theirs(self.change("wheel", opacity=0.75), 1)
        reply = self.post("/shows/clock/undo", {}).json()
        self.assertEqual(reply["notices"], ["odo has changed the opacity of “Wheel” since; that stays."])
        self.assertEqual((self.item("wheel").opacity, self.item("wheel").locked), (0.75, False))

    def test_undo_and_redo_go_to_and_fro_whatever_the_other_does_between(self) -> None:
        self.edit(self.change("wheel", opacity=0.25))
        for turn in range(3):
            self.theirs(self.change("pallets", opacity=0.1 * (turn + 1)), 1 + 3 * turn)
            self.post("/shows/clock/undo")
            self.assertEqual(self.item("wheel").opacity, 1.0)
            self.post("/shows/clock/redo")
            self.assertEqual(self.item("wheel").opacity, 0.25)
        self.assertEqual(self.item("pallets").opacity, 0.1 * 3)

    def test_however_many_steps_were_made_all_of_them_are_undone_one_by_one(self) -> None:
        count = 12
        with mock.patch.object(history, "MOST_STEPS", 5):
            for number in range(count):
                self.edit(self.change("wheel", opacity=(number + 1) / 100))
            for number in reversed(range(count)):
                self.assertEqual(self.item("wheel").opacity, (number + 1) / 100)
                self.assertEqual(self.post("/shows/clock/undo", {}).json()["notices"], [])
        self.assertEqual(self.item("wheel").opacity, 1.0)
        self.assertEqual(self.post("/shows/clock/undo", {}).status_code, 400)

    def test_a_step_takes_little_room_in_the_log(self) -> None:
        for number in range(20):
            self.edit(self.change("wheel", opacity=number / 20))
        sizes = [len(step.changes) + len(step.inverse) for step in Edit.objects.all()]
        self.assertLess(sum(sizes) / len(sizes), 2048)
