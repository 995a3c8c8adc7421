"""The shelf, bringing things over, themes and starters through the server."""

import io
import json
from pathlib import Path
from typing import Any
from unittest.mock import patch

import msgspec
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from ritornel.demo.orlmere import orlmere
from ritornel.starters import STARTERS
from ritornel.web.config.atomic_files import atomic_folder
from ritornel.web.editor.loudness import measure
from ritornel.web.jobs.derived_files import make_once
from ritornel.web.library.browser_copies import make_light
from ritornel.web.library.thumbnails import make_thumbnail, thumbnail_path
from ritornel.web.library.waveforms import make_wave, wave_folder, wave_of, wave_part
from ritornel.web.shows.models import Slide
from ritornel.web.shows.services import Show, create_rows, media_path, value_of
from tests.footage import footage
from tests.web.base import WebTest


def png(colour: str = "#204060", size: tuple[int, int] = (300, 200)) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, colour).save(out, "PNG")
    return out.getvalue()


class BatchTest(WebTest):
    def add(self, name: str, data: bytes, batch: str = "") -> Any:
        return self.client.post(
            "/shows/clock/shelf", {"file": SimpleUploadedFile(name, data), "batch": batch, "folder": "Teeth"}
        )

    def test_files_of_one_batch_are_one_step_back_and_one_step_on_again(self) -> None:
        self.add("a.png", png("#000001"), "b1")
        self.add("b.png", png("#000002"), "b1")
        reply = self.add("c.png", png("#000003"), "b1").json()
        self.assertEqual(reply["history"]["undo"], "Put 3 files on the shelf")
        self.assertEqual(reply["asset"]["folder"], "Teeth")
        self.post("/shows/clock/undo")
        self.assertEqual(len(self.score()["assets"]), 6)
        self.post("/shows/clock/redo")
        self.assertEqual([asset["name"] for asset in self.score()["assets"]][-3:], ["a", "b", "c"])

    def test_an_edit_in_between_begins_another_step(self) -> None:
        self.add("a.png", png("#000001"), "b1")
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}})
        self.add("b.png", png("#000002"), "b1")
        self.post("/shows/clock/undo")
        self.assertEqual((len(self.score()["assets"]), self.score()["slides"]["esc-s"]["name"]), (7, "Tick"))

    def test_the_worker_makes_thumbnails_and_the_page_asks_which_are_there(self) -> None:
        with patch("ritornel.web.library.tasks.thumbnail") as asked:
            asset = self.add("a.png", png(size=(900, 300))).json()["asset"]
        asked.assert_called_once_with(asset["sha256"])
        self.assertEqual(self.client.get("/shows/clock/shelf/smalls.json").json()["ready"], [])
        make_thumbnail(asset["sha256"])
        self.assertEqual(Image.open(thumbnail_path(asset["sha256"])).size, (240, 80))
        self.assertEqual(self.client.get("/shows/clock/shelf/smalls.json").json()["ready"], [asset["id"]])
        self.assertEqual(self.client.get(asset["small"]).headers["Content-Type"], "image/webp")

    def test_what_cannot_be_read_gets_no_thumbnail_and_stops_nothing(self) -> None:
        path = media_path("ab" * 32)
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(b"nothing")
        with self.assertLogs("ritornel.web.jobs.derived_files", "WARNING"):
            make_thumbnail("ab" * 32)
        self.assertFalse(thumbnail_path("ab" * 32).exists())

    def test_the_uses_of_the_shelf_come_with_the_edits_that_change_them(self) -> None:
        self.assertEqual(self.score()["uses"]["dial"], ["dial-s"])
        reply = self.edit({"do": "remove objects", "slide_id": "dial-s", "object_ids": ["dial-p"]}).json()
        self.assertNotIn("dial", reply["uses"])
        self.assertNotIn(
            "uses", self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}}).json()
        )


