import unittest

from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document.objects import Box, Paragraph, Shape, Text, TextRun
from ritornel.core.document.show import Frame, Show, Slide
from ritornel.core.layout.clear_place import clear_place, covers_words
from ritornel.core.layout.drawing import scenery_of

FRAME = Frame()
SCENERY = scenery_of(Show("s", "Show"))


def text(x: float, y: float, width: float, line: str, object_id: str = "t") -> Text:
    return Text(object_id, "Words", Box(x, y, width, 60), paragraphs=(Paragraph("p", (TextRun(line),)),))


class ClearPlaceTest(unittest.TestCase):
    def test_on_an_empty_slide_it_is_large_and_at_the_right_bottom(self) -> None:
        self.assertEqual(clear_place(Slide("s"), FRAME, SCENERY), Box(742.4, 310.4, 512, 384))

    def test_it_steps_aside_from_words_and_where_it_can_from_the_rest(self) -> None:
        words = text(700, 500, 500, "Thirty teeth, and one at a time")
        box = clear_place(Slide("s", objects=(words,)), FRAME, SCENERY)
        self.assertFalse(covers_words(box, (words,), SCENERY))
        self.assertEqual(box.width, 512, "there is room for it above")
        wheel = Shape("wheel", "Wheel", Box(700, 0, 580, 480), "rectangle")
        beside = clear_place(Slide("s", objects=(wheel, words)), FRAME, SCENERY)
        self.assertLess(beside.x + beside.width, 700)

    def test_what_fills_the_frame_is_a_ground_to_stand_on(self) -> None:
        ground = Shape("ground", "Ground", Box(0, 0, 1280, 720), "rectangle")
        self.assertEqual(clear_place(Slide("s", objects=(ground,)), FRAME, SCENERY).width, 512)

    def test_where_words_are_everywhere_it_is_small_and_covers_least(self) -> None:
        lines = tuple(text(0, 60 * n, 1280, "one tooth at a time, and again " * 3, f"t{n}") for n in range(12))
        self.assertEqual(clear_place(Slide("s", objects=lines), FRAME, SCENERY).width, 204.8)

    @given(st.lists(st.tuples(st.integers(0, 900), st.integers(0, 640)), max_size=4))
    def test_it_lies_within_the_frame_and_covers_no_words_while_there_is_room(
        self, places: list[tuple[int, int]]
    ) -> None:
        items = tuple(text(x, y, 300, "a tooth", f"t{n}") for n, (x, y) in enumerate(places))
        box = clear_place(Slide("s", objects=items), FRAME, SCENERY)
        self.assertGreaterEqual(min(box.x, box.y), 0)
        self.assertLessEqual(box.x + box.width, 1280)
        self.assertLessEqual(box.y + box.height, 720)
        self.assertFalse(covers_words(box, items, SCENERY))
