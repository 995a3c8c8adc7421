from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document.objects import Caption
from ritornel.core.errors import BadMedia
from ritornel.core.formats.webvtt import read_captions, write_webvtt

VTT = """WEBVTT - the winders

NOTE written by hand

STYLE
::cue { color: red }

intro
00:01.000 --> 00:03.500 line:0 align:start
<v Ines>The weight &amp; the <b>chain</b></v>

01:00:02.250 --> 01:00:04.000
Two lines,
one cue
"""
SRT = "1\r\n00:00:01,000 --> 00:00:02,000\r\nTick\r\n\r\n2\r\n00:00:02,000 --> 00:00:03,000\r\nTock\r\n"


class ReadTest(SimpleTestCase):
    def test_times_words_and_nothing_of_style_and_place(self) -> None:
        captions, told = read_captions(VTT.encode(), "x.vtt")
        self.assertEqual(
            captions,
            (Caption(1000, 3500, "The weight & the chain"), Caption(3_602_250, 3_604_000, "Two lines,\none cue")),
        )
        self.assertEqual(told, ())

    def test_srt_with_a_byte_order_mark_or_in_an_old_encoding(self) -> None:
        self.assertEqual(
            [caption.text for caption in read_captions(b"\xef\xbb\xbf" + SRT.encode(), "x.srt")[0]], ["Tick", "Tock"]
        )
        self.assertEqual(read_captions(SRT.replace("Tick", "caf\xe9").encode("cp1252"), "x.srt")[0][0].text, "caf\xe9")

    def test_what_overlaps_or_has_no_length_is_fixed_and_told(self) -> None:
        text = (
            "WEBVTT\n\n00:00.000 --> 00:02.000\nOne\n\n00:01.000 --> 00:03.000\nTwo\n\n00:04.000 --> "
            "00:04.000\nThree\n\n00:05.000 --> 00:06.000\n \n"
        )
        captions, told = read_captions(text.encode(), "x.vtt")
        self.assertEqual(captions, (Caption(0, 2000, "One"), Caption(2000, 3000, "Two")))
        left_out = "2 captions of “x.vtt” had no words or no length and were left out."
        self.assertEqual(told, (left_out, "1 began before the one before had ended, and begins later now."))

    def test_a_file_without_captions_is_told(self) -> None:
        for data in (b"", b"\x89PNG\r\n", b"WEBVTT\n\nNOTE nothing"):
            with self.assertRaisesMessage(BadMedia, "holds no captions"):
                read_captions(data, "x.vtt")

    WORDS = st.text(st.characters(whitelist_categories=("L", "N", "P", "S")), min_size=1, max_size=30)

    @given(st.lists(st.tuples(st.integers(0, 50_000), st.integers(1, 50_000), WORDS), max_size=8))
    def test_what_is_written_is_read_again(self, given_: list[tuple[int, int, str]]) -> None:
        captions, at = [], 0
        for gap, lasts, text in given_:
            if "-->" in text or "\u2028" in text:
                continue
            captions.append(Caption(at + gap, at + gap + lasts, text))
            at += gap + lasts
        if captions:
            self.assertEqual(read_captions(write_webvtt(tuple(captions)).encode(), "x.vtt")[0], tuple(captions))
