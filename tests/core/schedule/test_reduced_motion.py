import msgspec
from django.test import SimpleTestCase

from ritornel.core.motion.channels import Values
from ritornel.core.schedule.performance import Performance, frame_state_at, frame_state_at_rest, perform
from ritornel.core.schedule.reduced_motion import calm_performance
from tests.kinds import every_effect

STEP_MS = 40


class CalmTest(SimpleTestCase):
    """Over a show with every effect and every transition there is."""

    lively: Performance
    calm: Performance

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.lively = perform(every_effect())
        cls.calm = calm_performance(cls.lively)

    def test_nothing_moves_grows_or_turns_but_at_once(self) -> None:
        """Between one instant and the next a value that is not a fade either stays or has jumped to where it will stay
        until its build is over.
        """
        moving = ("x", "y", "scale", "turn", "wide", "reveal", "drawn", "typed", "yaw", "pitch", "drift")
        seen: dict[tuple[object, ...], set[float]] = {}
        for at in range(0, self.calm.schedule.length_ms, STEP_MS):
            for layer in frame_state_at(self.calm, float(at)).layers:
                for target, values in (*layer.objects, (("layer", None), layer.values), (("view", None), layer.view)):
                    for channel in moving:
                        seen.setdefault((layer.index, target, channel), set()).add(round(getattr(values, channel), 6))
        wrong = {key: sorted(values)[:5] for key, values in seen.items() if len(values) > 2}
        self.assertEqual(wrong, {})

    def test_every_beat_ends_as_it_does_with_motion(self) -> None:
        for index, staged in enumerate(self.lively.slides):
            for beat in range(len(staged.schedule.beats)):
                lively, calm = (frame_state_at_rest(show, index, beat).layers[0] for show in (self.lively, self.calm))
                for (target, with_motion), (same, without) in zip(lively.objects, calm.objects, strict=True):
                    with self.subTest(staged.slide.name, target=target):
                        self.assertEqual(target, same)
                        kept = Values(
                            shown=with_motion.shown,
                            opacity=with_motion.opacity,
                            x=with_motion.x,
                            y=with_motion.y,
                            scale=with_motion.scale,
                            turn=with_motion.turn,
                        )
                        found = Values(
                            shown=without.shown,
                            opacity=without.opacity,
                            x=without.x,
                            y=without.y,
                            scale=without.scale,
                            turn=without.turn,
                        )
                        if with_motion.shown and all(build.repeats for build in staged.slide.order):
                            self.assertEqual(kept, found)
                self.assertEqual(lively.view, calm.view)

    def test_times_and_sounds_stay_and_a_cut_stays_a_cut(self) -> None:
        self.assertEqual(self.calm.schedule, self.lively.schedule)
        for slide, staged in zip(self.calm.slides, self.lively.slides, strict=True):
            self.assertEqual(
                bool(slide.tracks.layers.new),
                staged.schedule.transition_ms > 0 or staged.slide.transition.name != "cut",
            )

    def test_calming_twice_is_calming_once(self) -> None:
        once, twice = (
            [msgspec.to_builtins(slide.tracks) for slide in show.slides]
            for show in (self.calm, calm_performance(self.calm))
        )
        self.assertEqual(once, twice)