class WaveTest(WebTest):
    ABOUT = "/shows/clock/media/waltz/v1/wave.json"

    def test_the_worker_makes_a_wave_and_the_page_reads_it_in_parts(self) -> None:
        with patch("ritornel.web.library.tasks.wave") as asked:
            about = self.client.get(self.ABOUT)
        self.assertEqual((about.json()["lasts_ms"], about.json()["done_ms"], about.json()["whole"]), (24_000, 0, False))
        self.assertEqual(about.headers["Cache-Control"], "no-store")
        asked.assert_called_once()
        self.assertEqual(self.client.get("/shows/clock/media/waltz/v1/wave/25/0").status_code, 404)
        make_wave(*asked.call_args.args)
        with patch("ritornel.web.library.tasks.wave") as again:
            about = self.client.get(self.ABOUT)
        again.assert_not_called()
        self.assertEqual(
            (about.json()["whole"], about.json()["levels"], len(about.json()["heard_ms"])), (True, [2, 25, 200], 2)
        )
        parts = [
            self.client.get(f"/shows/clock/media/waltz/v1/wave/{part}").content for part in ("2/0", "25/500", "200/0")
        ]
        self.assertEqual([len(part) for part in parts], [48, 100, 4800])
        self.assertEqual(self.client.get("/shows/clock/media/waltz/v1/wave/7/0").status_code, 404)

    def test_a_picture_has_no_wave(self) -> None:
        self.assertEqual(self.client.get("/shows/clock/media/bell/v1/wave.json").status_code, 404)

    def test_a_waveform_is_read_while_it_grows_and_begun_again_where_its_maker_was_killed(self) -> None:
        sha256 = "cd" * 32
        target = wave_folder(sha256)

        class Killed(BaseException):
            """As if the process ended here."""

        def grow(folder: Path) -> None:
            (folder / "about.json").write_bytes(b'{"lasts_ms": 9000, "done_ms": 60}')
            (folder / "25.u8").write_bytes(b"abc")
            self.assertEqual((wave_of(sha256).done_ms, wave_part(sha256, 25, 1)), (60, b"bc"))  # type: ignore[union-attr]
            raise Killed

        with self.assertRaises(Killed):
            make_once(target, grow, place=atomic_folder)
        self.assertIsNone(wave_of(sha256))
        self.assertEqual(list(target.parent.iterdir()), [])

    def test_what_has_no_sound_has_an_empty_waveform_and_nobody_waits_for_it(self) -> None:
        with self.assertLogs("ritornel.web.jobs.derived_files", "WARNING"):
            make_wave("ef" * 32, 1000)
        self.assertEqual((wave_of("ef" * 32).whole, wave_of("ef" * 32).lasts_ms), (True, 0))  # type: ignore[union-attr]


class HeavyClipTest(WebTest):
    def heavy(self) -> dict[str, Any]:
        """A clip in a form that browsers do not show."""
        reply = self.client.post(
            "/shows/clock/shelf", {"file": SimpleUploadedFile("old.mp4", footage(12, codec="mpeg4"))}
        ).json()
        self.assertIn("which browsers do not show", reply["notices"][-1])
        return reply["asset"]  # type: ignore[no-any-return]

    def on_a_slide(self, asset: dict[str, Any], **more: Any) -> None:
        box = {"x": 0, "y": 0, "width": 320, "height": 180}
        clip = {
            "kind": "clip",
            "id": f"c-{asset['id']}",
            "name": "Old",
            "box": box,
            "asset_id": asset["id"],
            "out_ms": asset["lasts_ms"],
            **more,
        }
        reply = self.edit({"do": "add objects", "slide_id": "esc-s", "objects": [clip]})
        self.assertEqual(reply.status_code, 200, reply.content)

    def test_browsers_are_given_its_lighter_copy_once_it_is_made(self) -> None:
        with patch("ritornel.web.library.tasks.light") as asked:
            asset = self.heavy()
            self.on_a_slide(asset)
            self.assertEqual((asset["heavy"], asset["shown"]), (True, f"{asset['address']}/v1/light"))
            self.assertEqual(self.client.get(asset["shown"]).status_code, 404)
            for _ in range(5):
                self.client.get(asset["shown"] + "?ask=1")
        self.assertEqual(
            [call.args for call in asked.call_args_list], [(asset["sha256"],)], "once, however often the page asks"
        )
        make_light(asset["sha256"])
        self.assertEqual(self.client.get(asset["shown"]).headers["Content-Type"], "video/mp4")
        self.assertEqual(self.client.get("/shows/clock/performance.json").json()["media"][asset["id"]], asset["shown"])

    def test_a_show_is_released_when_its_lighter_copies_are_there_and_gives_strangers_those(self) -> None:
        with patch("ritornel.web.library.tasks.light"):
            asset = self.heavy()
        self.assertEqual(
            self.post("/shows/clock/editions", {"audience": "anyone"}).status_code,
            200,
            "what lies on the shelf alone holds nothing up",
        )
        self.on_a_slide(asset)
        reply = self.post("/shows/clock/editions", {"audience": "anyone"})
        self.assertEqual((reply.status_code, "is still being made" in reply.json()["error"]), (400, True))
        make_light(asset["sha256"])
        address = (
            self.post("/shows/clock/editions", {"audience": "anyone"})
            .json()["address"]
            .removeprefix("http://testserver")
        )
        media = self.client.get(f"{address}2/performance.json").json()["media"][asset["id"]]
        self.assertTrue(media.endswith("-light.mp4"))
        self.assertEqual(self.client.get(f"{address}2/{media}").status_code, 200)


