"""Something new steps aside where it would not be seen."""

from django.test import SimpleTestCase

from ritornel.core.document import Box, Frame, Plain, Shape, Show, Slide
from ritornel.core.document import edits as e
from ritornel.core.document.free_place import free_place

FRAME = Frame()


def square(name: str, x: float, y: float, colour: str = "@second") -> Shape:
    return Shape(name, name, Box(x, y, 240, 240), "rectangle", fill=Plain(colour))


def placed(new: Shape, *others: Shape) -> Box:
    (item,) = free_place((new,), others, FRAME, 1.0)
    return item.box


class FreePlaceTest(SimpleTestCase):
    def test_where_nothing_is_in_the_way_it_stays(self) -> None:
        self.assertEqual(placed(square("n", 520, 240)), Box(520, 240, 240, 240))
        self.assertEqual(placed(square("n", 520, 240), square("a", 10, 10)), Box(520, 240, 240, 240))

    def test_it_steps_to_the_right_and_down_from_one_of_another_colour(self) -> None:
        self.assertEqual(placed(square("n", 520, 240), square("a", 520, 240, "@accent")), Box(544, 264, 240, 240))

    def test_from_one_of_its_colour_it_goes_on_until_half_of_it_is_free(self) -> None:
        # After three steps of 24 px, (168 / 240)² = 49 % of it are covered.
        self.assertEqual(placed(square("n", 520, 240), square("a", 520, 240)), Box(592, 312, 240, 240))

    def test_ten_in_a_row_stand_apart(self) -> None:
        slide = Slide("s")
        show = Show("x", "X", slides=(slide,))
        for number in range(10):
            show = e.apply_edit(show, e.AddObjects("s", (square(f"n{number}", 520, 240),), where_free=True)).show
        corners = {(item.box.x, item.box.y) for item in show.slides[0].objects}
        self.assertEqual(len(corners), 10)
        for item in show.slides[0].objects:
            self.assertTrue(0 <= item.box.x <= 1280 - 240 and 0 <= item.box.y <= 720 - 240, item.box)
