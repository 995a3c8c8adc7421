from ritornel.core.time.milliseconds import clock_text
from tests.web.base import WebTest


class ComparingTest(WebTest):
    def setUp(self) -> None:
        super().setUp()
        for stay in (7000, 9000):
            events = [
                {"event": "arrived", "slide_id": "noon-s", "at_ms": 0},
                {"event": "arrived", "slide_id": "who-s", "at_ms": stay},
            ]
            self.post("/shows/clock/takes", {"events": events, "ended_ms": stay + 10_000})

    def length(self) -> int:
        return int(self.score()["length_ms"])

    def test_takes_stand_side_by_side(self) -> None:
        found = self.client.get("/shows/clock/takes/compare.json").json()
        self.assertEqual([take["number"] for take in found["takes"]], [1, 2])
        noon = found["slides"][0]
        self.assertEqual(
            (noon["planned_ms"], noon["taken_ms"], noon["spread"]["median_ms"]), (6000, [7000, 9000], 8000)
        )
        self.assertEqual(len(self.client.get("/shows/clock/takes/compare.json?takes=2").json()["takes"]), 1)

    def test_trying_tells_and_changes_nothing(self) -> None:
        before = self.length()
        told = self.post("/shows/clock/takes/timing", {"source": None, "takes": [1, 2], "try": True}).json()
        self.assertEqual((told["timed_ms"] - before, self.length()), (2000, before))

    def test_the_median_is_taken_for_some_slides_and_undone_in_one_step(self) -> None:
        before = self.length()
        self.post("/shows/clock/takes/timing", {"source": None, "takes": [1, 2], "slides": ["noon-s"]})
        self.assertEqual(self.length(), before + 2000)
        self.post("/shows/clock/undo")
        self.assertEqual(self.length(), before)
        self.post("/shows/clock/takes/timing", {"source": 2, "slides": ["esc-s"]})
        self.assertEqual(self.length(), before)

    def test_a_target_that_cannot_be_met_is_told_with_the_nearest(self) -> None:
        told = self.post("/shows/clock/takes/timing", {"source": 1, "target_ms": 5000, "try": True}).json()
        self.assertIn(
            "0:05.0 cannot be met: what moves, clips and voices take their time. The nearest is "
            f"{clock_text(told['reached_ms'])}.",
            told["notices"],
        )
        self.assertTrue(told["gives"])

    def test_the_show_follows_a_timing_that_was_compared(self) -> None:
        on_cue = {"advance": {"rule": "cue", "cue_id": "noon-out", "hold_ms": None}}
        self.edit({"do": "change slides", "slide_ids": ["noon-s"], "changes": on_cue})
        events = [
            {"event": "arrived", "slide_id": "noon-s", "at_ms": 0},
            {"event": "cued", "cue_id": "noon-out", "at_ms": 8000, "waited_ms": 2345},
        ]
        self.post("/shows/clock/takes", {"events": events, "ended_ms": 9000})
        asked = {"source": 3, "as": "followed take"}
        self.assertEqual(self.post("/shows/clock/takes/timing", asked).status_code, 200)
        wait = self.score()["slides"]["noon-s"]["schedule"]["last_wait"]
        self.assertEqual((wait["hold_ms"], wait["source"]), (2345, "take"))
        reply = self.post("/shows/clock/takes/timing", {**asked, "target_ms": 60_000})
        self.assertEqual(reply.status_code, 400)
        self.assertIn("A show that follows a take keeps the take's times.", reply.json()["error"])
        self.assertEqual(self.score()["settings"]["follows_take"], "take 3")

    def test_what_is_asked_wrongly_is_told_and_nothing_changes(self) -> None:
        before = self.length()
        wrong = (
            ({"source": 9}, "One of these takes is no longer there."),
            ({"source": 1, "target_ms": -5}, "target_ms"),
            ({"source": 1, "whose": 2}, "whose"),
        )
        for body, words in wrong:
            reply = self.post("/shows/clock/takes/timing", body)
            self.assertEqual(reply.status_code, 400, body)
            self.assertIn(words, reply.json()["error"])
        self.assertEqual(self.length(), before)
        self.client.force_login(self.odo)
        self.assertEqual(self.client.get("/shows/clock/takes/compare.json").status_code, 404)
        self.assertEqual(self.post("/shows/clock/takes/timing", {"source": 1}).status_code, 404)
