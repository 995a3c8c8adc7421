from typing import Any

import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import AdvanceAfter, Asset, Box, Build, Follows, Frame, MusicSpan, OnCue, Show, Slide
from ritornel.core.document.copying import copy_of_slide
from ritornel.core.document.edits import (
    AddObjects,
    ChangeObjects,
    ChangeSlides,
    ChangeTheme,
    RemoveObjects,
    ReplaceAsset,
    apply_edit,
)
from ritornel.core.document.integrity import check_slide
from ritornel.core.document.objects import PLAYS, Caption, Clip, ClipBackground, PictureBackground, PlayClip
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.layout.marks import ClipMark
from ritornel.core.motion.sampling import Instant, Motion, values_at
from ritornel.core.reference.captions import caption_in
from ritornel.core.reference.live import arrive, cue, instant_of
from ritornel.core.schedule.captions import compile_captions
from ritornel.core.schedule.clips import compile_clips
from ritornel.core.schedule.music import compile_music
from ritornel.core.schedule.performance import frame_state_at, ground_played, perform, pressed_clips
from ritornel.core.schedule.reduced_motion import calm_performance
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.schedule.slide_schedule import SlideSchedule, compile_slide
from ritornel.core.schedule.tracks import SlideTracks, compile_tracks
from tests.examples import example_a, shape, sound

PENDULUM = Asset(
    "pendulum", "Pendulum", "cd" * 32, "video/mp4", size_bytes=1000, width_px=640, height_px=360, lasts_ms=60_000
)


def clip(**more: Any) -> Clip:
    return Clip("clip", "Pendulum", Box(0, 0, 640, 360), "pendulum", **{"in_ms": 12_000, "out_ms": 30_200, **more})


def slide_with(*order: Build, advance: Any = AdvanceAfter(10_000), **more: Any) -> Slide:
    return Slide("three", "Three", advance=advance, objects=(clip(**more), shape("note")), order=order)


PLAY = Build(id="play", object_id="clip", effect=PLAYS, starts=Follows())
NOTE = Build(id="note", object_id="note", effect="enters fade", starts=OnCue("second", 1000), after_ms=0, lasts_ms=400)


def show_with(slide: Slide, **more: Any) -> Show:
    return Show("s", "Show", slides=(slide,), assets=(PENDULUM, sound()), **more)


def playing(tracks: SlideTracks) -> Motion:
    return next(motion for motion in tracks.motions if motion.object_id == "clip")


def timed(slide: Slide) -> SlideSchedule:
    return compile_slide(slide, 2000, {})


class WorkedExampleATest(SimpleTestCase):
    def test_the_third_slide_plays_its_clip_and_lasts_as_long(self) -> None:
        a = example_a()
        show = msgspec.structs.replace(a, slides=(*a.slides[:2], slide_with(PLAY)), assets=(PENDULUM,))
        schedule = compile_show(show)
        third = schedule.slides[2]
        self.assertEqual((third.builds[0].offset_ms, third.builds[0].lasts_ms), (0, 18_200))
        self.assertEqual((third.length_ms, third.extended_ms, third.extended_for), (18_200, 8200, "clip"))
        self.assertEqual((schedule.starts_ms[2], schedule.length_ms), (14_200, 32_400))


class RuleFourTest(SimpleTestCase):
    def test_one_that_holds_keeps_its_beat_and_what_follows_waits(self) -> None:
        times = timed(slide_with(PLAY, NOTE))
        self.assertEqual((times.beats[0].end_ms, times.beats[1].start_ms, times.done_ms), (18_200, 19_200, 19_600))

    def test_one_that_does_not_hold_counts_as_nothing_and_runs_on_beneath(self) -> None:
        slide = slide_with(PLAY, NOTE, holds=False)
        times = timed(slide)
        self.assertEqual(
            (times.beats[0].end_ms, times.done_ms, times.length_ms, times.extended_ms), (0, 1400, 10_000, 0)
        )
        motion = playing(compile_tracks(slide, times, Frame()))
        at = Instant(1, 500.0, 1500.0, (0.0, 1000.0))
        self.assertAlmostEqual(values_at(motion, at).played or 0, 1500 / 18_200)

    def test_a_repeating_one_holds_for_one_pass_and_goes_on(self) -> None:
        slide = slide_with(PLAY, NOTE, out_ms=14_000, repeats=True)
        times = timed(slide)
        self.assertEqual(times.beats[0].end_ms, 2000)
        motion = playing(compile_tracks(slide, times, Frame()))
        self.assertAlmostEqual(values_at(motion, Instant(1, 500.0, 3500.0, (0.0, 3000.0))).played or 0, 0.75)

    def test_before_it_plays_it_shows_its_poster_and_afterwards_the_last_picture_before_the_out_point(self) -> None:
        performance = perform(show_with(slide_with(msgspec.structs.replace(PLAY, after_ms=500), poster_ms=13_000)))
        mark = performance.slides[0].drawing.objects[0].parts[0].marks[0]
        shown = [
            mark.at_ms(dict(frame_state_at(performance, at).layers[0].objects).get(("clip", None)).played)
            for at in (0, 500, 1500, 18_700, 30_000)
        ]  # type: ignore
        self.assertEqual(shown[:2], [13_000, 12_000])
        self.assertAlmostEqual(shown[2], 13_000)
        self.assertEqual(shown[3:], [30_199, 30_199])

    def test_live_a_press_sends_a_holding_clip_to_its_last_picture(self) -> None:
        performance = perform(show_with(slide_with(PLAY, NOTE)))
        state = cue(performance, arrive(performance, 0, 0), 3000)
        self.assertEqual(values_at(playing(performance.slides[0].tracks), instant_of(state, 3010)).played, 1.0)


