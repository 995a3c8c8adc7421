"""Each check finds what it is for, finds nothing where there is nothing, and its fix fixes it."""

from typing import Any

import msgspec
from django.test import SimpleTestCase

from ritornel.core.checks import SEVERITIES, Finding, find_problems
from ritornel.core.checks.fix_outcome import preview_fix
from ritornel.core.document import (
    AdvanceAfter,
    AdvanceOnCue,
    Asset,
    Box,
    Build,
    Follows,
    Frame,
    MusicSpan,
    OnCue,
    Paragraph,
    Picture,
    Show,
    Slide,
    Text,
    TextRun,
)
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.objects import PLAYS, Clip, GoToSlide, OpenAddress, PlayClip
from ritornel.core.document.show import OwnLength, SlideEnd, SlideStart, Transition, Voice
from ritornel.core.errors import BadValue
from ritornel.core.schedule.measurements import FrameAnalysis, ShowLoudness, TextContrast
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import clock_text
from ritornel.demo.narrated import told
from ritornel.demo.orlmere import orlmere

BELL = Asset("bell", "The bell", "ab" * 32, "image/png", size_bytes=100, width_px=1280, height_px=720)
SWING = Asset("swing", "The swing", "cd" * 32, "video/mp4", size_bytes=100, width_px=1280, height_px=720, lasts_ms=4000)
WALTZ = Asset("waltz", "Waltz", "ef" * 32, "audio/ogg", size_bytes=100, lasts_ms=8000)


def words(*lines: str, object_id: str = "words", **more: Any) -> Text:
    paragraphs = tuple(Paragraph(f"{object_id}-{number}", (TextRun(line),)) for number, line in enumerate(lines))
    return Text(object_id, "The words", Box(100, 100, 800, 300), paragraphs=paragraphs, **more)


def show(*slides: Slide, **more: Any) -> Show:
    return Show("s", "Show", Frame(), slides=slides, assets=(BELL, SWING, WALTZ), **{"runs": "self-running", **more})


def slide(*objects: Any, slide_id: str = "one", **more: Any) -> Slide:
    return Slide(slide_id, "One", objects=objects, **{"advance": AdvanceAfter(10_000), **more})


class CheckTest(SimpleTestCase):
    def found(self, value: Show, check: str) -> list[Finding]:
        return [finding for finding in find_problems(value) if finding.check == check]

    def one(self, value: Show, check: str) -> Finding:
        (finding,) = self.found(value, check)
        return finding

    def fixed(self, value: Show, finding: Finding) -> Show:
        """The show with the finding's fix, which is gone then, and comes back when it is undone."""
        assert finding.fix is not None
        outcome = apply_edit(value, finding.fix.edit)
        self.assertNotIn(finding.id, [other.id for other in find_problems(outcome.show)])
        return outcome.show


class HoldsTest(CheckTest):
    def test_waits_that_have_only_the_default_are_found_and_kept(self) -> None:
        order = (
            Build(id="b", object_id="words", effect="enters fade", starts=OnCue("q", None)),
            Build(id="c", object_id="words", effect="accents pulse", starts=OnCue("r", 900)),
        )
        value = show(slide(words("Tick"), order=order, advance=AdvanceOnCue("on")))
        finding = self.one(value, "holds")
        self.assertEqual((finding.title, finding.severity), ("2 waits are only as long as the default, 2.0 s", "hurts"))
        after = self.fixed(value, finding)
        self.assertEqual(
            (after.slides[0].order[0].starts, after.slides[0].advance), (OnCue("q", 2000), AdvanceOnCue("on", 2000))
        )

    def test_a_show_on_cue_has_none(self) -> None:
        self.assertEqual(self.found(show(slide(words("Tick"), advance=AdvanceOnCue("on")), runs="on cue"), "holds"), [])


