import json
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from ritornel.core.formats.exports import EXPORTS
from ritornel.web.exchange.import_jobs import read
from ritornel.web.shows.models import Reading
from ritornel.web.shows.services import Show, media_path, value_of
from tests.web.base import WebTest


class FilesTest(WebTest):
    def upload(self, path: str, name: str, data: bytes) -> Any:
        return self.client.post(path, {"file": SimpleUploadedFile(name, data)})

    def test_words_times_and_schedule_are_saved_under_sensible_names(self) -> None:
        for path, name, words in (
            ("outline.md", "the-orlmere-clock.md", "# How it keeps time\n\n## The escapement"),
            ("timings.csv", "the-orlmere-clock-timings.csv", "2,Who winds it?,leaves,"),
            ("schedule.json", "the-orlmere-clock-schedule.json", '"length_ms": 82800'),
            ("captions.srt", "the-orlmere-clock.srt", ""),
            ("timeline.otio", "the-orlmere-clock.otio", '"OTIO_SCHEMA": "Timeline.1"'),
        ):
            reply = self.client.get(f"/shows/clock/{path}")
            self.assertIn(name, reply.headers["Content-Disposition"])
            self.assertIn(words, reply.content.decode())
        json.loads(self.client.get("/shows/clock/schedule.json").content)

    def test_timings_come_in_as_one_step_that_undo_takes_back(self) -> None:
        table = (
            self.client.get("/shows/clock/timings.csv")
            .content.decode()
            .replace("1,Orlmere at noon,,0.000,6.000,", "1,Orlmere at noon,,0.000,7.500,")
        )
        reply = self.upload("/shows/clock/timings", "times.csv", table.encode()).json()
        self.assertEqual(
            (reply["length"], reply["notices"], reply["history"]["undo"]), ("1:24.3", [], "Timings from times.csv")
        )
        self.post("/shows/clock/undo")
        self.assertEqual(self.score()["length_ms"], 82_800)

    def test_a_table_that_cannot_be_read_changes_nothing(self) -> None:
        before = self.score()
        reply = self.upload("/shows/clock/timings", "times.csv", b"slide,length_s\n1,soon\n")
        self.assertEqual((reply.status_code, self.score()), (400, before))
        self.assertIn("line 2: “soon” in the column length_s is no time in seconds", reply.json()["error"])

    def test_an_outline_becomes_a_show_whose_slides_last_as_long_as_reading_them_takes(self) -> None:
        reply = self.upload(
            "/shows/from-outline", "talk.md", b"# A talk\n\n## One\n\nSome words to read\n\n> Say it.\n\n![x](y.png)\n"
        ).json()
        self.assertEqual(reply["notices"], ["Left out of “talk.md”: pictures."])
        show = value_of(Show.objects.get(pk=reply["address"].strip("/").split("/")[-1], owner=self.ines))
        self.assertEqual((show.title, show.slides[1].name, show.slides[1].notes), ("A talk", "One", "Say it."))
        self.assertEqual(show.slides[1].advance.after_ms, 3167, "1.5 s and five words, a third of a second each")  # type: ignore[union-attr]

    def test_an_outline_is_looked_at_before_it_becomes_anything(self) -> None:
        count = Show.objects.count()
        data = {"file": SimpleUploadedFile("talk.md", b"# A talk\n\n## One\n\n![x](y.png)\n"), "look": "1"}
        plan = self.client.post("/shows/from-outline", data).json()
        self.assertEqual(
            plan, {"title": "A talk", "slides": 2, "media": 0, "losses": [{"slide": 0, "words": "pictures"}]}
        )
        self.assertEqual(Show.objects.count(), count)

    def test_a_show_goes_out_as_a_presentation_once_its_losses_are_known_and_comes_back(self) -> None:
        losses = self.client.get("/shows/clock/presentation.json").json()["losses"]
        self.assertIn({"slide": 0, "words": "music and ambience"}, losses)
        reply = self.client.get("/shows/clock/presentation.odp")
        self.assertIn("the-orlmere-clock.odp", reply.headers["Content-Disposition"])
        data = reply.content
        self.client.post("/shows/from-presentation", {"file": SimpleUploadedFile("clock.odp", data)})
        assets = read(Reading.objects.get().pk)
        show = value_of(Show.objects.get(pk=Reading.objects.get().show_id, owner=self.ines))
        self.assertEqual((show.title, len(show.slides), show.assets), ("The Orlmere clock", 9, assets))
        self.assertTrue(all(media_path(asset.sha256).is_file() for asset in assets))

    def test_a_show_with_a_missing_medium_is_not_saved_as_a_presentation(self) -> None:
        picture = next(asset for asset in value_of(Show.objects.get(pk="clock")).assets if asset.kind == "picture")
        path = media_path(picture.sha256)
        kept = path.read_bytes()
        path.unlink()
        try:
            reply = self.client.get("/shows/clock/presentation.odp")
        finally:
            path.write_bytes(kept)
        self.assertEqual(reply.status_code, 400)
        self.assertIn(
            f"“{picture.name}” is missing, so “The Orlmere clock” cannot be saved as a presentation.",
            reply.json()["error"],
        )

    def test_what_is_no_outline_makes_no_show(self) -> None:
        count = Show.objects.count()
        reply = self.upload("/shows/from-outline", "talk.md", b"only words")
        self.assertEqual((reply.status_code, Show.objects.count()), (400, count))
        self.assertIn("“talk.md” has no heading", reply.json()["error"])

    def test_nobody_else_gets_them(self) -> None:
        self.client.force_login(self.odo)
        for path in (*EXPORTS, "presentation.odp", "presentation.json"):
            self.assertEqual(self.client.get(f"/shows/clock/{path}").status_code, 404)
        self.assertEqual(self.upload("/shows/clock/timings", "t.csv", b"slide,length_s\n1,2\n").status_code, 404)
