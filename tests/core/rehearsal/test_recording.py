from unittest import TestCase

import msgspec

from ritornel.core.checks import find_problems
from ritornel.core.document.camera import Placement, camera_box
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.edits import ReorderSlides, apply_edit
from ritornel.core.document.objects import Box, Clip
from ritornel.core.document.show import AdvanceAfter, AdvanceOnCue, AdvanceWithVoice, Asset
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.layout.clear_place import clear_place, covers_words
from ritornel.core.layout.drawing import scenery_of
from ritornel.core.reference.live import next_step, stand, waits_since_ms
from ritornel.core.rehearsal.recording import (
    SectionProgress,
    SectionState,
    as_recorded,
    find_misfits,
    leaving_cues,
    pieces_of,
    recordable_sections,
    section_state,
    section_with,
)
from ritornel.core.rehearsal.selected_takes import Picked, find_clear_places, keep_edit, kept_slides
from ritornel.core.rehearsal.take import Arrived, Cued, Take
from ritornel.core.schedule.performance import frame_state_at, perform
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.demo.narrated import told
from ritornel.demo.orlmere import orlmere

SHOW = orlmere()
TAKE = Take(
    (
        Arrived("esc-s", 0),
        Cued("q-esc-1", 4200, 900),
        Cued("q-esc-2", 7000, 0),
        Cued("leave-esc-s", 9400, 500),
        Arrived("two-s", 9400),
        Cued("q-two-1", 12_400, 100),
    ),
    15_400,
)
"""A take of the section “How it keeps time”: the escapement for 9.4 s, and two wheels, not left, for 6 s."""


def sound(lasts_ms: int, asset_id: str = "rec-a") -> Asset:
    return Asset(asset_id, "A piece", "a" * 64, "audio/flac", size_bytes=1000, lasts_ms=lasts_ms)


class RecordingTest(TestCase):
    def test_a_show_without_sections_is_recorded_whole(self) -> None:
        plain = msgspec.structs.replace(
            SHOW, slides=tuple(msgspec.structs.replace(slide, opens_section="") for slide in SHOW.slides)
        )
        (whole,) = recordable_sections(plain)
        self.assertEqual(len(whole.slide_ids), 9)
        with self.assertRaisesRegex(UnknownName, "no section with the slide “nowhere”"):
            section_with(SHOW, "nowhere")

    def test_recorded_slides_leave_on_a_cue_and_are_silent(self) -> None:
        recorded = as_recorded(told(), section_with(told(), "esc-s"))
        performance = perform(recorded)
        self.assertEqual([slide.id for slide in recorded.slides], ["esc-s", "two-s"])
        self.assertTrue(all(isinstance(slide.advance, AdvanceOnCue) for slide in recorded.slides))
        self.assertEqual((performance.music, performance.events), ((), ()))
        # The last slide waits for its cue as every other does, and the wait is measured.
        last = stand(performance, 1, len(performance.slides[1].schedule.beats) - 1, 0)
        self.assertEqual((next_step(performance, last), waits_since_ms(performance, last, 1700)), ("black", 1700))

    def test_pieces_are_cut_at_arrivals_and_timed_on_the_slides_clock(self) -> None:
        first, second = pieces_of(TAKE, leaving_cues(SHOW))
        self.assertEqual(
            (first.from_ms, first.lasts_ms, first.cues, first.whole),
            (0, 9400, {"q-esc-1": 4200, "q-esc-2": 7000}, True),
        )
        self.assertEqual(
            (second.from_ms, second.lasts_ms, second.cues, second.whole), (9400, 6000, {"q-two-1": 3000}, False)
        )
        self.assertEqual(first.waits["q-esc-2"], 0)

    def test_what_came_after_the_last_sound_was_never_recorded(self) -> None:
        cut_off = msgspec.structs.replace(TAKE, ended_ms=8000)
        (only,) = pieces_of(cut_off, leaving_cues(SHOW))
        self.assertEqual((only.lasts_ms, only.whole), (8000, False))

    def test_a_recording_is_matched_by_slide_and_what_no_longer_fits_is_told(self) -> None:
        pieces = pieces_of(TAKE, leaving_cues(SHOW))
        moved = apply_edit(SHOW, ReorderSlides(("two-s",), 0)).show
        self.assertEqual(find_misfits(moved, pieces), ())
        left = tuple(
            msgspec.structs.replace(slide, order=slide.order[:3]) for slide in SHOW.slides if slide.id != "two-s"
        )
        told_of = find_misfits(msgspec.structs.replace(SHOW, slides=left), pieces)
        self.assertEqual(
            told_of, ("1 slide of it is no longer in the show.", "1 cue of it is no longer on slide “The escapement”.")
        )


