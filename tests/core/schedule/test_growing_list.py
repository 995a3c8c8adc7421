from django.test import SimpleTestCase

from ritornel.core.document import Box, Build, Follows, OnCue, Paragraph, Show, Slide, Text, TextRun
from ritornel.core.layout.marks import TextMark
from ritornel.core.schedule.growing_list import heights
from ritornel.core.schedule.performance import frame_state_at_rest, perform
from tests.examples import text


def growing(*lines: str) -> Show:
    paragraphs = tuple(Paragraph(f"p{n}", (TextRun(line),)) for n, line in enumerate(lines))
    item = Text(
        "t",
        "List",
        Box(0, 100, 900, 400),
        paragraphs=paragraphs,
        size_px=40,
        line_spacing=1.25,
        paragraph_gap=0.5,
        growing=True,
    )
    order = tuple(
        Build(
            id=f"b{n}",
            object_id="t",
            effect="enters rise",
            starts=Follows() if n == 0 else OnCue(f"q{n}"),
            part=f"p{n}",
        )
        for n in range(len(lines))
    )
    return Show("s", "S", slides=(Slide("one", objects=(item,), order=order),))


class GrowingTest(SimpleTestCase):
    """Each line is 50 px high, gaps are 20 px:

    H_1 = 50, H_2 = 120, H_3 = 190. The anchor is 200 px below the box's top.
    """

    def test_heights_are_lines_and_the_gaps_between(self) -> None:
        show = perform(growing("Rope", "Teeth", "Dial"))
        self.assertEqual([round(high, 6) for high in heights(show.slides[0].drawing.objects[0])], [50, 120, 190])

    def test_with_k_lines_shown_the_block_stands_centred_on_its_anchor(self) -> None:
        show = perform(growing("Rope", "Teeth", "Dial"))
        drawing = show.slides[0].drawing.objects[0]
        for beat, height in enumerate((50, 120, 190)):
            values = dict(frame_state_at_rest(show, 0, beat).layers[0].objects)
            tops = [
                part.pivot_y - part.height / 2 + values["t", part.part].y
                for part in drawing.parts
                if values["t", part.part].shown
            ]
            self.assertEqual(len(tops), beat + 1)
            self.assertAlmostEqual(tops[0], 200 - height / 2)
            self.assertAlmostEqual(tops[-1] + 50, 200 + height / 2)

    def test_a_line_that_is_there_from_the_start_counts_from_the_start(self) -> None:
        show = growing("Rope", "Teeth")
        slide = show.slides[0]
        late = Slide("one", objects=slide.objects, order=slide.order[1:])
        staged = perform(Show("s", "S", slides=(late,)))
        values = dict(frame_state_at_rest(staged, 0, 0).layers[0].objects)
        drawing = staged.slides[0].drawing.objects[0]
        first = next(part for part in drawing.parts if part.part == "p0")
        self.assertAlmostEqual(first.pivot_y - 25 + values["t", "p0"].y, 200 - 25)

    def test_lines_glide_evenly_from_where_they_stood_while_the_next_comes(self) -> None:
        """The second line takes the block from 50 to 120 px: the first glides up by 35 px, from 35 to 0."""
        show = perform(growing("Rope", "Teeth"))
        glide = [
            segment
            for motion in show.slides[0].tracks.motions
            for segment in motion.segments
            if motion.part == "p0" and segment.channel == "y" and segment.build == 1
        ]
        self.assertEqual([segment.keys for segment in glide], [((0.0, 0.0), (1.0, -35.0))])

    def test_a_text_that_does_not_grow_has_no_gliding(self) -> None:
        show = perform(Show("s", "S", slides=(Slide("one", objects=(text("t", "a", "b"),)),)))
        self.assertEqual(show.slides[0].tracks.motions, ())
        marks = [
            mark
            for part in show.slides[0].drawing.objects[0].parts
            for mark in part.marks
            if isinstance(mark, TextMark)
        ]
        self.assertEqual(len(marks), 2)