class CaptionsTest(WebTest):
    def test_a_file_is_read_and_nothing_changed_by_it(self) -> None:
        vtt = b"WEBVTT\n\n00:01.000 --> 00:02.000\nTick\n"
        reply = self.client.post("/shows/clock/captions", {"file": SimpleUploadedFile("x.vtt", vtt)})
        self.assertEqual(
            reply.json(), {"captions": [{"start_ms": 1000, "end_ms": 2000, "text": "Tick"}], "notices": []}
        )
        reply = self.client.post("/shows/clock/captions", {"file": SimpleUploadedFile("x.vtt", b"no captions")})
        self.assertEqual((reply.status_code, "holds no captions" in reply.json()["error"]), (400, True))
        self.assertEqual(self.client.post("/shows/clock/captions").status_code, 400)
        self.assertEqual(Show.objects.get(pk="clock").revision, 0)

    def test_the_captions_of_the_show_are_saved_under_its_name(self) -> None:
        reply = self.client.get("/shows/clock/captions.vtt")
        self.assertEqual(
            (reply.content, reply.headers["Content-Disposition"]),
            (b"WEBVTT\n", 'attachment; filename="the-orlmere-clock.vtt"'),
        )


class LoudnessTest(WebTest):
    def told(self, ask: bool = False) -> dict[str, Any]:
        return self.client.get(f"/shows/clock/loudness.json{'?ask=1' if ask else ''}").json()  # type: ignore[no-any-return]

    def test_the_worker_measures_a_show_once_for_each_sound_it_has(self) -> None:
        with patch("ritornel.web.editor.tasks.hearing") as asked:
            self.assertEqual(self.told(ask=True), {"ready": False, "target_lufs": -16.0})
            asked.assert_called_once_with("clock")
        measure(value_of(self.row))
        told = self.told()
        self.assertTrue(told["ready"])
        self.assertLess(told["lufs"], -16)
        self.assertAlmostEqual(told["lands_at_lufs"], -16, delta=0.5)
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "Tick"}})
        self.assertTrue(self.told()["ready"], "a name is not heard")
        self.edit({"do": "remove span", "span_id": "waltz-span"})
        self.assertFalse(self.told()["ready"])
        measure(value_of(Show.objects.get(pk="clock")))
        self.assertEqual((self.told()["lufs"], self.told()["peak_dbtp"]), (None, None), "silence")


class TempoTest(WebTest):
    def test_a_sound_at_another_speed_is_made_once_and_only_at_speeds_that_the_show_plays(self) -> None:
        box = {"x": 0, "y": 0, "width": 9, "height": 9}
        clip = {
            "kind": "clip",
            "id": "c-waltz",
            "name": "Waltz",
            "box": box,
            "asset_id": "waltz",
            "out_ms": 9,
            "rate_pct": 200,
        }
        Slide.objects.filter(slide_id="esc-s").update(body=json.dumps({"id": "esc-s", "objects": [clip]}).encode())
        first = self.client.get("/shows/clock/media/waltz/v1/at/200")
        self.assertEqual(
            (first.status_code, first.headers["Content-Type"], first.content[:4]), (200, "audio/flac", b"fLaC")
        )
        with patch("ritornel.web.library.browser_copies.run_confined") as made:
            self.client.get("/shows/clock/media/waltz/v1/at/200")
        made.assert_not_called()
        for path in ("waltz/v1/at/199", "waltz/v1/at/9", "waltz/v1/at/999", f"waltz/v1/at/{10**40}", "bell/v1/at/200"):
            self.assertEqual(self.client.get(f"/shows/clock/media/{path}").status_code, 404)


class BringTest(WebTest):
    def other(self) -> Show:
        row = Show(id="other", owner=self.ines)
        create_rows(
            row,
            msgspec.structs.replace(
                orlmere(), id="other", slides=orlmere().slides[:1], assets=orlmere().assets[:1], music=()
            ),
        )
        return row

    def test_slides_come_over_with_their_media_in_one_step(self) -> None:
        self.other()
        reply = self.post("/shows/other/bring", {"from": "clock", "slide_ids": ["bell-s", "two-s"], "at": 0})
        self.assertEqual(reply.status_code, 200, reply.content)
        score = self.client.get("/shows/other/score.json").json()
        self.assertEqual(
            [score["slides"][key]["name"] for key in score["order"]],
            ["Two wheels, two jobs", "The bell", "Orlmere at noon"],
        )
        self.assertEqual(
            sorted(asset["name"] for asset in score["assets"]),
            ["The going train", "The hour bell", "The tower at noon"],
        )
        self.assertEqual(score["history"]["undo"], "Bring 2 slides over from The Orlmere clock")
        self.post("/shows/other/undo")
        self.assertEqual(len(self.client.get("/shows/other/score.json").json()["assets"]), 1)

    def test_nothing_comes_from_a_show_of_somebody_else(self) -> None:
        self.other()
        Show.objects.filter(pk="clock").update(owner=self.odo)
        self.assertEqual(
            self.post("/shows/other/bring", {"from": "clock", "slide_ids": ["bell-s"], "at": 0}).status_code, 404
        )

    def test_slides_that_are_gone_are_told(self) -> None:
        self.other()
        reply = self.post("/shows/other/bring", {"from": "clock", "slide_ids": ["nowhere"], "at": 0})
        self.assertEqual(reply.status_code, 400)
        self.assertIn("Nothing was brought over", reply.json()["error"])


