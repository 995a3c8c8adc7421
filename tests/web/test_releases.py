import json
from datetime import timedelta
from pathlib import Path
from unittest import mock

import msgspec
from django.utils import timezone

from ritornel.core.document.decoding import from_json
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia, Cancelled, RitornelError
from ritornel.core.schedule.measurements import FrameAnalysis, TextContrast
from ritornel.core.schedule.performance import perform
from ritornel.web.editor.frame_analysis import known_analyses, look
from ritornel.web.jobs.lease_holder import Holder
from ritornel.web.releases import filming
from ritornel.web.releases.folders import edition_place
from ritornel.web.releases.models import WAITS_WORDS, FilmJob, Release
from ritornel.web.shows.services import Show, media_path, value_of
from tests.web.base import WebTest, held, lost


class ReleaseTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        self.state = self.post("/shows/clock/editions", {"audience": "anyone"}).json()
        self.path = "/" + self.state["address"].split("/", 3)[3]
        self.client.logout()

    def test_anybody_can_watch_without_signing_in(self) -> None:
        self.assertContains(self.client.get(self.path), "The Orlmere clock")
        show = self.client.get(self.path + "1/performance.json").json()
        self.assertEqual((len(show["slides"]), show["length_ms"]), (9, 82_800))
        for name in show["media"].values():
            self.assertEqual(self.client.get(self.path + "1/" + name).status_code, 200)

    def test_an_edition_is_unchanged_by_later_edits_and_a_new_one_keeps_the_address(self) -> None:
        before = self.client.get(self.path + "1/performance.json").content
        self.client.force_login(self.ines)
        self.edit({"do": "change show", "changes": {"title": "Something else"}})
        self.edit({"do": "remove slides", "slide_ids": ["noon-s"]})
        self.assertEqual(self.client.get(self.path + "1/performance.json").content, before)
        self.assertContains(self.client.get(self.path), "The Orlmere clock")
        state = self.post("/shows/clock/editions", {"audience": "anyone"}).json()
        self.assertEqual(
            (state["address"], [edition["number"] for edition in state["editions"]]), (self.state["address"], [2, 1])
        )
        self.assertContains(self.client.get(self.path), "Something else")
        self.assertEqual(self.client.get(self.path + "1/performance.json").content, before)

    def test_a_withdrawn_address_shows_nothing_and_can_be_reopened(self) -> None:
        self.client.force_login(self.ines)
        self.post("/shows/clock/release/settings", {"withdrawn": True})
        self.client.logout()
        media = json.loads((edition_place(Release.objects.get().address, 1) / "performance.json").read_bytes())[
            "media"
        ]["waltz"]
        for path in (self.path, self.path + "1/performance.json", self.path + "1/" + media):
            self.assertEqual(self.client.get(path).status_code, 404)
        self.client.force_login(self.ines)
        self.post("/shows/clock/release/settings", {"withdrawn": False})
        self.assertEqual(self.client.get(self.path).status_code, 200)

    def test_it_can_be_read_as_text_by_whoever_may_watch_it(self) -> None:
        self.assertContains(self.client.get(self.path), f'href="{self.path}transcript"')
        page = self.client.get(self.path + "transcript")
        self.assertContains(page, '<h2 class="text-xl" id="slide-3" dir="auto">3 The escapement</h2>')
        self.assertContains(page, '<p dir="auto">lets one tooth pass</p>')
        self.assertNotContains(page, "csrf")
        self.assertNotContains(page, "Left alone, the falling weight", msg_prefix="notes are the maker's own")
        self.client.force_login(self.ines)
        self.edit({"do": "change slides", "slide_ids": ["esc-s"], "changes": {"name": "</h2><b>Tick</b>"}})
        self.post("/shows/clock/editions", {"audience": "anyone"})
        page = self.client.get(self.path + "transcript")
        self.assertContains(page, "&lt;/h2&gt;&lt;b&gt;Tick")
        self.post("/shows/clock/release/settings", {"audience": "invited"})
        self.client.logout()
        self.assertNotContains(self.client.get(self.path + "transcript"), "lets one tooth pass", status_code=403)

    def test_addresses_that_are_guessed_are_not_found(self) -> None:
        for path in ("/s/0000000000000000/", self.path + "7/performance.json", self.path + "1/" + "0" * 64 + ".png"):
            self.assertEqual(self.client.get(path).status_code, 404)

    def test_it_may_stand_in_somebody_elses_page_and_nothing_else_may(self) -> None:
        page = self.client.get(self.path)
        self.assertIn("frame-ancestors *", page.headers["Content-Security-Policy"])
        self.assertNotIn("X-Frame-Options", page.headers)
        self.assertIn("frame-ancestors 'self'", self.client.get("/sign-in/").headers["Content-Security-Policy"])

    def test_a_missing_medium_stops_an_edition(self) -> None:
        self.client.force_login(self.ines)
        sha256 = self.score()["assets"][0]["sha256"]
        media_path(sha256).unlink()
        reply = self.post("/shows/clock/editions", {"audience": "anyone"})
        self.assertEqual(reply.status_code, 400)
        self.assertIn("“The tower at noon” is missing from the shelf", reply.json()["error"])

    def test_settings_that_do_not_exist_are_refused(self) -> None:
        self.client.force_login(self.ines)
        self.assertEqual(self.post("/shows/clock/release/settings", {"owner_id": 2}).status_code, 400)
        self.assertEqual(self.post("/shows/clock/release/settings", {"loops": "yes"}).status_code, 400)


class FilmTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        queue = mock.patch("ritornel.web.releases.views.film")
        self.queued = queue.start()
        self.addCleanup(queue.stop)

    def order(self, **more: object) -> FilmJob:
        reply = self.post("/shows/clock/films", {"kind": "mp4", "width_px": 160, "height_px": 90, "rate": "2", **more})
        self.assertEqual(reply.status_code, 200)
        return FilmJob.objects.get()

    def test_a_film_is_made_and_saved_under_a_sensible_name(self) -> None:
        job = self.order()
        self.queued.assert_called_once_with(job.id)
        self.make(job)
        job.refresh_from_db()
        self.assertEqual((job.state, job.done, job.found), ("ready", job.total, 0))
        self.assertGreater(job.total, 0)
        reply = self.client.get(f"/shows/clock/films/{job.id}/file")
        self.assertEqual(reply.headers["Content-Disposition"], 'attachment; filename="the-orlmere-clock-160x90.mp4"')
        self.assertEqual(len(reply.content), job.size_bytes)

    def test_pages_stills_and_an_animated_picture_are_made_like_films(self) -> None:
        wanted = (
            ({"kind": "pdf", "style": "beats"}, b"%PDF", 17, "the-orlmere-clock-beats.pdf", "application/pdf"),
            ({"kind": "zip"}, b"PK", 17, "the-orlmere-clock-stills-160x90.zip", "application/zip"),
            ({"kind": "webp"}, b"RIFF", 166, "the-orlmere-clock-160x90.webp", "image/webp"),
        )
        for order, begins, steps, name, media_type in wanted:
            job = self.order(**order)
            self.make(job)
            job.refresh_from_db()
            self.assertEqual((job.state, job.message, job.total), ("ready", "", steps))
            reply = self.client.get(f"/shows/clock/films/{job.id}/file")
            self.assertEqual((reply.content[: len(begins)], reply.headers["Content-Type"]), (begins, media_type))
            self.assertIn(name, reply.headers["Content-Disposition"])
            self.post(f"/shows/clock/films/{job.id}/remove")

    def held(self, job: FilmJob) -> str:
        """The token of a holder of the job."""
        FilmJob.objects.filter(pk=job.pk).update(state="waiting", cancel_wanted=False)
        token = FilmJob.claim(job.pk)
        assert token
        return token

    def make(self, job: FilmJob) -> None:
        """Makes the film in this process."""
        wanted = not FilmJob.objects.get(pk=job.pk).cancel_wanted
        token = self.held(job)
        FilmJob.objects.filter(pk=job.pk).update(cancel_wanted=not wanted)
        filming.make_film(job.pk, token)

    def test_pages_can_be_cancelled_like_films(self) -> None:
        job = self.order(kind="pdf")
        FilmJob.objects.update(cancel_wanted=True)
        self.make(job)
        job.refresh_from_db()
        self.assertEqual((job.state, filming.film_path(job).exists()), ("cancelled", False))

    def test_it_films_the_show_as_it_was_when_asked_for(self) -> None:
        job = self.order()
        self.edit({"do": "remove slides", "slide_ids": ["noon-s"]})
        with mock.patch.object(filming, "write_segmented_film") as write:
            write.side_effect = lambda scene, path, *rest: (
                path.write_bytes(b"x"),
                self.assertEqual(len(scene.show.slides), 9),
            )
            self.make(job)
        self.assertEqual(FilmJob.objects.get().state, "ready")

    def test_it_can_be_timed_by_a_take_while_the_show_stays_as_it_is(self) -> None:
        slides = self.score()["order"]
        events = [
            {"event": "arrived", "slide_id": slide, "at_ms": number * 11_000} for number, slide in enumerate(slides)
        ]
        self.assertEqual(self.post("/shows/clock/takes", {"events": events, "ended_ms": 99_000}).status_code, 200)
        before = self.score()
        job = self.order(take=1)
        self.assertEqual((job.timing, self.score()), ("take 1", before))
        filmed = perform(from_json(bytes(job.document), ShowValue, "")).schedule
        self.assertEqual([slide.length_ms for slide in filmed.slides if slide.slide_id == "noon-s"], [11_000])
        self.assertEqual(self.client.get("/shows/clock/films").json()["takes"], [{"number": 1, "name": "take 1"}])
        count = FilmJob.objects.count()
        reply = self.post("/shows/clock/films", {"take": 7})
        self.assertEqual((reply.status_code, FilmJob.objects.count()), (400, count))
        self.assertIn("There is no take 7 of “The Orlmere clock” any more. Nothing was begun.", reply.json()["error"])

    def test_cancelling_stops_a_waiting_film_at_once_and_a_running_one_at_its_next_report(self) -> None:
        job = self.order()
        self.post(f"/shows/clock/films/{job.id}/cancel")
        self.assertEqual(FilmJob.objects.get().state, "cancelled")
        token = self.held(job)
        FilmJob.objects.update(cancel_wanted=True)
        with self.assertRaises(Cancelled):
            Holder(FilmJob, job.id, token).report(1, 10, slide=1)
        FilmJob.finish(job.id, token, state="cancelled")
        self.post(f"/shows/clock/films/{job.id}/again")
        job = FilmJob.objects.get()
        self.assertEqual((job.state, job.cancel_wanted, self.queued.call_count), ("waiting", False, 2))

    def test_a_film_is_made_in_a_process_of_its_own_and_its_end_in_the_middle_is_told(self) -> None:
        job = self.order()
        with mock.patch.object(filming.subprocess, "run") as run:
            run.return_value.returncode = -9
            filming.film_apart(job.id)
            self.assertEqual(run.call_args.args[0][2:4], ["ritornel.web.releases.film_process", job.id])
            self.assertEqual(
                (FilmJob.objects.get().state, "stopped in the middle" in FilmJob.objects.get().message),
                ("failed", True),
            )
            filming.film_apart(job.id)
        run.assert_called_once()  # what is not waiting is not taken on

    def test_a_film_that_fails_says_why(self) -> None:
        job = self.order()
        with mock.patch.object(
            filming, "write_segmented_film", side_effect=RitornelError("The disk is full: free some space.")
        ):
            self.make(job)
        self.assertEqual(
            (FilmJob.objects.get().state, FilmJob.objects.get().message),
            ("failed", "The disk is full: free some space."),
        )

    def test_a_film_whose_worker_was_killed_says_so_and_can_be_started_again(self) -> None:
        job = self.order()
        FilmJob.objects.update(state="running", started_at=timezone.now(), **lost())
        (line,) = self.client.get("/shows/clock/films").json()["films"]
        self.assertEqual((line["state"], line["message"]), ("interrupted", WAITS_WORDS))
        self.post(f"/shows/clock/films/{job.id}/again")
        self.assertEqual(FilmJob.objects.get().state, "waiting")

    def test_time_left_is_judged_by_what_is_done(self) -> None:
        self.order()
        FilmJob.objects.update(
            state="running", started_at=timezone.now() - timedelta(seconds=10), done=25, total=100, **held()
        )
        (line,) = self.client.get("/shows/clock/films").json()["films"]
        self.assertAlmostEqual(line["left_s"], 30, delta=1)

    def test_what_an_earlier_run_had_done_says_nothing_of_how_quick_this_one_is(self) -> None:
        self.order()
        ago = timezone.now() - timedelta(seconds=10)
        FilmJob.objects.update(state="running", started_at=ago, done=80, found=70, total=100, **held())
        (line,) = self.client.get("/shows/clock/films").json()["films"]
        self.assertAlmostEqual(line["left_s"], 20, delta=1)
        FilmJob.objects.update(done=70)
        (line,) = self.client.get("/shows/clock/films").json()["films"]
        self.assertIsNone(line["left_s"])

    def test_films_that_cannot_be_are_refused(self) -> None:
        for body, words in (
            ({"kind": "gif"}, "is mp4, webm, webp, pdf, zip, not “gif”"),
            ({"kind": "pdf", "style": "posters"}, "Pages have slides, notes, beats, not “posters”."),
            ({"width_px": 161}, "161 px wide"),
            ({"rate": "fast"}, "must be numbers"),
            ({"rate": "0"}, "1 to 120"),
        ):
            reply = self.post("/shows/clock/films", body)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(words, reply.json()["error"])
        self.assertEqual(FilmJob.objects.count(), 0)


