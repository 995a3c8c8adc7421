import errno
import json
import os
from datetime import timedelta
from typing import Any
from unittest import mock

import numpy as np
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from ritornel.web.takes.models import Pick, Recording
from ritornel.web.takes.recording_files import sound_path
from tests.web.base import WebTest

BASE = "/shows/clock/record"
WINDOW, OTHER = "window-one", "window-two"


def speech(ms: int) -> bytes:
    """A tone of so many ms."""
    return (np.sin(np.arange(48 * ms) / 40) * 9000).astype("<i2").tobytes()


class RecordingWebTest(WebTest):
    """The show's owner at the Record page."""

    def begin(self, writer: str = WINDOW, **more: Any) -> Any:
        return self.post(f"{BASE}/begin", {"section": "esc-s", "writer": writer, **more})

    def more(self, recording: str, data: bytes = b"", **about: Any) -> Any:
        fields: dict[str, Any] = {"about": json.dumps({"writer": WINDOW, **about})}
        if data:
            fields["sound"] = SimpleUploadedFile("sound", data)
        return self.client.post(f"{BASE}/{recording}/more", fields)

    def recorded(self, escapes_ms: int = 3000, state: str = "ended") -> str:
        """A take of the section's two slides, the first `escapes_ms` long with a cue at 1 200, the second 2 000."""
        recording = str(self.begin().json()["id"])
        events = [
            {"event": "arrived", "slide_id": "esc-s", "at_ms": 0},
            {"event": "cued", "cue_id": "q-esc-1", "at_ms": 1200, "waited_ms": 100},
            {"event": "cued", "cue_id": "leave-esc-s", "at_ms": escapes_ms, "waited_ms": 0},
            {"event": "arrived", "slide_id": "two-s", "at_ms": escapes_ms},
        ]
        reply = self.more(recording, speech(escapes_ms + 2000), events=events, state=state)
        self.assertEqual(reply.json()["kept_ms"], escapes_ms + 2000)
        return recording

    def state(self) -> dict[str, Any]:
        return self.client.get(f"{BASE}.json?section=esc-s").json()  # type: ignore[no-any-return]


