import unittest

from msgspec.structs import replace

from ritornel.core.document import AdvanceAfter, Box, Build, Follows, Show, Slide
from ritornel.core.document.objects import PLAYS, Caption, Clip, Paragraph, Text, TextRun
from ritornel.core.document.show import Asset
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.transcript import TranscriptSlide, transcript_of


def text(*lines: str) -> Text:
    paragraphs = tuple(Paragraph(f"p{n}", (TextRun(line),)) for n, line in enumerate(lines))
    return Text("t", "Words", Box(0, 0, 600, 200), paragraphs=paragraphs)


class TranscriptTest(unittest.TestCase):
    def test_each_slide_has_its_words_and_what_is_spoken_on_it_in_order(self) -> None:
        asset = Asset("clip", "Clip", "a" * 64, "video/mp4", size_bytes=1, width_px=64, height_px=36, lasts_ms=3000)
        captions = (Caption(200, 900, "One tooth"), Caption(1000, 1500, "and one more"))
        clip = Clip("c", "Clip", Box(0, 300, 64, 36), "clip", out_ms=3000, captions=captions)
        build = Build(id="play", object_id="c", effect=PLAYS, starts=Follows())
        first = Slide("a", "", objects=(text("The escapement", "lets one tooth pass"),), advance=AdvanceAfter(2000))
        second = Slide("b", "The bell", objects=(clip,), order=(build,), advance=AdvanceAfter(4000))
        hidden = Slide("c", "Put aside", skipped=True)
        show = Show("s", "Show", slides=(first, hidden, second), assets=(asset,))
        self.assertEqual(
            transcript_of(perform(show)),
            (
                TranscriptSlide(1, "The escapement", 0, ("lets one tooth pass",), ()),
                TranscriptSlide(2, "The bell", 2000, (), ("One tooth", "and one more")),
            ),
        )

    def test_a_show_without_slides_says_nothing(self) -> None:
        self.assertEqual(transcript_of(perform(replace(Show("s", "Show"), slides=()))), ())
