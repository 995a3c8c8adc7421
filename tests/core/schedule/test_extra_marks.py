"""Marks that a build adds to its object: the ring around something."""

import re

from django.test import SimpleTestCase

from ritornel.core.document import Box, Build, OnCue, Show, Slide
from ritornel.core.document.objects import Object
from ritornel.core.layout.marks import ObjectDrawing, PathMark
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.tracks import extra_part
from tests.examples import shape, text


class RingTest(SimpleTestCase):
    def drawn(self, item: Object, part: str | None = None) -> tuple[ObjectDrawing, tuple[float, float, float, float]]:
        """The object, and left, top, right and bottom of its ring, in its box."""
        build = Build(id="b", object_id=item.id, effect="accents ring", starts=OnCue("c"), part=part)
        show = Show("show", "Show", slides=(Slide("s", objects=(item,), order=(build,)),))
        (drawing,) = perform(show).slides[0].drawing.objects
        part_drawing = next(entry for entry in drawing.parts if entry.part == extra_part(build))
        # It turns and grows around the middle of its object.
        self.assertEqual((part_drawing.pivot_x, part_drawing.pivot_y), (drawing.width / 2, drawing.height / 2))
        (ring,) = part_drawing.marks
        assert isinstance(ring, PathMark)
        numbers = [float(number) for number in re.findall(r"-?\d+(?:\.\d+)?", ring.d)]
        return drawing, (min(numbers[::2]), min(numbers[1::2]), max(numbers[::2]), max(numbers[1::2]))

    def boxed(self, width: float, height: float) -> tuple[float, float]:
        """How far a ring reaches to the right and below the middle of a box."""
        item = shape("x")
        _, (left, top, right, bottom) = self.drawn(type(item)("x", "X", Box(0, 0, width, height), "rectangle"))
        self.assertAlmostEqual((left + right) / 2, width / 2, places=2)
        self.assertAlmostEqual((top + bottom) / 2, height / 2, places=2)
        return round((right - left) / 2, 2), round((bottom - top) / 2, 2)

    def test_it_goes_through_the_corners_and_14_px_further(self) -> None:
        """50 * 2 ** 0.5 + 14 = 84.71."""
        self.assertEqual(self.boxed(100, 100), (84.71, 84.71))

    def test_flat_things_have_less_to_their_sides(self) -> None:
        """150 * 1.15 + 14 = 186.5, half as high as wide is not flat yet: 100 * 2 ** 0.5 + 14 = 155.42."""
        self.assertEqual(self.boxed(300, 100), (186.5, 84.71))
        self.assertEqual(self.boxed(200, 101)[0], 155.42)

    def test_around_one_paragraph_it_leaves_the_others_out(self) -> None:
        item = text("t", "One", "Two", "Three", overflow="grow")
        drawing, (_, top, _, bottom) = self.drawn(item, "t-2")
        part = next(entry for entry in drawing.parts if entry.part == "t-2")
        (baseline,) = {mark.baseline for mark in part.marks}
        others = [mark.baseline for entry in drawing.parts if entry.part in ("t-1", "t-3") for mark in entry.marks]
        self.assertTrue(top < baseline < bottom)
        self.assertLess(bottom - top, max(others) - min(others))
