"""Captions of voices from the notes: in pieces that are read at a glance, over the length of the voice."""

from itertools import pairwise

import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document.objects import Caption
from ritornel.core.document.show import Asset, Show, Slide, Voice
from ritornel.core.reference.captions import spoken_at
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.captions import compile_captions
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.spoken_notes import MOST_LETTERS, caption_texts, has_captions, spoken_captions
from ritornel.core.schedule.transcript import transcript_of

NOTES = "It ticks. It strikes the hour."


def slide(notes: str = NOTES, offset_ms: int = 300, lasts_ms: int = 2900) -> Slide:
    return Slide("s", notes=notes, voice=Voice("said", lasts_ms, offset_ms=offset_ms))


def show(**more: object) -> Show:
    said = Asset("said", "Said", "0" * 64, "audio/wav", size_bytes=1000, lasts_ms=9000)
    slides = (msgspec.structs.replace(slide(), id="one"), Slide("still", notes="Nobody says this."), slide())
    return Show("x", "X", slides=slides, assets=(said,), **more)  # type: ignore[arg-type]


class CaptionTextsTest(SimpleTestCase):
    def test_sentences_stand_by_themselves_and_long_ones_are_divided_at_clauses(self) -> None:
        long = (
            "The great wheel turns once an hour, the escape wheel lets one tooth pass for every swing, and the hands "
            "outside go on by half a minute."
        )
        self.assertEqual(
            caption_texts(f"Listen!\nIt ticks.  {long}"),
            (
                "Listen!",
                "It ticks.",
                "The great wheel turns once an hour,",
                "the escape wheel lets one tooth pass for every swing,",
                "and the hands outside go on by half a minute.",
            ),
        )

    def test_two_lines_of_42_letters_fit_into_one_caption_and_a_letter_more_does_not(self) -> None:
        self.assertEqual(len(caption_texts("x" * 84)), 1)
        self.assertEqual([len(text) for text in caption_texts("x" * 85)], [84, 1])

    def test_clauses_are_joined_as_long_as_they_fit_with_the_space_between_them(self) -> None:
        for second, sizes in ((40, [84, 5]), (41, [42, 48])):
            texts = caption_texts(", ".join(("a" * 41, "b" * second, "c" * 5)))
            self.assertEqual([len(text) for text in texts], sizes)

    @given(st.text(alphabet="abc ,.!?\n", max_size=400))
    def test_no_letter_is_lost_and_no_caption_is_too_long(self, notes: str) -> None:
        texts = caption_texts(notes)
        self.assertEqual("".join("".join(texts).split()), "".join(notes.split()))
        self.assertTrue(all(0 < len(text) <= MOST_LETTERS for text in texts))


class SpokenCaptionsTest(SimpleTestCase):
    def test_they_share_the_voice_by_their_letters(self) -> None:
        self.assertEqual(
            spoken_captions(slide()), (Caption(300, 1200, "It ticks."), Caption(1200, 3200, "It strikes the hour."))
        )

    def test_without_a_voice_or_notes_nothing_is_read(self) -> None:
        self.assertEqual(spoken_captions(Slide("s", notes=NOTES)), ())
        self.assertEqual(spoken_captions(slide(notes=" \n")), ())

    @given(st.text(min_size=1, max_size=300), st.integers(1, 60_000), st.integers(0, 5000))
    def test_they_follow_each_other_without_a_gap_from_the_voices_start_to_its_end(
        self, notes: str, lasts_ms: int, offset_ms: int
    ) -> None:
        found = spoken_captions(slide(notes, offset_ms, lasts_ms))
        if not caption_texts(notes):
            self.assertEqual(found, ())
            return
        self.assertEqual((found[0].start_ms, found[-1].end_ms), (offset_ms, offset_ms + lasts_ms))
        self.assertTrue(all(one.end_ms == other.start_ms for one, other in pairwise(found)))


class SpokenShowTest(SimpleTestCase):
    def test_they_are_read_where_the_maker_wants_it_and_given_to_nobody_else(self) -> None:
        plain = perform(show())
        self.assertEqual((compile_captions(plain), plain.spoken), ((), ()))
        self.assertEqual([has_captions(show()), has_captions(show(notes_as_captions=True))], [False, True])
        self.assertNotIn("ticks", str(audience_show(plain, {})))
        wanted = perform(show(notes_as_captions=True, language="de"))
        first, second = wanted.schedule.starts_ms[0], wanted.schedule.starts_ms[2]
        self.assertEqual(
            [(caption.start_ms, caption.text) for caption in compile_captions(wanted)],
            [
                (first + 300, "It ticks."),
                (first + 1200, "It strikes the hour."),
                (second + 300, "It ticks."),
                (second + 1200, "It strikes the hour."),
            ],
        )
        given_away = audience_show(wanted, {})
        self.assertEqual(given_away["language"], "de")
        self.assertEqual([len(entry.get("spoken", ())) for entry in given_away["slides"]], [2, 0, 2])
        self.assertNotIn("Nobody says this", str(given_away))
        self.assertEqual(transcript_of(wanted)[0].spoken, ("It ticks.", "It strikes the hour."))

    def test_at_an_instant_of_the_slides_clock(self) -> None:
        wanted = perform(show(notes_as_captions=True))
        read = [spoken_at(wanted, 0, at) for at in (299, 300, 1199.9, 1200, 3199, 3200)]
        self.assertEqual(read, ["", "It ticks.", "It ticks.", "It strikes the hour.", "It strikes the hour.", ""])
        self.assertEqual(spoken_at(wanted, 1, 500), "")
        self.assertEqual(spoken_at(perform(show()), 0, 500), "")

    def test_one_that_outlasts_its_slide_ends_with_it(self) -> None:
        long = msgspec.structs.replace(slide(lasts_ms=9000), id="one")
        performance = perform(msgspec.structs.replace(show(notes_as_captions=True), slides=(long,)))
        length_ms = performance.schedule.length_ms
        self.assertLessEqual(compile_captions(performance)[-1].end_ms, length_ms)
