import json
import re
from pathlib import Path

import msgspec
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.document import Build, Follows, Frame, OnCue, Slide, Together, Transition
from ritornel.core.errors import BadValue, UnknownName
from ritornel.core.motion.catalogue import EFFECTS, TRANSITIONS, effect_forms, effect_named, transition_named
from ritornel.core.motion.channels import Mask
from ritornel.core.motion.easing import PACES, ease
from ritornel.core.motion.effects.travels_along import points_on
from ritornel.core.motion.masks import mask_outline
from ritornel.core.motion.sampling import Instant, Motion, value_at, values_at
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.core.schedule.tracks import compile_tracks, layers_of
from tests.examples import shape

VECTORS = Path(__file__).parents[2] / "vectors" / "motion.json"
FRAME = Frame()


def tracks_of(*order: Build, **more: object) -> tuple[Motion, ...]:
    slide = Slide("s", objects=(shape("x"), shape("y")), order=order, **more)  # type: ignore[arg-type]
    return compile_tracks(slide, compile_slide(slide, 2000, {}), FRAME).motions


def at(beat: int, since: float, *begun: float) -> Instant:
    return Instant(beat, since, (begun or (0.0,) * (beat + 1))[-1] + since, begun or (0.0,) * (beat + 1))


class EasingTest(SimpleTestCase):
    @given(st.sampled_from(sorted(PACES)), st.floats(0, 1), st.floats(0, 1))
    def test_paces_run_from_0_to_1_and_never_back(self, pace: str, one: float, other: float) -> None:
        curve = PACES[pace]
        self.assertLessEqual(ease(min(one, other), curve), ease(max(one, other), curve) + 1e-9)
        self.assertEqual((ease(0, curve), ease(1, curve)), (0, 1))

    @given(st.lists(st.sampled_from([0.0, 0.05, 0.5, 0.95, 1.0]), min_size=4, max_size=4), st.floats(0.001, 0.999))
    def test_it_is_the_height_of_the_curve_over_that_progress_also_where_the_curve_is_steep(
        self, points: list[float], t: float
    ) -> None:
        x1, y1, x2, y2 = points
        over, height = (
            3 * (1 - t) ** 2 * t * one + 3 * (1 - t) * t * t * two + t**3 for one, two in ((x1, x2), (y1, y2))
        )
        # Where the curve stands upright a billionth of progress is a thousandth of height.
        self.assertAlmostEqual(ease(over, (x1, y1, x2, y2)), height, delta=2e-3)

    def test_a_curve_known_from_css_has_its_known_value(self) -> None:
        # cubic-bezier(0.42, 0, 0.58, 1) passes through its middle.
        self.assertAlmostEqual(ease(0.5, (0.42, 0, 0.58, 1)), 0.5, places=9)


class AlongTest(SimpleTestCase):
    def test_what_goes_round_a_square_turns_on_through_half_a_circle(self) -> None:
        path = "M 0 0 L 100 0 L 100 100 L 0 100 L 0 0"
        build = Build(
            id="b",
            object_id="x",
            effect="travels along",
            starts=Follows(),
            settings={"path": path, "turns": "along the path"},
            lasts_ms=1000,
            pace="even",
        )
        (motion,) = tracks_of(build)
        turns = [values_at(motion, at(0, since)).turn for since in (0.0, 370.0, 620.0, 1000.0)]
        self.assertEqual([round(turn, 6) for turn in turns], [0, 90, 180, 270])


