import itertools
import math

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Frame, Transition
from ritornel.core.motion.channels import Values
from ritornel.core.motion.depth import Homography, homography, in_depth
from ritornel.core.schedule.tracks import layer_values, layers_of

FRAME = Frame()
SIDES = ("left", "right", "above", "below")


def seen(where: Homography, x: float, y: float) -> tuple[float, float]:
    a, b, c, d, e, f, g, h, i = where
    w = g * x + h * y + i
    return (a * x + b * y + c) / w, (d * x + e * y + f) / w


class DepthTest(SimpleTestCase):
    @given(st.floats(0, 1280), st.floats(0, 720))
    def test_what_is_not_turned_is_seen_where_it_is(self, x: float, y: float) -> None:
        where = homography(Values(), 1280, 720)
        assert where is not None
        self.assertTrue(math.dist(seen(where, x, y), (x, y)) < 1e-6)

    def test_a_cube_turned_by_half_a_quarter_shows_its_edge_in_the_middle_and_larger(self) -> None:
        where = homography(Values(yaw=45, hinge=(640, 360, -640)), 1280, 720)
        assert where is not None
        (x, top), (_, bottom) = seen(where, 0, 0), seen(where, 0, 720)
        self.assertAlmostEqual(x, 640)
        # The edge is at z = 640 (√2 - 1) = 265; from a camera 2 560 px away it is seen 2 560 / 2 295 as large.
        self.assertAlmostEqual(bottom - top, 720 * 2560 / (2560 - 640 * (math.sqrt(2) - 1)))

    def test_a_layer_is_in_depth_where_it_is_turned_either_way(self) -> None:
        self.assertEqual(
            [in_depth(values) for values in (Values(), Values(yaw=5), Values(pitch=-5))], [False, True, True]
        )

    def test_a_slide_seen_from_behind_is_not_seen(self) -> None:
        self.assertIsNone(homography(Values(yaw=120), 1280, 720))
        self.assertIsNotNone(homography(Values(yaw=80), 1280, 720))

    def test_the_sides_of_a_turning_cube_share_an_edge_all_the_way(self) -> None:
        for side, share in itertools.product(SIDES, (0.1, 0.3, 0.5, 0.8)):
            layers = layers_of(Transition("turn", 1000, "even", {"comes_from": side}), FRAME)
            old, new = (homography(layer_values(ramps, share), 1280, 720) for ramps in (layers.old, layers.new))
            far_old = {"left": (0, 200), "right": (1280, 200), "above": (300, 0), "below": (300, 720)}[side]
            far_new = {"left": (1280, 200), "right": (0, 200), "above": (300, 720), "below": (300, 0)}[side]
            if old is not None and new is not None:
                self.assertLess(math.dist(seen(old, *far_old), seen(new, *far_new)), 1e-6, f"{side} {share}")
        self.assertTrue(old is not None or new is not None)

    def test_a_turned_page_hides_nothing_when_it_is_over(self) -> None:
        for side, bound in (("left", (0, 100)), ("right", (1280, 100)), ("above", (100, 0))):
            layers = layers_of(Transition("page turn", 1000, "even", {"bound_at": side}), FRAME)
            middle = homography(layer_values(layers.old, 0.5), 1280, 720)
            assert middle is not None
            self.assertLess(math.dist(seen(middle, *bound), bound), 1e-6, "the bound edge stays")
            last = homography(layer_values(layers.old, 0.9999), 1280, 720)
            free = (1280 - bound[0], 300) if side != "above" else (300, 720)
            assert last is not None
            x, y = seen(last, *free)
            self.assertLess(abs(x - bound[0]) if side != "above" else abs(y - bound[1]), 1.0)