class ReadingTest(CheckTest):
    def test_a_slide_that_is_gone_too_soon_is_lengthened(self) -> None:
        value = show(slide(words("One two three four five six seven eight nine"), advance=AdvanceAfter(2000)))
        finding = self.one(value, "reading")
        self.assertEqual(finding.title, "Shown 2.0 s, reading takes about 4.5 s (estimate)")
        self.assertEqual(finding.fix.words if finding.fix else "", "Lengthen slide 1 by 2.5 s, to 4.5 s")
        self.assertEqual(self.fixed(value, finding).slides[0].advance, AdvanceAfter(4500))

    def test_enough_time_is_nothing(self) -> None:
        self.assertEqual(self.found(show(slide(words("Tick"))), "reading"), [])


class CutsTest(CheckTest):
    def test_a_voice_that_is_cut_stops_the_show_and_is_let_end(self) -> None:
        value = show(slide(voice=Voice("waltz", 8000), advance=AdvanceAfter(5000, True)))
        finding = self.one(value, "cuts")
        self.assertEqual(
            (finding.severity, finding.title, finding.at_ms), ("stops", "3.0 s of its voice are cut off", 5000)
        )
        self.fixed(value, finding)

    def test_a_clip_that_is_cut_hurts_and_one_that_ends_does_not(self) -> None:
        clip = Clip("c", "Clip", Box(0, 0, 1280, 720), "swing", out_ms=4000, alternative="A swing")
        order = (Build(id="p", object_id="c", effect=PLAYS, starts=Follows()),)
        self.assertEqual(
            self.one(show(slide(clip, order=order, advance=AdvanceAfter(1000, True))), "cuts").severity, "hurts"
        )
        self.assertEqual(self.found(show(slide(clip, order=order, advance=AdvanceAfter(1000))), "cuts"), [])


class ContrastTest(CheckTest):
    def test_words_that_cannot_be_read_are_set_in_white_or_in_ink(self) -> None:
        value = show(slide(words("Seventy-eight turns")))
        for better, colour in (("#ffffff", "white"), ("#101a1f", "ink")):
            seen = {"one": FrameAnalysis(contrasts=(TextContrast("words", 2.96, 4.5, better),))}
            (finding,) = (found for found in find_problems(value, analyses=seen) if found.check == "contrast")
            self.assertIn("a contrast of 2.9:1 to what is behind it; it needs 4.5:1", finding.title)
            assert finding.fix is not None
            self.assertEqual(finding.fix.words, f"Set it in {colour}")
            self.assertEqual(self.fixed(value, finding).slides[0].objects[0].colour, better)

    def test_words_with_colours_of_their_own_and_words_no_colour_would_help_are_told_without_a_fix(self) -> None:
        own = Paragraph("p", (TextRun("Bell", colour="#888888"),))
        for item, better in ((words("Bell"), None), (msgspec.structs.replace(words(), paragraphs=(own,)), "#ffffff")):
            seen = {"one": FrameAnalysis(contrasts=(TextContrast("words", 1.2, 4.5, better),))}
            found = find_problems(show(slide(item)), analyses=seen)
            self.assertEqual([finding.fix for finding in found if finding.check == "contrast"], [None])


class PlaceTest(CheckTest):
    def test_what_is_about_the_whole_show_lies_at_its_start(self) -> None:
        self.assertEqual(Finding(id="a", check="music", severity="hurts", title="Title", why="Why").at_ms, 0)


class MusicTest(CheckTest):
    def test_music_that_ends_before_the_show_is_repeated_to_its_end(self) -> None:
        for end in (OwnLength(), SlideEnd("one")):
            value = show(slide(), slide(slide_id="two"), music=(MusicSpan(id="m", asset_id="waltz", end=end),))
            finding = self.one(value, "music")
            self.assertIn("s before the show", finding.title)
            expected = ("one", 1, 8000) if isinstance(end, OwnLength) else ("two", 2, 10_000)
            self.assertEqual((finding.slide_id, finding.number, finding.at_ms), expected)
            self.assertEqual(self.fixed(value, finding).music[0].fade_out_ms, 4000)

    def test_music_to_the_end_is_nothing_and_one_without_a_slide_is_found(self) -> None:
        self.assertEqual(self.found(show(slide(), music=(MusicSpan(id="m", asset_id="waltz"),)), "music"), [])
        lost = MusicSpan(id="m", asset_id="waltz", start=SlideStart("gone"), end=SlideEnd("gone"))
        value = show(slide(), music=(lost,))
        self.assertEqual(self.one(value, "music").title, "“Waltz” has no slide left")
        self.assertEqual(self.fixed(value, self.one(value, "music")).music, ())

    def test_music_that_would_begin_behind_everything_is_found(self) -> None:
        value = show(slide(), music=(MusicSpan(id="m", asset_id="waltz", start=SlideStart("one", 12_000)),))
        finding = self.one(value, "music")
        self.assertEqual((finding.title, finding.id), ("“Waltz” is never heard", "music-late:m"))
        self.assertIn("It would begin 0:12.0 into its slide", finding.why)
        self.assertEqual(self.fixed(value, finding).music[0].start, SlideStart("one", 0))