class ContractTest(SimpleTestCase):
    """What every effect and transition promises, found by looking at all that ship."""

    NEUTRAL = dict.fromkeys(("opacity", "scale", "wide", "reveal", "drawn", "typed"), 1.0) | dict.fromkeys(
        ("x", "y", "turn", "tint", "yaw", "pitch"), 0.0
    )

    def test_effects_begin_and_end_as_their_kind_says(self) -> None:
        for effect in EFFECTS.values():
            for ramp in effect.ramps(effect.settings(), PACES["ease out"]):
                first, last = value_at(ramp.keys, ramp.curve, 0.0), value_at(ramp.keys, ramp.curve, 1.0)
                with self.subTest(effect.name, channel=ramp.channel):
                    self.assertNotIn(ramp.channel, ("yaw", "pitch"), "objects know no depth")
                    if effect.kind in ("enters", "accents"):
                        self.assertEqual(last, self.NEUTRAL[ramp.channel])
                    if effect.kind == "leaves" or (effect.kind == "accents" and effect.extra is None):
                        self.assertEqual(first, self.NEUTRAL[ramp.channel])
                    self.assertEqual([key[0] for key in ramp.keys], sorted(key[0] for key in ramp.keys))

    def test_transitions_end_with_the_new_slide_in_place(self) -> None:
        for kind in TRANSITIONS.values():
            for ramp in kind.layers(kind.settings(), PACES["even"], 1280, 720).new:
                self.assertEqual(value_at(ramp.keys, ramp.curve, 1.0), self.NEUTRAL[ramp.channel], kind.name)

    def test_every_setting_has_a_control_with_its_bounds(self) -> None:
        rise = next(form for form in effect_forms() if form["name"] == "enters rise")
        self.assertEqual(
            rise["controls"],
            [{"name": "distance_px", "title": "Distance", "default": 40.0, "unit": "px", "least": 0, "most": 2000}],
        )

    def test_unknown_names_and_settings_raise(self) -> None:
        with self.assertRaisesMessage(UnknownName, "There is no effect “enters explode”"):
            effect_named("enters explode")
        with self.assertRaises(UnknownName):
            transition_named("teleport")
        with self.assertRaisesMessage(BadValue, "distance_px"):
            tracks_of(
                Build(id="b", object_id="x", effect="enters rise", starts=Follows(), settings={"distance_px": -5})
            )

    def test_a_path_is_at_least_one_px_long(self) -> None:
        self.assertEqual(points_on("M 0 0 L 1.5 0"), [(0.0, 0.0), (1.5, 0.0)])
        with self.assertRaisesMessage(BadValue, "The path has no length"):
            points_on("M 0 0 L 0.9 0")

    def test_push_moves_both_slides_by_the_frame(self) -> None:
        layers = layers_of(Transition("push", 500, "even", {"comes_from": "above"}), FRAME)
        self.assertEqual(
            (layers.new[0].keys, layers.old[0].keys), (((0.0, -720.0), (1.0, 0.0)), ((0.0, -0.0), (1.0, 720.0)))
        )

    def test_strips_of_blinds_lie_or_stand(self) -> None:
        def angle_deg(**settings: str) -> float:
            (ramp,) = layers_of(Transition("blinds", 900, settings=settings), FRAME).new
            assert ramp.mask
            return ramp.mask.angle_deg

        self.assertEqual((angle_deg(), angle_deg(strips="lying"), angle_deg(strips="standing")), (90, 90, 0))

    def test_each_strip_begins_at_its_own_place(self) -> None:
        """Half of three lying strips of 300 px: from 0, 100 and 200 on, 50 px each."""
        outline = mask_outline(Mask("blinds", 90.0, 3), 0.5, (0, 0, 300, 300))
        heights = [
            tuple(float(y) for y in re.findall(r" (-?[\d.]+) L", strip)[::2]) for strip in outline.split("Z")[:3]
        ]
        self.assertEqual([strip.count("L") for strip in outline.split("Z")[:3]], [3, 3, 3])
        self.assertEqual(heights, [(0, 50), (100, 150), (200, 250)])

    def test_cells_are_about_square(self) -> None:
        """16 across are 9 down in 16:9, and 28 in 9:16; 9 across 16:9 are 5.06, so 5."""
        sizes = ((16, 1280, 720, 9), (16, 720, 1280, 28), (9, 1280, 720, 5), (4, 1280, 20, 1))
        for columns, width, height, rows in sizes:
            outline = mask_outline(Mask("cells", 0, columns), 1.0, (0, 0, width, height))
            self.assertEqual(outline.count("M"), columns * rows, (columns, width, height))


