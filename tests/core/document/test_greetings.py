from unittest import TestCase

import msgspec

from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.edits.greetings import PutGreeting, PutRecorded
from ritornel.core.document.sections import sections_of
from ritornel.core.document.show import AdvanceWithVoice, Asset, SlideEnd, SlideStart
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.schedule.performance import perform
from ritornel.demo.orlmere import orlmere

SHOW = orlmere()
FILM = Asset(
    "rec-film", "Recorded", "a" * 64, "video/webm", size_bytes=1000, width_px=640, height_px=480, lasts_ms=7000
)
VOICE = Asset("rec-voice", "Recorded", "b" * 64, "audio/flac", size_bytes=1000, lasts_ms=9000)


class GreetingTest(TestCase):
    def test_a_greeting_and_a_farewell_move_nothing_else(self) -> None:
        before = perform(SHOW)
        greeted = apply_edit(SHOW, PutGreeting("g", FILM, "before")).show
        both = apply_edit(greeted, PutGreeting("f", msgspec.structs.replace(FILM, id="rec-bye"), "after")).show
        after = perform(both)
        self.assertEqual([slide.id for slide in both.slides], ["g-s", *(slide.id for slide in SHOW.slides), "f-s"])
        self.assertEqual(after.schedule.length_ms, before.schedule.length_ms + 2 * 7600)
        (was,), (now,) = before.music, after.music
        self.assertEqual((now.start_ms, now.end_ms), (was.start_ms + 7600, was.end_ms + 7600))
        self.assertEqual((both.music[0].start, both.music[0].end), (SlideStart("noon-s"), SlideEnd("thx-s")))
        self.assertEqual([slide.schedule for slide in after.slides[1:-1]], [slide.schedule for slide in before.slides])
        names = [section.name for section in sections_of(both.slides)]
        self.assertEqual(
            names, ["Greeting", "The town", "How it keeps time", "The restoration", "Every hour", "Farewell"]
        )

    def test_slides_before_the_first_section_stay_without_one(self) -> None:
        slides = (msgspec.structs.replace(SHOW.slides[0], opens_section=""), *SHOW.slides[1:])
        greeted = apply_edit(msgspec.structs.replace(SHOW, slides=slides), PutGreeting("g", FILM, "before")).show
        self.assertEqual(sections_of(greeted.slides)[0].name, "")

    def test_undo_restores_the_show_exactly(self) -> None:
        outcome = apply_edit(SHOW, PutGreeting("g", FILM, "before"))
        self.assertEqual(apply_changes(outcome.show, outcome.inverse)[0], SHOW)

    def test_a_clip_recorded_onto_a_slide_holds_only_the_first_cue(self) -> None:
        slide = perform(apply_edit(SHOW, PutRecorded("esc-s", "r", FILM)).show).slides[2]
        times = {time.build_id: time for time in slide.schedule.builds}
        self.assertEqual((times["b-wheel"].offset_ms, times["b-axle"].offset_ms), (0, 300))
        self.assertEqual((times["r-c-b"].beat, times["r-c-b"].offset_ms, times["r-c-b"].lasts_ms), (0, 0, 7000))
        self.assertEqual(slide.schedule.beats[0].end_ms, 900 + 7000)

    def test_a_voice_recorded_for_a_slide_is_followed(self) -> None:
        slide = apply_edit(SHOW, PutRecorded("noon-s", "r", VOICE)).show.slides[0]
        assert slide.voice is not None
        self.assertEqual((slide.voice.out_ms, slide.advance), (9000, AdvanceWithVoice()))

    def test_what_is_no_clip_cannot_greet_and_no_slide_is_told(self) -> None:
        with self.assertRaisesRegex(BadValue, "“Recorded” is no clip."):
            apply_edit(SHOW, PutGreeting("g", VOICE, "before"))
        with self.assertRaises(UnknownName):
            apply_edit(SHOW, PutRecorded("nowhere", "r", FILM))
