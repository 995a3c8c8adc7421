import itertools
import math

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Frame
from ritornel.core.document.framings import View, whole_view
from ritornel.core.document.show import Slide
from ritornel.core.motion.flight import flight_ms, path_length, view_on_path

VIEWS = st.builds(View, st.floats(0, 4000), st.floats(0, 4000), st.floats(50, 4000), st.floats(-180, 180))


class FlightTest(SimpleTestCase):
    def test_the_worked_example_zooms_in_on_its_own_middle(self) -> None:
        first, last = View(1280, 360, 2560), View(1280, 360, 640)
        self.assertAlmostEqual(path_length(first, last), math.log(4) / 1.4)
        self.assertEqual(flight_ms(first, last), 1485)
        self.assertAlmostEqual(view_on_path(first, last, 0.5).width_px, 1280)

    def test_a_turn_takes_a_third_of_a_second_for_every_right_angle(self) -> None:
        first, last = View(1280, 360, 2560), View(1280, 360, 2560, 180)
        self.assertEqual((flight_ms(first, last), flight_ms(first, first)), (667, 0))

    @given(VIEWS, VIEWS)
    def test_it_begins_and_ends_where_it_should_and_is_as_long_either_way(self, one: View, other: View) -> None:
        self.assertEqual((view_on_path(one, other, 0.0), view_on_path(one, other, 1.0)), (one, other))
        near = view_on_path(one, other, 1 - 1e-9)
        self.assertLess(math.hypot(near.x - other.x, near.y - other.y) / other.width_px, 1e-3)
        self.assertLess(abs(near.width_px / other.width_px - 1), 1e-3)
        self.assertAlmostEqual(
            path_length(one, other), path_length(other, one), delta=1e-6 * (1 + path_length(one, other))
        )

    @given(VIEWS, VIEWS)
    def test_what_is_seen_moves_at_one_speed_all_the_way(self, one: View, other: View) -> None:
        # The metric of equation 2, over a small step: all steps of equal share are equally long.
        if path_length(one, other) < 1e-3:
            return
        n = 400
        views = [view_on_path(one, other, k / n) for k in range(n + 1)]
        speeds = []
        for a, b in itertools.pairwise(views):
            w = (a.width_px + b.width_px) / 2
            speeds.append(math.hypot(1.4 * math.hypot(b.x - a.x, b.y - a.y) / w, (b.width_px - a.width_px) / (1.4 * w)))
        self.assertLess(max(speeds) / (sum(speeds) / n), 1.02)

    def test_far_away_it_goes_out_before_it_goes_across(self) -> None:
        middle = view_on_path(View(0, 0, 400), View(4000, 0, 400), 0.5)
        self.assertGreater(middle.width_px, 3000)
        self.assertAlmostEqual(middle.x, 2000)

    def test_the_whole_of_a_slide_fits_the_frame(self) -> None:
        wide = whole_view(Slide("s", size=Frame(4000, 720)), Frame())
        tall = whole_view(Slide("s", size=Frame(1280, 1440)), Frame())
        self.assertEqual((wide.width_px, wide.x, wide.y), (4000, 2000, 360))
        self.assertEqual((tall.width_px, tall.x, tall.y), (2560, 640, 720))