class UnseenTest(CheckTest):
    def test_what_lies_outside_the_frame_is_found_unless_something_brings_it_in(self) -> None:
        outside = Picture("p", "Lost", Box(1300, 0, 100, 100), "bell", alternative="A bell")
        value = show(slide(outside))
        self.assertEqual(self.one(value, "unseen").title, "“Lost” lies outside the frame")
        self.fixed(value, self.one(value, "unseen"))
        travels = Build(id="t", object_id="p", effect="travels along", starts=Follows())
        self.assertEqual(self.found(show(slide(outside, order=(travels,))), "unseen"), [])
        self.assertEqual(
            self.found(show(slide(msgspec.structs.replace(outside, box=Box(1200, 0, 100, 100)))), "unseen"), []
        )


class UpscaledTest(CheckTest):
    def test_a_picture_shown_much_larger_than_it_is(self) -> None:
        small = msgspec.structs.replace(BELL, width_px=320, height_px=180)
        value = msgspec.structs.replace(
            show(slide(Picture("p", "Bell", Box(0, 0, 1280, 720), "bell", alternative="A bell"))), assets=(small,)
        )
        finding = self.one(value, "upscaled")
        self.assertEqual((finding.title, finding.fix), ("“Bell” is shown 4.0 times as large as it is", None))
        self.assertEqual(self.found(msgspec.structs.replace(value, assets=(BELL,)), "upscaled"), [])


class PressesTest(CheckTest):
    def test_a_press_to_a_skipped_slide_stops_the_show(self) -> None:
        value = show(slide(words("Go", press=GoToSlide("two"))), slide(slide_id="two", skipped=True))
        self.assertEqual(self.one(value, "presses").severity, "stops")
        self.assertFalse(self.fixed(value, self.one(value, "presses")).slides[1].skipped)
        self.assertEqual(
            self.found(show(slide(words("Go", press=GoToSlide("two"))), slide(slide_id="two")), "presses"), []
        )

    def test_a_clip_that_only_a_press_plays_is_found_where_nobody_presses(self) -> None:
        clip = Clip("c", "Clip", Box(0, 0, 640, 360), "swing", out_ms=4000, press=PlayClip("c"), alternative="A swing")
        value = show(slide(clip))
        self.assertIn("plays only on a press", self.one(value, "presses").title)
        self.fixed(value, self.one(value, "presses"))
        self.assertEqual(self.found(show(slide(clip), runs="on cue"), "presses"), [])


class SmallWordsTest(CheckTest):
    def test_words_too_small_to_read_are_made_readable(self) -> None:
        value = show(slide(words("Tick", size_px=12)))
        self.assertEqual(self.one(value, "small words").title, "“The words” is 12 px high, wanted 18 px")
        self.fixed(value, self.one(value, "small words"))
        self.assertEqual(self.found(show(slide(words("Tick", size_px=18))), "small words"), [])

    def test_words_that_shrank_are_told_so(self) -> None:
        many = words(
            *["The escape wheel lets one tooth go at every swing of the pendulum"] * 40, size_px=40, overflow="shrink"
        )
        finding = self.one(show(slide(many)), "small words")
        self.assertEqual((finding.fix, "It shrank" in finding.why), (None, True))

    def test_words_that_shrank_by_a_pixel_are_told_so_too(self) -> None:
        for height in range(40, 400):
            tight = words(*["The escape wheel"] * 6, size_px=17, overflow="shrink")
            value = show(slide(msgspec.structs.replace(tight, box=Box(100, 100, 800, height / 2))))
            drawn = perform(value).slides[0].drawing.objects[0].size_px
            if 0.5 < 17 - drawn < 1.5:
                break
        finding = self.one(value, "small words")
        self.assertEqual((finding.fix, "It shrank" in finding.why), (None, True), drawn)