class HeardTest(SimpleTestCase):
    def test_its_sound_plays_from_the_in_point_and_music_sinks_under_it(self) -> None:
        show = show_with(slide_with(PLAY, gain_db=-3.0, fade_in_ms=200), music=(MusicSpan(id="m", asset_id="waltz"),))
        schedule = compile_show(show)
        (event,) = compile_clips(show, schedule)
        self.assertEqual(
            (event.start_ms, event.in_ms, event.lasts_ms, event.gain_db, event.fade_in_ms),
            (0, 12_000, 18_200, -3.0, 200),
        )
        self.assertTrue(event.ends_with_beat)
        music, _ = compile_music(show, schedule, (event,))
        self.assertEqual(music[0].ducking[0], (0, -9.0))

    def test_it_begins_with_its_build_on_the_clock_of_a_later_slide(self) -> None:
        show = show_with(slide_with(msgspec.structs.replace(PLAY, after_ms=700)))
        first = Slide("one", "One", advance=AdvanceAfter(5000))
        show = msgspec.structs.replace(show, slides=(first, *show.slides))
        (event,) = compile_clips(show, compile_show(show))
        self.assertEqual((event.start_ms, event.offset_ms, event.index), (5700, 700, 1))

    def test_none_outlasts_its_slide_and_muted_and_silent_ones_are_not_heard(self) -> None:
        short = slide_with(PLAY, advance=AdvanceAfter(4000, cut_short=True))
        self.assertEqual(compile_clips(show_with(short), compile_show(show_with(short)))[0].lasts_ms, 4000)
        muted = show_with(slide_with(PLAY, muted=True))
        self.assertEqual(compile_clips(muted, compile_show(muted)), ())
        silent = msgspec.structs.replace(
            show_with(slide_with(PLAY)), assets=(msgspec.structs.replace(PENDULUM, silent=True),)
        )
        self.assertEqual(compile_clips(silent, compile_show(silent)), ())


class BadClipTest(SimpleTestCase):
    def test_an_end_before_the_beginning_is_told_and_nothing_changes(self) -> None:
        show = show_with(slide_with(PLAY))
        for changes, sentence in (
            ({"in_ms": 30_200}, "would end at 30.2 s, before it begins at 30.2 s"),
            ({"out_ms": 60_001}, "lasts 1:00; it cannot be shown until 1:00.001"),
        ):
            with self.assertRaises(BadValue) as told:
                apply_edit(show, ChangeObjects("three", ("clip",), changes))
            self.assertIn(sentence, str(told.exception))

    def test_only_a_clip_can_be_played_and_only_a_clip_shows_one(self) -> None:
        with self.assertRaises(BadValue) as told:
            check_slide(slide_with(msgspec.structs.replace(PLAY, object_id="note")))
        self.assertIn("“Note” is no clip, so it cannot be played", str(told.exception))
        with self.assertRaises(BadValue) as told:
            apply_edit(
                show_with(slide_with()),
                AddObjects("three", (msgspec.structs.replace(clip(), id="other", asset_id="waltz"),)),
            )
        self.assertIn("“Waltz” is no clip", str(told.exception))

    def test_another_clip_takes_its_place_with_in_and_out_within_it(self) -> None:
        other = msgspec.structs.replace(PENDULUM, id="other", sha256="ef" * 32, lasts_ms=20_000)
        show = msgspec.structs.replace(show_with(slide_with(PLAY)), assets=(PENDULUM, other))
        fresh = apply_edit(show, ReplaceAsset("pendulum", "other")).show.slides[0].objects[0]
        self.assertEqual((fresh.asset_id, fresh.in_ms, fresh.out_ms), ("other", 12_000, 20_000))  # type: ignore[union-attr]
        with self.assertRaises(BadValue) as told:
            apply_edit(msgspec.structs.replace(show, assets=(PENDULUM, sound())), ReplaceAsset("pendulum", "waltz"))
        self.assertIn("only another clip can take its place", str(told.exception))