class KeepTest(TestCase):
    def keep(self, show=SHOW, **more):  # type: ignore[no-untyped-def]
        pieces = pieces_of(TAKE, leaving_cues(show))
        picks = {
            piece.slide_id: Picked(piece, sound(piece.lasts_ms, f"rec-{piece.number}"), **more) for piece in pieces
        }
        return picks, apply_edit(show, keep_edit(show, picks, "the section"))

    def test_cues_and_lengths_become_the_slides_timing_exactly(self) -> None:
        _, outcome = self.keep()
        schedule = {slide.slide_id: slide for slide in compile_show(outcome.show).slides}
        self.assertEqual([beat.start_ms for beat in schedule["esc-s"].beats][1:], [4200, 7000])
        self.assertEqual((schedule["esc-s"].length_ms, schedule["esc-s"].extended_ms), (9400, 0))
        self.assertEqual((schedule["two-s"].beats[1].start_ms, schedule["two-s"].length_ms), (3000, 7400))

    def test_how_a_slide_advances_is_kept(self) -> None:
        _, outcome = self.keep()
        kept = {slide.id: slide.advance for slide in outcome.show.slides}
        self.assertEqual(kept["esc-s"], AdvanceAfter(9400))
        self.assertIsInstance(kept["two-s"], AdvanceOnCue)
        _, outcome = self.keep(told())
        self.assertEqual({slide.id: slide.advance for slide in outcome.show.slides}["esc-s"], AdvanceWithVoice(0))
        self.assertEqual(
            {slide.slide_id: slide.length_ms for slide in compile_show(outcome.show).slides}["esc-s"], 9400
        )

    def test_undo_restores_the_show_exactly(self) -> None:
        _, outcome = self.keep()
        back, _ = apply_changes(outcome.show, outcome.inverse)
        self.assertEqual(back, SHOW)

    def test_keeping_another_piece_takes_the_old_one_off_the_shelf(self) -> None:
        _, outcome = self.keep()
        picks = {"esc-s": Picked(pieces_of(TAKE, leaving_cues(SHOW))[0], sound(9000, "rec-9"))}
        again = apply_edit(outcome.show, keep_edit(outcome.show, picks, "it")).show
        self.assertEqual([asset.id for asset in again.assets if asset.id.startswith("rec-")], ["rec-1", "rec-9"])
        self.assertEqual(kept_slides(again, {"esc-s": "rec-9", "two-s": "rec-8"}), ("esc-s",))

    def test_a_camera_stands_where_it_was_put_and_plays_with_the_voice(self) -> None:
        film = Asset(
            "rec-c", "Camera", "b" * 64, "video/webm", size_bytes=1000, width_px=320, height_px=320, lasts_ms=9000
        )
        placement = Placement("round", 86, 74, 20)
        box = camera_box(SHOW.frame, placement)
        self.assertAlmostEqual(box.x, 972.8)
        self.assertAlmostEqual(box.y, 404.8)
        picks = {"esc-s": Picked(pieces_of(TAKE, leaving_cues(SHOW))[0], sound(9000), film, placement)}
        slide = apply_edit(SHOW, keep_edit(SHOW, picks, "it")).show.slide("esc-s")
        assert slide is not None
        clip = slide.objects[-1]
        assert isinstance(clip, Clip)
        self.assertEqual(
            (clip.in_ms, clip.out_ms, clip.muted, clip.corner_px, clip.with_slide), (0, 9000, True, 128.0, True)
        )
        self.assertNotIn(clip.id, [build.object_id for build in slide.order])
        self.assertEqual(clip.box, Box(box.x, box.y, 256, 256))
        kept = apply_edit(SHOW, keep_edit(SHOW, picks, "it")).show
        again = apply_edit(kept, keep_edit(kept, picks, "it")).show.slide("esc-s")
        assert again is not None
        self.assertEqual([item.name for item in again.objects].count("Camera"), 1)

    def test_a_camera_that_would_cover_words_of_a_slide_steps_aside_there(self) -> None:
        film = Asset(
            "rec-c", "Camera", "b" * 64, "video/webm", size_bytes=1000, width_px=320, height_px=320, lasts_ms=9000
        )
        for shape in ("round", "rectangle"):
            over_the_heading = Placement(shape, 20, 15, 30)  # type: ignore[arg-type]
            picks = {"esc-s": Picked(pieces_of(TAKE, leaving_cues(SHOW))[0], sound(9000), film, over_the_heading)}
            kept = apply_edit(SHOW, keep_edit(SHOW, picks, "it")).show
            slide = kept.slide("esc-s")
            assert slide is not None
            *others, clip = slide.objects
            assert isinstance(clip, Clip)
            self.assertTrue(covers_words(camera_box(SHOW.frame, over_the_heading), others, scenery_of(kept)))
            self.assertFalse(covers_words(clip.box, others, scenery_of(kept)))
            self.assertEqual(clip.corner_px, clip.box.width / 2 if shape == "round" else 12.0)
            # As large as it was placed, where there is room for that, and as high for its width.
            proportion = 1.0 if shape == "round" else 0.75
            rest = msgspec.structs.replace(slide, objects=tuple(others))
            self.assertEqual(clip.box, clear_place(rest, SHOW.frame, scenery_of(kept), proportion, 30))
            self.assertEqual([one.check for one in find_problems(kept) if one.check == "clip over words"], [])
            # Record shows it there before it is recorded, and again when it already stands there.
            for show in (SHOW, kept):
                self.assertEqual(find_clear_places(show, over_the_heading, ("esc-s",)), {"esc-s": clip.box})

    def test_a_camera_steps_aside_on_no_slide_where_it_covers_no_words_or_is_not_on_the_slide(self) -> None:
        everywhere = [slide.id for slide in SHOW.slides]
        self.assertEqual(find_clear_places(SHOW, Placement("round", 86, 74, 5), ("esc-s",)), {})
        for shape in ("apart", "off"):
            over_the_heading = Placement(shape, 20, 15, 30)  # type: ignore[arg-type]
            self.assertEqual(find_clear_places(SHOW, over_the_heading, everywhere), {})

    def test_the_camera_moves_while_its_slide_comes_in_and_stands_when_it_ends_before_the_voice(self) -> None:
        film = Asset(
            "rec-c", "Camera", "b" * 64, "video/webm", size_bytes=1000, width_px=320, height_px=320, lasts_ms=4270
        )
        picks = {"esc-s": Picked(pieces_of(TAKE, leaving_cues(SHOW))[0], sound(9000), film, Placement("round"))}
        kept = apply_edit(SHOW, keep_edit(SHOW, picks, "it")).show
        staged = perform(kept)
        index = staged.schedule.index_of("esc-s")
        start = staged.schedule.starts_ms[index]
        self.assertGreater(staged.schedule.slides[index].transition_ms, 300)

        def played(slide_ms: float) -> float | None:
            layer = next(layer for layer in frame_state_at(staged, start + slide_ms).layers if layer.index == index)
            return dict(layer.objects)["rec-esc-s", None].played

        self.assertEqual([played(0), played(300), played(4270), played(8000)], [0, 300 / 4270, 1, 1])
        finding = next(finding for finding in find_problems(kept) if finding.check == "camera")
        self.assertEqual(finding.title, "The picture of “Camera” ends 4.73 s before the voice")

    def test_nothing_picked_and_empty_pieces_are_refused(self) -> None:
        with self.assertRaisesRegex(BadValue, "Nothing is picked that could be kept."):
            keep_edit(SHOW, {}, "it")
        empty = pieces_of(Take((Arrived("esc-s", 0),), 0))[0]
        with self.assertRaisesRegex(BadValue, "The piece that is picked for slide “The escapement” is empty."):
            keep_edit(SHOW, {"esc-s": Picked(empty, sound(1))}, "it")