class PresenceTest(SimpleTestCase):
    def test_an_object_that_enters_is_away_until_then(self) -> None:
        (motion,) = tracks_of(
            Build(id="b", object_id="x", effect="enters fade", starts=OnCue("q"), after_ms=100, lasts_ms=400)
        )
        shown = [values_at(motion, instant).shown for instant in (at(0, 5000), at(1, 99), at(1, 100), at(1, 1e9))]
        self.assertEqual(shown, [False, False, True, True])

    def test_after_leaving_it_is_away_until_it_enters_again(self) -> None:
        (motion,) = tracks_of(
            Build(id="a", object_id="x", effect="leaves fade", starts=Follows(), after_ms=0, lasts_ms=400),
            Build(
                id="b", object_id="x", effect="enters fade", starts=OnCue("q"), after_ms=0, lasts_ms=400, pace="even"
            ),
        )
        self.assertTrue(values_at(motion, at(0, 399)).shown)
        self.assertFalse(values_at(motion, at(0, 400)).shown)
        self.assertAlmostEqual(values_at(motion, at(1, 200)).opacity, 0.5)
        self.assertEqual(values_at(motion, at(1, float("inf"))).opacity, 1.0)

    def test_builds_of_an_earlier_beat_are_complete_even_when_cut_off(self) -> None:
        motions = tracks_of(
            Build(id="a", object_id="x", effect="enters rise", starts=Follows(), after_ms=0, lasts_ms=5000),
            Build(id="b", object_id="y", effect="enters fade", starts=OnCue("q"), after_ms=0, lasts_ms=400),
        )
        first = next(motion for motion in motions if motion.object_id == "x")
        self.assertEqual(values_at(first, at(1, 0)), values_at(first, at(0, float("inf"))))

    def test_an_accent_until_the_slide_ends_runs_on_beneath_later_beats(self) -> None:
        motions = tracks_of(
            Build(
                id="a",
                object_id="x",
                effect="accents pulse",
                starts=Follows(),
                after_ms=0,
                lasts_ms=1000,
                repeats=0,
                pace="even",
            ),
            Build(id="b", object_id="y", effect="enters fade", starts=OnCue("q")),
        )
        pulse = next(motion for motion in motions if motion.object_id == "x")
        later = Instant(1, 10, 5400, (0.0, 5390.0))
        self.assertAlmostEqual(values_at(pulse, later).scale, 1.12)

    def test_two_builds_at_once_add_up(self) -> None:
        (motion,) = tracks_of(
            Build(
                id="a", object_id="x", effect="enters settle", starts=Follows(), after_ms=0, lasts_ms=1000, pace="even"
            ),
            Build(
                id="b", object_id="x", effect="accents pulse", starts=Together(), after_ms=0, lasts_ms=1000, pace="even"
            ),
        )
        self.assertAlmostEqual(values_at(motion, at(0, 400)).scale, 1.09 * 1.12)


class VectorTest(SimpleTestCase):
    def test_values_are_those_the_browser_is_held_to(self) -> None:
        vectors = json.loads(VECTORS.read_text())
        self.assertGreater(len(vectors["motions"]), 4)
        for case in vectors["motions"]:
            motion = msgspec.convert(case["motion"], Motion)
            for given_at, expected in case["values"]:
                instant = msgspec.convert(
                    {**given_at, "since_ms": float("inf") if given_at["since_ms"] is None else given_at["since_ms"]},
                    Instant,
                )
                values = msgspec.to_builtins(values_at(motion, instant))
                for channel, value in expected.items():
                    self.assertAlmostEqual(values[channel], value, places=9)
        for curve, progress, value in vectors["easing"]:
            self.assertAlmostEqual(ease(progress, tuple(curve)), value, places=12)