class StylesTest(WebTest):
    def test_a_theme_changes_every_thumbnail_and_the_slide_on_the_stage(self) -> None:
        before = self.score()
        theme = {
            **before["settings"]["theme"],
            "palette": {**before["settings"]["theme"]["palette"], "words": "#112233"},
        }
        reply = self.edit({"do": "change theme", "theme": theme}).json()
        self.assertEqual(set(reply["slides"]), set(before["order"]))
        self.assertTrue(all(reply["slides"][key]["thumb"] != before["slides"][key]["thumb"] for key in before["order"]))
        self.assertIn("#112233", str(reply["viewing"]["staged"]["drawing"]))

    def test_a_font_or_a_layout_that_does_not_exist_is_refused_and_nothing_changes(self) -> None:
        before = self.score()
        theme = {**before["settings"]["theme"], "body_family": "Papyrus"}
        for edit, words in (
            ({"do": "change theme", "theme": theme}, "no font family “Papyrus”"),
            ({"do": "change layout", "slide_ids": ["esc-s"], "layout": "mosaic"}, "no layout “mosaic”"),
        ):
            reply = self.edit(edit)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(words, reply.json()["error"])
        self.assertEqual(self.score(), before)

    def test_a_slide_is_previewed_in_a_theme_without_changing_it(self) -> None:
        before = self.score()
        reply = self.client.get("/shows/clock/slides/esc-s/theme/Night%20watch.png")
        picture = Image.open(io.BytesIO(reply.content))
        self.assertEqual(picture.size, (320, 180))
        self.assertLess(sum(picture.convert("RGB").getpixel((5, 90))), 150)  # type: ignore[arg-type]
        self.assertEqual(self.client.get("/shows/clock/slides/esc-s/theme/Papyrus.png").status_code, 404)
        self.assertEqual(self.score(), before)

    def test_the_stage_is_told_of_places_differences_and_what_is_hidden(self) -> None:
        self.edit({"do": "change layout", "slide_ids": ["esc-s"], "layout": "text and picture"})
        viewing = self.client.get("/shows/clock/slides/esc-s.json").json()
        self.assertEqual([place["name"] for place in viewing["places"]], ["heading", "words", "picture"])
        self.assertIn("wheel", viewing["away"])
        self.assertIn("lines", viewing["guides"])


class StartersTest(WebTest):
    def test_every_starter_becomes_a_show_of_ones_own_that_plays(self) -> None:
        for name, starter in STARTERS.items():
            reply = self.client.post("/shows/new", {"title": "", "starter": name})
            show = reply.headers["Location"].split("/")[2]
            performance = self.client.get(f"/shows/{show}/performance.json")
            self.assertEqual(performance.status_code, 200, name)
            self.assertGreater(performance.json()["length_ms"], 10_000)
            for asset in self.client.get(f"/shows/{show}/score.json").json()["assets"]:
                self.assertEqual(self.client.get(asset["address"]).status_code, 200, starter.title)

    def test_starters_are_seen_before_they_are_chosen(self) -> None:
        page = self.client.get("/shows/start?starter=lesson")
        self.assertContains(page, "How a pendulum keeps time")
        self.assertEqual(Image.open(io.BytesIO(self.client.get("/starters/window/0.png").content)).size, (360, 640))
        self.assertEqual(self.client.get("/shows/start?starter=nothing").status_code, 404)
        self.assertEqual(self.client.get("/starters/lesson/99.png").status_code, 404)
        self.assertEqual(self.client.post("/shows/new", {"starter": "nothing"}).status_code, 404)

    def test_slides_from_pictures_need_a_length_and_a_picture(self) -> None:
        for body, words in (({"each_ms": 0}, "needs a length"), ({"each_ms": "soon"}, "needs a length")):
            self.assertIn(words, self.post("/shows/clock/slides-from-pictures", body).json()["error"])
        blank = self.client.post("/shows/new", {"title": "Empty"}, headers={"Accept": "application/json"}).json()["id"]
        self.assertIn(
            "None of the files is a picture",
            self.post(f"/shows/{blank}/slides-from-pictures", {"each_ms": 4000}).json()["error"],
        )
        self.assertEqual(self.post("/shows/clock/slides-from-pictures", {"each_ms": 4000}).json()["slides"], 5)
        self.post("/shows/clock/undo")
        self.assertEqual(len(self.score()["order"]), 9)