class CameraTest(CheckTest):
    def test_a_picture_that_ends_before_the_voice_is_told_and_one_that_ends_with_it_is_not(self) -> None:
        def seen(out_ms: int) -> Show:
            clip = Clip("c", "Speaker", Box(0, 0, 320, 180), "swing", out_ms=out_ms, with_slide=True, alternative="A")
            return show(slide(clip, voice=Voice("waltz", 4000)))

        finding = self.one(seen(3000), "camera")
        self.assertEqual(finding.title, "The picture of “Speaker” ends 1.0 s before the voice")
        self.assertEqual(self.found(seen(4000), "camera"), [])


class AlternativesTest(CheckTest):
    def test_a_picture_without_words_is_given_those_of_the_shelf(self) -> None:
        value = show(slide(Picture("p", "Bell", Box(0, 0, 640, 360), "bell")))
        finding = self.one(value, "alternatives")
        self.assertEqual(finding.fix.words if finding.fix else "", "Write “The bell” for it")
        self.fixed(value, finding)


class CreditTest(CheckTest):
    def test_a_credit_that_nowhere_appears_is_put_on_a_closing_slide(self) -> None:
        owed = msgspec.structs.replace(BELL, author="Marta Vane", licence="CC0 1.0", credit="“The bell” by Marta Vane")
        value = msgspec.structs.replace(
            show(slide(Picture("p", "Bell", Box(0, 0, 640, 360), "bell", alternative="A bell"))), assets=(owed,)
        )
        finding = self.one(value, "credits")
        self.assertEqual(finding.title, "1 asks for a credit, 0 shown: “The bell”")
        self.assertEqual(len(self.fixed(value, finding).slides), 2)
        self.assertEqual(self.found(msgspec.structs.replace(value, assets=(BELL,)), "credits"), [])


class MissingTest(CheckTest):
    def test_media_in_use_whose_files_are_gone_stop_the_show(self) -> None:
        picture = Picture("p", "Bell", Box(0, 0, 400, 225), "bell", alternative="A bell")
        value = show(slide(picture), music=(MusicSpan(id="m", asset_id="waltz"),))
        found = [
            finding
            for finding in find_problems(value, {"bell": "missing", "waltz": "damaged", "swing": "missing"})
            if finding.check == "missing"
        ]
        titles = [(finding.title, finding.slide_id) for finding in found]
        self.assertEqual(
            titles, [("The file of “The bell” is missing", "one"), ("The file of “Waltz” is damaged", None)]
        )
        self.assertEqual({finding.severity for finding in found}, {"stops"})
        self.assertEqual(self.found(value, "missing"), [])


class GlyphsTest(CheckTest):
    def test_characters_that_no_font_has_are_told(self) -> None:
        finding = self.one(show(slide(words("Tick \U00012000 tock"))), "glyphs")
        self.assertIn("\U00012000", finding.title)
        self.assertEqual(self.found(show(slide(words("Tick Ω ж"))), "glyphs"), [])


class UnfilledTest(CheckTest):
    def test_places_that_nobody_filled_are_told(self) -> None:
        value = show(slide(words("Tick", place="heading"), layout="heading and text"))
        self.assertEqual(self.one(value, "unfilled").title, "The place “words” is left unfilled")
        two = self.one(show(slide(words("Tick"), layout="heading and text")), "unfilled")
        self.assertEqual(two.title, "The places “heading” and “words” are left unfilled")
        self.assertEqual(self.found(show(slide(words("Tick"), layout="blank")), "unfilled"), [])