class LookedAtTest(WebTest):
    def checks(self, query: str = "") -> dict[str, object]:
        with mock.patch("ritornel.web.releases.views.ask_for_looks") as asked:
            told = self.client.get(f"/shows/clock/checks.json{query}").json()
        self.assertEqual(asked.call_count, 1 if query and told["looking"] else 0)
        return told  # type: ignore[no-any-return]

    def test_slides_are_looked_at_by_the_worker_and_again_only_where_they_look_different(self) -> None:
        self.assertEqual(self.checks("?ask=1")["looking"], 9)
        look(value_of(self.row))
        told = self.checks()
        self.assertEqual(told["looking"], 0)
        found = [finding["id"] for finding in told["findings"]]  # type: ignore[attr-defined]
        self.assertEqual(found, ["holds:who-s", "reading:thx-s"], "the two that teach; its frames add none")
        self.edit(
            {"do": "change objects", "slide_id": "esc-s", "object_ids": ["ticks"], "changes": {"colour": "#f4efe4"}}
        )
        # The slide itself, and the one that comes from it.
        self.assertEqual(self.checks("?ask=1")["looking"], 2)
        look(value_of(Show.objects.get(pk="clock")))
        found = next(finding for finding in self.checks()["findings"] if finding["id"] == "contrast:esc-s:ticks")  # type: ignore[attr-defined]
        self.assertEqual(found["fix"]["words"], "Set it in ink")

    def test_a_slide_that_its_process_falls_over_keeps_no_other_from_being_looked_at(self) -> None:
        asked: list[list[str]] = []

        def falls_over(
            work: object, document: bytes, wanted: list[tuple[str, Path]], media: object, **_: object
        ) -> None:
            asked.append([slide_id for slide_id, _ in wanted])
            for slide_id, target in wanted:
                if slide_id in ("esc-s", "bell-s"):
                    raise BadMedia("its reader stopped in the middle")
                target.write_bytes(msgspec.json.encode(FrameAnalysis(contrasts=(TextContrast("x", 1.0, 4.5),))))

        show = value_of(self.row)
        with mock.patch("ritornel.web.editor.frame_analysis.run_confined", falls_over):
            look(show)
        seen, left = known_analyses(show)
        self.assertEqual((left, len(asked)), (0, 3), "once for all, and once after each that fell over")
        self.assertEqual([slide_id for slide_id, one in seen.items() if not one.contrasts], ["esc-s", "bell-s"])


