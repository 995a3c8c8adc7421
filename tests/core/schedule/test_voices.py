import msgspec
from django.test import SimpleTestCase

from ritornel.core.document import (
    AdvanceAfter,
    AdvanceOnCue,
    AdvanceWithVoice,
    Asset,
    Build,
    MusicSpan,
    OnCue,
    Show,
    Slide,
    Transition,
)
from ritornel.core.document import edits as e
from ritornel.core.document.changes import apply_changes
from ritornel.core.document.show import Voice
from ritornel.core.errors import BadValue
from ritornel.core.reference.live import arrive, goes_on_at_ms
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.show_schedule import compile_show
from tests.examples import example_a, shape, sound

SPOKEN = Asset("spoken", "Spoken", "cd" * 32, "audio/wav", size_bytes=1000, lasts_ms=6000)


def spoken(show: Show, slide_id: str, voice: Voice) -> Show:
    show = msgspec.structs.replace(show, assets=(*show.assets, SPOKEN))
    return e.apply_edit(show, e.PutVoice(slide_id, voice)).show


class VoiceTest(SimpleTestCase):
    def test_the_worked_example_is_extended_by_its_voice_and_all_after_it_comes_later(self) -> None:
        before = compile_show(example_a())
        schedule = compile_show(spoken(example_a(), "one", Voice("spoken", 6000, offset_ms=500)))
        one = schedule.slides[0]
        self.assertEqual((one.done_ms, one.length_ms, one.extended_ms, one.extended_for), (6500, 6500, 1500, "voice"))
        self.assertEqual(
            [start - old for start, old in zip(schedule.starts_ms, before.starts_ms, strict=True)], [0, 1500, 1500]
        )
        self.assertEqual(schedule.slides[1:], before.slides[1:], "and nothing else changes")

    def test_on_a_tie_the_voice_is_the_reason(self) -> None:
        slide = Slide(
            "s",
            objects=(shape("x"),),
            order=(
                Build(id="b", object_id="x", effect="enters fade", starts=OnCue("c", 0), after_ms=0, lasts_ms=3000),
            ),
            advance=AdvanceAfter(1000),
        )
        schedule = compile_show(spoken(Show("show", "S", slides=(slide,)), "s", Voice("spoken", 3000))).slides[0]
        self.assertEqual((schedule.extended_ms, schedule.extended_for), (2000, "voice"))

    def two_cues(self, **marks: int) -> Show:
        order = (
            Build(id="a", object_id="x", effect="enters fade", starts=OnCue("first", 900), after_ms=0, lasts_ms=1000),
            Build(id="b", object_id="y", effect="enters fade", starts=OnCue("second"), after_ms=0, lasts_ms=500),
        )
        slide = Slide(
            "s",
            transition=Transition("dissolve", 400),
            objects=(shape("x"), shape("y")),
            order=order,
            advance=AdvanceOnCue("out"),
        )
        return spoken(Show("show", "S", slides=(slide,)), "s", Voice("spoken", 5000, 1000, 700, marks=marks))

    def test_marks_say_when_cues_fall_counted_from_where_the_voice_begins(self) -> None:
        schedule = compile_show(self.two_cues(first=1000, second=3000, out=4500)).slides[0]
        self.assertEqual([beat.start_ms for beat in schedule.beats], [400, 1700, 3700])
        self.assertEqual(
            [(beat.wait.hold_ms, beat.wait.source) for beat in schedule.beats if beat.wait],
            [(1300, "voice mark"), (1000, "voice mark")],
        )
        # N is 4 700, when the voice has ended; the mark for leaving lies half a second after that.
        assert schedule.last_wait is not None
        self.assertEqual((schedule.done_ms, schedule.last_wait.hold_ms, schedule.length_ms), (4700, 500, 5200))

    def test_a_mark_that_comes_too_early_waits_for_the_beat_before(self) -> None:
        schedule = compile_show(self.two_cues(first=1000, second=1200, out=100)).slides[0]
        self.assertEqual([beat.start_ms for beat in schedule.beats], [400, 1700, 2700])
        self.assertEqual((schedule.length_ms, schedule.last_wait and schedule.last_wait.hold_ms), (4700, 0))

    def test_a_cue_without_a_mark_has_its_own_hold(self) -> None:
        schedule = compile_show(self.two_cues(second=3000)).slides[0]
        self.assertEqual([beat.wait.source for beat in schedule.beats if beat.wait], ["own hold", "voice mark"])

    def test_a_slide_that_follows_its_voice_goes_on_a_breath_after_it(self) -> None:
        slide = Slide(
            "s",
            transition=Transition("dissolve", 400),
            objects=(shape("x"),),
            advance=AdvanceWithVoice(800),
            also_live=True,
        )
        show = spoken(Show("show", "S", slides=(slide, Slide("t"))), "s", Voice("spoken", 5000, 1000, 700))
        schedule = compile_show(show).slides[0]
        self.assertEqual((schedule.length_ms, schedule.extended_ms, schedule.last_wait), (5500, 0, None))
        state = arrive(perform(show), 0, 10_000)
        self.assertEqual(goes_on_at_ms(perform(show), state), 15_500, "live too")
        silent = compile_show(e.apply_edit(show, e.PutVoice("s", None)).show).slides[0]
        self.assertEqual(silent.length_ms, 400)

    def test_inserting_moving_and_removing_slides_moves_each_voice_with_its_slide_only(self) -> None:
        show = msgspec.structs.replace(example_a(), assets=(SPOKEN,))
        for slide_id, voice in (("one", Voice("spoken", 2000)), ("three", Voice("spoken", 1000, offset_ms=5000))):
            show = e.apply_edit(show, e.PutVoice(slide_id, voice)).show
        for edit in (
            e.AddSlide(0, Slide("new")),
            e.ReorderSlides(("three",), 0),
            e.RemoveSlides(("two",)),
            e.ChangeSlides(("two",), {"skipped": True}),
        ):
            performance = perform(e.apply_edit(show, edit).show)
            starts = {
                staged.slide.id: start
                for staged, start in zip(performance.slides, performance.schedule.starts_ms, strict=True)
            }
            self.assertEqual(
                {v.id: v.start_ms for v in performance.voices},
                {"voice one": starts["one"], "voice three": starts["three"] + 5000},
            )

    def test_a_voice_ends_with_its_slide_and_with_its_sound(self) -> None:
        slide = Slide("s", advance=AdvanceAfter(2000, cut_short=True))
        cut = perform(spoken(Show("show", "S", slides=(slide,)), "s", Voice("spoken", 6000, 1000, 500))).voices[0]
        self.assertEqual((cut.start_ms, cut.in_ms, cut.lasts_ms), (500, 1000, 1500))

    def test_music_sinks_under_it(self) -> None:
        show = spoken(example_a(), "two", Voice("spoken", 3000))
        show = msgspec.structs.replace(
            show,
            music=(MusicSpan(id="m", asset_id="waltz"), MusicSpan(id="n", asset_id="waltz", ducks=False)),
            assets=(*show.assets, sound()),
        )
        music = perform(show).music
        self.assertEqual(
            music[0].ducking, ((0, 0.0), (4700, 0.0), (5000, -9.0), (8000, -9.0), (8600, 0.0), (32_400, 0.0))
        )
        self.assertEqual(music[1].ducking, ())

    def test_what_cannot_be_a_voice_is_told_and_nothing_changes(self) -> None:
        show = msgspec.structs.replace(
            example_a(),
            assets=(SPOKEN, Asset("photo", "Photo", "ef" * 32, "image/png", size_bytes=10, width_px=4, height_px=4)),
        )
        for voice, words in (
            (Voice("photo", 100), "“Photo” is no sound, so it cannot be a voice."),
            (Voice("spoken", 6001), "“Spoken” lasts 6.0 s; a voice from it cannot end at 6.001 s."),
            (Voice("spoken", 2000, 2000), "would end at 2.0 s, before it begins at 2.0 s."),
        ):
            with self.assertRaisesMessage(BadValue, words):
                e.apply_edit(show, e.PutVoice("one", voice))

    def test_trimmed_at_the_front_its_marks_stay_on_the_words_they_fall_on(self) -> None:
        show = self.two_cues(first=1000, out=100)
        done = e.apply_edit(show, e.TrimVoice("s", 1300, 4500))
        voice = done.show.slides[0].voice
        assert voice is not None
        # It began at 1 000 ms of its sound and begins at 1 300 now: a word marked 1 000 ms in is 700 ms in.
        self.assertEqual((voice.in_ms, voice.out_ms, voice.marks), (1300, 4500, {"first": 700, "out": 0}))
        self.assertEqual(apply_changes(done.show, done.inverse)[0], show)
        with self.assertRaisesMessage(BadValue, "a voice from it cannot end at 9.0 s"):
            e.apply_edit(show, e.TrimVoice("s", 0, 9000))
        with self.assertRaisesMessage(BadValue, "has no voice that could be trimmed"):
            e.apply_edit(example_a(), e.TrimVoice("one", 0, 100))

    def test_giving_and_taking_a_voice_is_undone_and_a_copy_keeps_its_marks(self) -> None:
        show = self.two_cues(first=1000, out=4500)
        taken = e.apply_edit(show, e.PutVoice("s", None))
        self.assertEqual(apply_changes(taken.show, taken.inverse)[0], show)
        copied = e.apply_edit(show, e.DuplicateSlides(("s",), "two")).show.slides[1]
        assert copied.voice is not None
        self.assertEqual(copied.voice.marks, {"two-c0": 1000, "two-out": 4500})
        with self.assertRaisesMessage(BadValue, "is still used on"):
            e.apply_edit(show, e.DropAssets(("spoken",)))