class NotesTest(CheckTest):
    def test_a_slide_without_notes_stands_out_only_where_most_have_them(self) -> None:
        slides = [
            slide(words("Tick"), slide_id=name, notes=text)
            for name, text in (("a", "Say it."), ("b", "Say more."), ("c", " "))
        ]
        finding = self.one(show(*slides), "notes")
        self.assertEqual((finding.slide_id, finding.title), ("c", "No notes, while 2 of 3 slides have them"))
        self.assertEqual(self.found(show(*slides[1:]), "notes"), [])


class DiffersTest(CheckTest):
    def test_one_slide_that_comes_in_another_way_is_told_and_fixed(self) -> None:
        slides = [
            slide(words("Tick"), slide_id=f"s{number}", transition=Transition("dissolve", 800)) for number in range(5)
        ]
        slides[3] = msgspec.structs.replace(slides[3], transition=Transition("push", 800))
        finding = self.one(show(*slides), "differs")
        self.assertEqual((finding.slide_id, finding.severity), ("s3", "polish"))
        self.assertEqual(self.fixed(show(*slides), finding).slides[3].transition.name, "dissolve")
        self.assertEqual(self.found(show(*slides[:3]), "differs"), [])


class InvisibleTest(CheckTest):
    def test_what_nobody_sees_is_told_and_made_opaque(self) -> None:
        value = show(slide(words("Tick", opacity=0.0), words("Tock", object_id="more", opacity=0.1)))
        finding = self.one(value, "invisible")
        self.assertEqual(finding.title, "“The words” is never seen: its opacity is 0 %")
        self.assertEqual(self.fixed(value, finding).slides[0].objects[0].opacity, 1.0)


class SpokenTest(CheckTest):
    def test_sections_that_nobody_has_recorded_are_told_where_others_are_spoken(self) -> None:
        spoken = slide(words("One"), slide_id="one", opens_section="Noon", voice=Voice("waltz", 3000))
        silent = slide(words("Two"), slide_id="two", opens_section="Night")
        finding = self.one(show(spoken, silent), "unrecorded")
        self.assertEqual((finding.title, finding.slide_id, finding.number), ("Nobody has recorded “Night”", "two", 2))
        self.assertEqual(self.found(show(msgspec.structs.replace(spoken, voice=None), silent), "unrecorded"), [])

    def test_links_that_lead_nowhere_are_told_and_let_go(self) -> None:
        runs = (TextRun("here", link="https://tower/"), TextRun("there", link="https://orlmere.town/"))
        linked = Text("linked", "Where", Box(0, 0, 400, 90), paragraphs=(Paragraph("p", runs),))
        pressed = words("Press", press=OpenAddress("http://localhost:8000/"))
        value = show(slide(linked, pressed))
        titles = [finding.title for finding in self.found(value, "links")]
        self.assertEqual(len(titles), 2)
        self.assertIn("“The words” leads to http://localhost:8000/, where nobody else can go", titles)
        mendable = next(finding for finding in self.found(value, "links") if finding.fix)
        self.assertIsNone(self.fixed(value, mendable).slides[0].objects[1].press)

    def test_how_loud_it_is_is_told_only_where_it_was_measured_and_is_wrong(self) -> None:
        value = show(slide(words("One")))
        heard = {
            None: [],
            ShowLoudness(-20.0, -3.0, -16.0): [],
            ShowLoudness(None, None, None): [],
            ShowLoudness(-12.0, -1.0, -17.4): ["loudness:lands"],
            ShowLoudness(-52.0, -40.0, -16.0): ["loudness:quiet"],
        }
        for measured, ids in heard.items():
            self.assertEqual(
                [finding.id for finding in find_problems(value, loudness=measured) if finding.check == "loudness"], ids
            )

    def test_a_clip_over_words_moves_to_where_none_are(self) -> None:
        clip = Clip("swing-c", "The swing", Box(300, 120, 400, 300), "swing", out_ms=4000)
        value = show(slide(words("Thirty teeth, and one at a time"), clip))
        finding = self.one(value, "clip over words")
        self.assertEqual(finding.title, "“The swing” covers words of “The words”")
        assert finding.fix is not None
        mended = apply_edit(value, finding.fix.edit).show
        self.assertEqual(self.found(mended, "clip over words"), [])
        box = mended.slides[0].objects[1].box
        self.assertGreaterEqual(box.y, 130, "below the line of words")
        for fine in (slide(clip, words("Before it")), slide(words(" "), clip)):
            self.assertEqual(self.found(show(fine), "clip over words"), [])

    def test_a_heading_that_something_covers_comes_to_the_front(self) -> None:
        heading = words("The rope", object_id="h", place="heading")
        bell = Picture("bell-p", "The bell", Box(0, 0, 900, 500), "bell")
        value = show(slide(heading, bell))
        finding = self.one(value, "covered title")
        self.assertEqual(finding.title, "“The bell” covers the heading “The words”")
        assert finding.fix is not None
        self.assertEqual(self.found(apply_edit(value, finding.fix.edit).show, "covered title"), [])
        comes_later = slide(
            heading,
            bell,
            order=(
                Build(id="b", object_id="bell-p", effect="enters fade", starts=OnCue("q"), after_ms=0, lasts_ms=400),
            ),
        )
        for fine in (slide(bell, heading), comes_later, slide(words("The rope"), bell)):
            self.assertEqual(self.found(show(fine), "covered title"), [])