class RecordingTest(RecordingWebTest):
    def test_every_second_is_on_the_disk_before_it_is_answered(self) -> None:
        recording = self.begin().json()
        self.assertEqual((recording["number"], recording["bytes"]), (1, 0))
        for second in range(3):
            reply = self.more(recording["id"], speech(1000), at=second * 96_000)
            self.assertEqual(reply.json()["bytes"], (second + 1) * 96_000)
            self.assertEqual(sound_path(recording["id"]).stat().st_size, (second + 1) * 96_000)

    def test_what_is_sent_twice_changes_nothing_and_a_gap_is_told(self) -> None:
        recording = self.begin().json()["id"]
        self.more(recording, speech(1000))
        self.assertEqual(self.more(recording, speech(1000)).json()["bytes"], 96_000)
        self.assertEqual(self.more(recording, speech(2000), at=48_000).json()["bytes"], 240_000)
        reply = self.more(recording, speech(1000), at=500_000)
        self.assertEqual((reply.status_code, reply.json()["size"]), (409, 240_000))
        self.assertEqual(sound_path(recording).stat().st_size, 240_000)

    def test_a_recording_that_falls_silent_is_interrupted_and_can_be_gone_on_with(self) -> None:
        recording = self.recorded(state="recording")
        Recording.objects.update(heard_at=timezone.now() - timedelta(seconds=10))
        section = next(line for line in self.state()["sections"] if line["id"] == "esc-s")
        self.assertEqual(section["state"]["words"], "Interrupted at slide 4")
        again = self.begin(OTHER, go_on=recording).json()
        self.assertEqual(
            (again["id"], again["number"], again["bytes"], len(again["take"]["events"])), (recording, 1, 480_000, 4)
        )
        refused = self.more(recording, speech(100), at=480_000)
        self.assertEqual(
            (refused.status_code, refused.json()["error"][:50]),
            (400, "This take is being gone on with in another window."[:50]),
        )
        self.assertEqual(sound_path(recording).stat().st_size, 480_000)

    def test_two_recorders_of_one_section_are_kept_apart(self) -> None:
        self.recorded(state="recording")
        refused = self.begin(OTHER)
        self.assertEqual(refused.status_code, 400)
        self.assertIn(
            "You are recording this section right now, in another window. Nothing was begun", refused.json()["error"]
        )
        self.assertEqual(Recording.objects.count(), 1)
        Recording.objects.update(state="paused")
        self.assertEqual(self.begin(OTHER).json()["number"], 2)

    def test_a_full_disk_is_told_and_loses_nothing(self) -> None:
        recording = self.begin().json()["id"]
        self.more(recording, speech(1000))
        full = mock.patch(
            "ritornel.web.takes.recording_files.os.fsync", side_effect=OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))
        )
        with full, self.assertLogs("django.request"):
            reply = self.more(recording, speech(1000), at=96_000)
        self.assertEqual(reply.status_code, 507)
        self.assertIn("The server's disk is full. What was recorded so far is safe", reply.json()["error"])
        self.assertEqual(sound_path(recording).stat().st_size, 96_000)
        self.assertEqual(self.more(recording, speech(1000), at=96_000).json()["bytes"], 192_000)

    def test_a_new_piece_is_picked_until_another_is(self) -> None:
        first, second = self.recorded(), self.recorded(4000)
        self.assertEqual(self.state()["section"]["picks"], {"esc-s": [second, 0], "two-s": [second, 1]})
        before = self.post(f"{BASE}/pick", {"slide_id": "esc-s", "recording": first, "piece": 0}).json()["before"]
        self.assertEqual(before, {"slide_id": "esc-s", "recording": second, "piece": 0})
        self.assertEqual(self.state()["section"]["picks"]["esc-s"], [first, 0])
        self.post(f"{BASE}/pick", before)
        self.assertEqual(self.state()["section"]["picks"]["esc-s"], [second, 0])
        wrong = self.post(f"{BASE}/pick", {"slide_id": "esc-s", "recording": first, "piece": 1})
        self.assertEqual((wrong.status_code, Pick.objects.filter(slide_id="esc-s", recording=second).count()), (400, 1))

    def test_what_is_picked_becomes_voices_and_timing_and_undo_takes_it_back(self) -> None:
        before = self.score()
        first, second = self.recorded(), self.recorded(4000)
        self.post(f"{BASE}/pick", {"slide_id": "esc-s", "recording": first, "piece": 0})
        kept = self.post(f"{BASE}/keep?section=esc-s").json()
        self.assertEqual(kept["label"], "Keep what was recorded of How it keeps time")
        section = next(line for line in kept["sections"] if line["id"] == "esc-s")
        self.assertEqual((section["state"]["words"], section["picked_ms"]), ("Kept takes 1, 2", 5000))
        schedule = self.client.get("/shows/clock/schedule.json").json()
        escapement = next(slide for slide in schedule["slides"] if slide["slide_id"] == "esc-s")
        # The first beat, a little over two seconds of builds, is completed before the cue's.
        self.assertEqual(
            (escapement["voice"]["end_ms"], escapement["beats"][1]["wait"]["source"]), (3000, "voice mark")
        )
        self.post("/shows/clock/undo")
        self.assertEqual(self.score()["slides"], before["slides"])
        self.assertEqual(
            next(line for line in self.state()["sections"] if line["id"] == "esc-s")["state"]["words"],
            "Recorded, not yet kept",
        )
        self.assertTrue(second)

    def test_it_is_heard_as_picked_before_it_is_kept(self) -> None:
        self.recorded()
        revision = self.score()["revision"]
        found = self.client.get(f"{BASE}/picked.json?section=esc-s").json()
        self.assertEqual([voice["lasts_ms"] for voice in found["voices"]], [3000, 2000])
        media = self.client.get(found["media"][found["voices"][0]["asset_id"]])
        self.assertEqual((media.status_code, media["Content-Type"], b"".join(media)[:4]), (200, "audio/flac", b"fLaC"))
        self.assertEqual(self.score()["revision"], revision)

    def test_peaks_are_there_while_it_is_being_recorded(self) -> None:
        recording = self.recorded(state="recording")
        found = self.client.get(f"{BASE}/{recording}/peaks")
        self.assertEqual((len(found.content), found["X-Peaks-Per-Second"]), (125, "25"))
        self.assertEqual(max(found.content), 9000 * 255 // 32767)
        self.assertEqual(len(self.client.get(f"{BASE}/{recording}/peaks?from=100").content), 25)

    def test_a_take_is_put_away_and_brought_back(self) -> None:
        recording = self.recorded()
        self.post(f"{BASE}/{recording}/remove")
        self.assertEqual((self.state()["section"]["takes"], self.state()["section"]["picks"]), ([], {}))
        self.post(f"{BASE}/{recording}/remove", {"back": True})
        self.assertEqual(self.state()["section"]["picks"]["esc-s"], [recording, 0])

    def test_the_files_of_recordings_go_with_their_show(self) -> None:
        path = sound_path(self.recorded())
        self.assertTrue(path.is_file())
        self.client.post("/shows/clock/remove")
        self.assertTrue(path.is_file(), "in the bin everything is kept")
        self.client.post("/bin/clock/remove")
        self.assertFalse(path.parent.exists())

    def test_what_is_sent_wrongly_is_told_and_keeps_nothing(self) -> None:
        recording = self.begin().json()["id"]
        self.assertIn("samples of two bytes", self.more(recording, b"123").json()["error"])
        backwards = [
            {"event": "arrived", "slide_id": "esc-s", "at_ms": 900},
            {"event": "arrived", "slide_id": "two-s", "at_ms": 100},
        ]
        self.assertIn("out of order", self.more(recording, speech(1000), events=backwards).json()["error"])
        self.assertEqual(self.more(recording, first=3).status_code, 409)
        self.assertEqual(self.post(f"{BASE}/begin", {"section": "nowhere", "writer": WINDOW}).status_code, 400)
        self.client.force_login(self.odo)
        self.assertEqual(self.more(recording, speech(10)).status_code, 404)
        self.assertEqual(self.client.get(f"{BASE}/{recording}/peaks").status_code, 404)


class ClipTest(RecordingWebTest):
    def voice(self) -> str:
        recording = str(self.post(f"{BASE}/clip", {"writer": WINDOW}).json()["id"])
        self.more(recording, speech(2500), state="ended")
        return recording

    def test_a_voice_is_heard_and_then_put_onto_a_slide(self) -> None:
        recording = self.voice()
        heard = self.client.get(f"{BASE}/{recording}/clip")
        self.assertEqual((heard.status_code, heard["Content-Type"]), (200, "audio/flac"))
        placed = self.post(
            f"{BASE}/{recording}/place", {"role": "slide", "slide_id": "esc-s", "viewing": "esc-s"}
        ).json()
        self.assertEqual(
            (placed["label"], placed["viewing"]["slide"]["voice"]["out_ms"]),
            ("Record a voice for slide “The escapement”", 2500),
        )
        self.post("/shows/clock/undo")
        self.assertEqual(self.state()["section"]["takes"], [])

    def test_a_greeting_without_a_picture_is_refused_and_changes_nothing(self) -> None:
        before = self.score()
        reply = self.post(f"{BASE}/{self.voice()}/place", {"role": "greeting"})
        self.assertEqual((reply.status_code, self.score()["revision"]), (400, before["revision"]))
        self.assertIn("is no clip.", reply.json()["error"])

    def test_nothing_recorded_is_told(self) -> None:
        recording = self.post(f"{BASE}/clip", {"writer": WINDOW}).json()["id"]
        self.assertEqual(self.client.get(f"{BASE}/{recording}/clip").json()["error"], "Nothing was recorded yet.")