class ChecksTest(WebTest):
    def test_a_fix_is_seen_before_it_is_made_and_nothing_is_changed_by_looking(self) -> None:
        before = self.score()
        told = self.client.get("/shows/clock/checks/fix.json?finding=reading:thx-s").json()
        self.assertEqual(
            told["words"], "Slide 9 lasts 13.3 s instead of 8.0 s. The show lasts 1:28.1 instead of 1:22.8."
        )
        self.assertIsNone(told["picture"], "it looks as it did")
        self.assertEqual(self.score(), before)
        reply = self.client.get("/shows/clock/checks/fix.json?finding=reading:nothing")
        self.assertEqual((reply.status_code, reply.json()["error"]), (400, "That finding is no longer there."))

    def test_a_fix_that_changes_how_a_slide_looks_shows_it(self) -> None:
        self.edit(
            {"do": "change objects", "slide_id": "esc-s", "object_ids": ["ticks"], "changes": {"colour": "#f4efe4"}}
        )
        look(value_of(Show.objects.get(pk="clock")))
        told = self.client.get("/shows/clock/checks/fix.json?finding=contrast:esc-s:ticks").json()
        self.assertTrue(told["picture"].startswith("data:image/webp;base64,"))
        self.assertEqual(told["words"], "Nothing becomes longer or shorter.")

    def test_findings_come_with_their_places_and_a_fix_is_an_edit_like_any_other(self) -> None:
        told = self.client.get("/shows/clock/checks.json").json()
        finding = next(entry for entry in told["findings"] if entry["id"] == "holds:who-s")
        self.assertEqual(
            (finding["severity"], finding["number"], finding["thumb"].startswith("/shows/clock/thumbs/who-s/")),
            ("hurts", 2, True),
        )
        self.assertEqual(self.edit(finding["fix"]["edit"], told["revision"]).status_code, 200)
        self.assertNotIn(
            "holds:who-s", [entry["id"] for entry in self.client.get("/shows/clock/checks.json").json()["findings"]]
        )
        self.post("/shows/clock/undo")
        self.assertIn(
            "holds:who-s", [entry["id"] for entry in self.client.get("/shows/clock/checks.json").json()["findings"]]
        )

    def aside(self) -> dict[str, str]:
        told = self.client.get("/shows/clock/checks.json").json()["findings"]
        return {entry["id"]: entry["aside"] for entry in told if entry["aside"] is not None}

    def test_a_finding_is_set_aside_with_a_reason_and_brought_back(self) -> None:
        put = self.post("/shows/clock/checks/aside", {"finding": "holds:who-s", "reason": " We say it aloud. "})
        self.assertEqual(put.json(), {"aside": "We say it aloud."})
        self.assertEqual(self.aside(), {"holds:who-s": "We say it aloud."})
        self.post("/shows/clock/checks/aside", {"finding": "holds:who-s"})
        self.assertEqual(self.aside(), {})

    def test_without_a_reason_nothing_is_set_aside(self) -> None:
        for body, words in (
            ({"finding": "holds:who-s", "reason": "  "}, "Say in a few words why it may stay as it is."),
            ({"finding": "holds:gone", "reason": "So."}, "no longer there"),
            (
                {"finding": "holds:who-s", "reason": "x" * 301},
                "The reason has 301 characters; at most 300 can be kept.",
            ),
        ):
            reply = self.post("/shows/clock/checks/aside", body)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(words, reply.json()["error"])
        self.assertEqual(self.aside(), {})

    def test_a_missing_medium_is_found(self) -> None:
        asset = Show.objects.get(pk="clock").assets.get(asset_id="works")
        sha256 = json.loads(bytes(asset.body))["sha256"]
        media_path(sha256).unlink()
        found = [
            entry
            for entry in self.client.get("/shows/clock/checks.json").json()["findings"]
            if entry["check"] == "missing"
        ]
        self.assertEqual([entry["severity"] for entry in found], ["stops"])

    def test_nobody_else_may_ask_or_set_aside(self) -> None:
        self.client.force_login(self.odo)
        self.assertEqual(self.client.get("/shows/clock/checks.json").status_code, 404)
        self.assertEqual(
            self.post("/shows/clock/checks/aside", {"finding": "holds:who-s", "reason": "So."}).status_code, 404
        )