class SectionStateTest(TestCase):
    def test_the_most_pressing_is_told(self) -> None:
        cases = (
            (SectionProgress(slides=2), SectionState("nothing", "Not yet recorded")),
            (SectionProgress(slides=4), SectionState("nothing", "Not yet recorded")),
            (SectionProgress(slides=4, who="Odo Lint"), SectionState("waiting", "Waiting for Odo Lint")),
            (
                SectionProgress(slides=4, picked=2, takes=1, progress="ended"),
                SectionState("partly", "2 of 4 slides recorded"),
            ),
            (
                SectionProgress(slides=4, picked=2, takes=1, progress="paused", at_slide=8),
                SectionState("paused", "Paused at slide 8"),
            ),
            (
                SectionProgress(slides=4, picked=2, takes=1, progress="interrupted", at_slide=8),
                SectionState("paused", "Interrupted at slide 8"),
            ),
            (
                SectionProgress(slides=2, picked=2, picked_ms=80_000, plan_ms=60_000, progress="ended"),
                SectionState("long", "Too long by 0:20"),
            ),
            (
                SectionProgress(slides=2, picked=2, picked_ms=61_000, plan_ms=60_000, progress="ended"),
                SectionState("ready", "Recorded, not yet kept"),
            ),
            (
                SectionProgress(slides=2, picked=2, kept=2, kept_takes=(2, 3), progress="ended"),
                SectionState("kept", "Kept takes 2, 3"),
            ),
            (
                SectionProgress(slides=2, picked=2, kept=2, kept_takes=(2,), progress="recording"),
                SectionState("recording", "Being recorded now"),
            ),
        )
        for standing, told_of in cases:
            self.assertEqual(section_state(standing), told_of)