class PressedTest(SimpleTestCase):
    def pressed(self) -> Show:
        slide = slide_with()
        objects = (slide.objects[0], msgspec.structs.replace(slide.objects[1], press=PlayClip("clip")))
        return show_with(msgspec.structs.replace(slide, objects=objects))

    def test_a_clip_that_only_a_press_plays_takes_no_time_of_the_show(self) -> None:
        performance = perform(self.pressed())
        self.assertEqual((performance.schedule.length_ms, performance.clips), (10_000, ()))
        self.assertEqual([item.id for item in pressed_clips(performance.slides[0].slide)], ["clip"])

    def test_removing_the_clip_leaves_a_press_that_does_nothing_and_says_so(self) -> None:
        outcome = apply_edit(self.pressed(), RemoveObjects("three", ("clip",)))
        self.assertIsNone(outcome.show.slides[0].objects[0].press)
        self.assertEqual(outcome.notices, ("A press on “Note” played “Pendulum”; it does nothing now.",))

    def test_a_press_on_a_copied_slide_plays_the_copied_clip(self) -> None:
        copy = copy_of_slide(self.pressed().slides[0], "again")
        self.assertEqual(copy.objects[1].press, PlayClip(copy.objects[0].id))

    def test_a_press_that_would_play_nothing_is_refused(self) -> None:
        with self.assertRaises(UnknownName) as told:
            apply_edit(
                self.pressed(), ChangeObjects("three", ("note",), {"press": {"do": "clip", "object_id": "gone"}})
            )
        self.assertIn("would play a clip that is not on its slide (“gone”)", str(told.exception))


class GroundTest(SimpleTestCase):
    def show(self) -> Show:
        return apply_edit(
            show_with(slide_with()),
            ChangeSlides(("three",), {"background": {"kind": "clip", "asset_id": "pendulum", "veil": 0.2}}),
        ).show

    def test_a_clip_as_ground_runs_round_and_round_on_the_slides_clock(self) -> None:
        performance = perform(self.show())
        played = [frame_state_at(performance, at).layers[0].ground_played for at in (0.0, 6000.0, 9000.0)]
        self.assertEqual(played, [0.0, 0.1, 0.15])
        self.assertEqual(ground_played(performance.slides[0].drawing, 66_000), 0.1)
        self.assertEqual(performance.clips, (), "it is not heard")

    def test_for_who_asks_for_less_motion_it_stands_still(self) -> None:
        drawing = calm_performance(perform(self.show())).slides[0].drawing
        marks = [mark for mark in drawing.ground if isinstance(mark, ClipMark)]
        self.assertEqual({mark.at_ms(ground_played(drawing, at)) for mark in marks for at in (0, 5000, 9000)}, {0})

    def test_the_theme_gives_every_slide_a_moving_ground(self) -> None:
        show = show_with(slide_with())
        show = apply_edit(
            show, ChangeTheme(msgspec.structs.replace(show.theme, ground=ClipBackground("pendulum", 0.5)))
        ).show
        self.assertEqual(ground_played(perform(show).slides[0].drawing, 6000), 0.1)
        with self.assertRaises(BadValue) as told:
            apply_edit(show, ChangeTheme(msgspec.structs.replace(show.theme, ground=PictureBackground("pendulum"))))
        self.assertIn("“Pendulum” is no picture, so it cannot be the background", str(told.exception))

    def test_a_sound_or_picture_is_no_moving_ground(self) -> None:
        with self.assertRaises(BadValue) as told:
            apply_edit(
                show_with(slide_with()), ChangeSlides(("three",), {"background": {"kind": "clip", "asset_id": "waltz"}})
            )
        self.assertIn("“Waltz” is no clip, so it cannot be the background", str(told.exception))