class TakesTest(WebTest):
    EVENTS = [
        {"event": "arrived", "slide_id": "noon-s", "at_ms": 0},
        {"event": "arrived", "slide_id": "who-s", "at_ms": 7000},
        {"event": "cued", "cue_id": "q-who-1", "at_ms": 9000, "waited_ms": 700},
    ]

    def test_a_run_is_kept_and_its_timing_used_and_taken_back(self) -> None:
        before = self.score()
        take = self.post("/shows/clock/takes", {"events": self.EVENTS, "ended_ms": 12_000}).json()
        self.assertEqual(
            (take["name"], take["length_ms"], take["slides"][0]["ms"], take["slides"][1]["holds_ms"]),
            ("take 1", 12_000, 7000, [700, None, None]),
        )
        reply = self.post("/shows/clock/takes/1/use").json()
        self.assertEqual(reply["history"]["undo"], "Use the timing of take 1")
        after = self.score()
        self.assertEqual(after["slides"]["noon-s"]["schedule"]["length_ms"], 7000)
        self.assertEqual(after["slides"]["who-s"]["schedule"]["beats"][1]["wait"]["hold_ms"], 700)
        self.assertEqual(after["slides"]["who-s"]["advance"]["rule"], "cue")
        self.post("/shows/clock/undo")
        self.assertEqual({**self.score(), "revision": 0, "history": 0}, {**before, "revision": 0, "history": 0})

    def test_a_take_in_the_bin_is_not_listed_and_keeps_its_number(self) -> None:
        body = {"events": self.EVENTS, "ended_ms": 12_000}
        self.post("/shows/clock/takes", body)
        take = self.post("/shows/clock/takes/1/remove").json()["in_bin"]
        self.assertEqual(self.post("/shows/clock/takes/1/use").status_code, 404)
        self.assertEqual(self.post("/shows/clock/takes", body).json()["name"], "take 2")
        self.post(f"/shows/clock/bin/take/{take}/back")
        self.assertEqual([take.number for take in self.row.takes.all()], [2, 1])

    def test_takes_that_cannot_be_are_refused(self) -> None:
        for body, words in (
            ({"events": self.EVENTS, "ended_ms": 10}, "out of order"),
            ({"events": [], "ended_ms": -4}, "ended_ms"),
            ({"ended_ms": 4}, "events"),
            ({"events": [{"event": "sneezed"}], "ended_ms": 4}, "sneezed"),
        ):
            reply = self.post("/shows/clock/takes", body)
            self.assertEqual(reply.status_code, 400)
            self.assertIn(words, reply.json()["error"])