class WholeTest(SimpleTestCase):
    def test_what_hurts_most_comes_first_then_what_comes_first(self) -> None:
        for value in (orlmere(), told()):
            found = find_problems(value)
            self.assertEqual(
                [*found], sorted(found, key=lambda finding: (SEVERITIES.index(finding.severity), finding.at_ms))
            )
            self.assertEqual(len({finding.id for finding in found}), len(found), "each has an id of its own")

    def test_the_demo_has_two_findings_that_teach(self) -> None:
        self.assertEqual([finding.id for finding in find_problems(orlmere())], ["holds:who-s", "reading:thx-s"])

    def test_every_fix_of_the_demo_fixes(self) -> None:
        value = orlmere()
        for finding in find_problems(value):
            if finding.fix is not None:
                after = apply_edit(value, finding.fix.edit).show
                self.assertNotIn(finding.id, [other.id for other in find_problems(after)], finding.title)

    def test_an_empty_show_has_nothing_to_find(self) -> None:
        self.assertEqual(find_problems(show()), ())


class FixedTest(SimpleTestCase):
    def test_what_a_fix_does_to_the_time_is_said_before_it_is_made(self) -> None:
        line = "So many words that nobody reads them all in so short a time, as everybody knows who has tried it once"
        short = slide(words(line), advance=AdvanceAfter(2000))
        before = show(short, slide(words("End", object_id="end"), slide_id="two", advance=AdvanceAfter(4000)))
        finding = next(entry for entry in find_problems(before) if entry.check == "reading")
        would = preview_fix(before, finding)
        lasts = would.after_ms - 4000
        self.assertEqual(
            would.words,
            f"Slide 1 lasts {lasts / 1000:.1f} s instead of 2.0 s. The show lasts "
            f"{clock_text(would.after_ms)} instead of 0:06.0.",
        )
        self.assertEqual((would.before_ms, compile_show(would.show).length_ms), (6000, would.after_ms))
        self.assertNotIn(finding.id, [entry.id for entry in find_problems(would.show)])

    def test_a_fix_that_takes_no_time_says_so(self) -> None:
        before = show(
            slide(
                Picture("p", "The bell", Box(0, 0, 1280, 720), "bell", alternative="The bell"),
                advance=AdvanceOnCue("on"),
            )
        )
        finding = next(entry for entry in find_problems(before) if entry.check == "holds")
        self.assertEqual(preview_fix(before, finding).words, "Nothing becomes longer or shorter.")

    def test_what_has_no_fix_is_refused(self) -> None:
        finding = Finding(id="x:y", check="x", severity="hurts", title="Too loud", why="It hurts.")
        with self.assertRaisesMessage(BadValue, "Nothing fixes “Too loud” by itself."):
            preview_fix(show(slide()), finding)