class SpeedTest(SimpleTestCase):
    def test_it_lasts_out_minus_in_over_rate(self) -> None:
        schedule = timed(slide_with(PLAY, rate_pct=150))
        self.assertEqual(
            (schedule.builds[0].lasts_ms, schedule.length_ms), (12_133, 12_133), "18 200 / 1.5 is 12 133.3"
        )
        self.assertEqual(timed(slide_with(PLAY, rate_pct=50)).length_ms, 36_400)

    def test_its_sound_is_another_which_begins_and_ends_at_the_same_places(self) -> None:
        show = show_with(slide_with(PLAY, rate_pct=200, repeats=False))
        (heard,) = compile_clips(show, compile_show(show))
        self.assertEqual((heard.asset_id, heard.in_ms, heard.lasts_ms), ("pendulum@200", 6000, 9100))
        performance = perform(show)
        self.assertEqual(performance.sound_ids(), ["pendulum@200"])
        media = performance.media(lambda asset, rate: f"{asset.id} at {rate}")
        self.assertEqual((media["pendulum"], media["pendulum@200"]), ("pendulum at 100", "pendulum at 200"))

    def test_a_speed_beyond_reason_is_refused_and_nothing_changes(self) -> None:
        show = show_with(slide_with(PLAY))
        for rate in (0, 24, 401):
            with self.assertRaises(BadValue) as told:
                apply_edit(show, ChangeObjects("three", ("clip",), {"rate_pct": rate}))
            self.assertIn("rate_pct", str(told.exception) + told.exception.field)

    @given(st.integers(25, 400), st.floats(0, 1, exclude_max=True))
    def test_halfway_through_its_time_it_shows_the_middle_of_its_stretch(self, rate: int, share: float) -> None:
        slide = slide_with(PLAY, rate_pct=rate)
        schedule = timed(slide)
        performance = perform(show_with(slide))
        (layer,) = frame_state_at(performance, share * schedule.builds[0].lasts_ms).layers
        played = dict(layer.objects)["clip", None].played
        assert played is not None
        self.assertAlmostEqual(played, share, places=6)


class CaptionsTest(SimpleTestCase):
    SPOKEN = (
        Caption(11_000, 13_000, "before and in"),
        Caption(20_000, 21_000, "tick"),
        Caption(30_000, 40_000, "at its end"),
        Caption(50_000, 51_000, "never"),
    )

    def test_they_stand_where_the_clip_is_cut_and_at_its_speed(self) -> None:
        performance = perform(show_with(slide_with(PLAY, captions=self.SPOKEN, rate_pct=200)))
        found = compile_captions(performance)
        self.assertEqual(
            found, (Caption(0, 500, "before and in"), Caption(4000, 4500, "tick"), Caption(9000, 9100, "at its end"))
        )

    def test_they_wait_for_the_clip_of_a_later_slide_beat_and_build(self) -> None:
        late = msgspec.structs.replace(PLAY, starts=OnCue("second", 1000), after_ms=300)
        slide = slide_with(msgspec.structs.replace(NOTE, starts=Follows()), late, captions=self.SPOKEN[1:2])
        show = Show("s", "Show", slides=(Slide("first", advance=AdvanceAfter(5000)), slide), assets=(PENDULUM, sound()))
        performance = perform(show)
        schedule = performance.schedule
        begins = schedule.starts_ms[1] + schedule.slides[1].beats[1].start_ms + 300
        self.assertEqual(schedule.slides[1].builds[1].offset_ms, 300)
        self.assertEqual(compile_captions(performance), (Caption(begins + 8000, begins + 9000, "tick"),))

    def test_in_every_round_of_a_clip_that_repeats(self) -> None:
        performance = perform(
            show_with(slide_with(PLAY, advance=AdvanceAfter(40_000), captions=self.SPOKEN[1:2], repeats=True))
        )
        self.assertEqual(
            [(caption.start_ms, caption.end_ms) for caption in compile_captions(performance)],
            [(8000, 9000), (26_200, 27_200)],
        )

    def test_where_they_overlap_each_ends_when_the_next_begins(self) -> None:
        said = (Caption(0, 1000, "tick"), Caption(400, 1200, "tock"), Caption(800, 2000, "tick again"))
        performance = perform(show_with(slide_with(PLAY)))
        spoken = (said, *(() for _ in performance.slides[1:]))
        start = performance.schedule.starts_ms[0]
        self.assertEqual(
            [
                (caption.start_ms - start, caption.end_ms - start)
                for caption in compile_captions(msgspec.structs.replace(performance, spoken=spoken))
            ],
            [(0, 400), (400, 800), (800, 2000)],
        )

    @given(st.integers(0, 12_000))
    def test_what_is_read_at_an_instant_is_what_the_file_says(self, at: int) -> None:
        performance = perform(show_with(slide_with(PLAY, captions=self.SPOKEN, rate_pct=200)))
        said = next(
            (caption.text for caption in compile_captions(performance) if caption.start_ms <= at < caption.end_ms), ""
        )
        self.assertEqual(caption_in(performance, frame_state_at(performance, at)), said)

    def test_captions_out_of_order_are_refused(self) -> None:
        show = show_with(slide_with(PLAY))
        wrong = [{"start_ms": 5, "end_ms": 9, "text": "a"}, {"start_ms": 8, "end_ms": 12, "text": "b"}]
        with self.assertRaisesMessage(
            BadValue,
            "The caption “b” of “Pendulum” ends before it begins, or begins before the one before it has ended.",
        ):
            apply_edit(show, ChangeObjects("three", ("clip",), {"captions": wrong}))
