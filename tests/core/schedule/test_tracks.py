import random

import msgspec
from django.test import SimpleTestCase

from bench.schedule import slide
from ritornel.core.document import Build, Follows, Frame, OnCue, Show, Slide, Together
from ritornel.core.errors import BadValue
from ritornel.core.motion.sampling import Instant, values_at
from ritornel.core.schedule import compile_show
from ritornel.core.schedule.slide_schedule import compile_slide
from ritornel.core.schedule.tracks import compile_tracks, instant_at, object_values
from ritornel.core.time.counts import UNTIL_SLIDE_ENDS
from tests.examples import shape


class TracksTest(SimpleTestCase):
    def test_what_is_looked_up_of_objects_at_rest_is_what_their_tracks_say(self) -> None:
        slides = tuple(slide(number) for number in range(3))  # every kind of effect, repeats that go on among them
        schedule = compile_show(Show("show", "Show", slides=slides))
        chance = random.Random(5)
        for one, times in zip(slides, schedule.slides, strict=True):
            tracks = compile_tracks(one, times, Frame())
            begun = tuple(float(entry.start_ms) for entry in times.beats)
            moments = [
                Instant(beat, float("inf"), float(entry.end_ms), begun) for beat, entry in enumerate(times.beats)
            ]
            for _ in range(60):
                beat = chance.randrange(len(times.beats))
                since = chance.random() * 4000 - 500
                moments.append(instant_at(times, times.beats[beat].start_ms + since, beat, since))
            for at in moments:
                direct = {(motion.object_id, motion.part): values_at(motion, at) for motion in tracks.motions}
                self.assertEqual(object_values(tracks, at), direct)

    def test_what_is_repeated_until_its_slide_ends_never_rests(self) -> None:
        order = (
            Build(id="p", object_id="x", effect="accents pulse", starts=Follows(), repeats=UNTIL_SLIDE_ENDS),
            Build(id="f", object_id="y", effect="accents pulse", starts=OnCue("c")),
        )
        one = Slide("s", objects=(shape("x"), shape("y")), order=order)
        pulsing, once = compile_tracks(one, compile_slide(one, 2000, {}), Frame()).rests
        self.assertIsNone(pulsing.after)
        self.assertIsNotNone(once.after)

    def test_an_object_whose_first_build_does_not_enter_is_there_from_the_start(self) -> None:
        """By its time; at one time, by the list."""
        accent, enter = (
            Build(id="a", object_id="x", effect="accents pulse", starts=Together(), after_ms=0, lasts_ms=400),
            Build(id="e", object_id="x", effect="enters fade", starts=Together(), after_ms=0, lasts_ms=400),
        )
        for order, there in (
            ((accent, enter), True),
            ((enter, accent), False),
            ((msgspec.structs.replace(accent, after_ms=900), enter), False),
        ):
            one = Slide("s", objects=(shape("x"),), order=order)
            times = compile_show(Show("show", "Show", slides=(one,))).slides[0]
            values = object_values(compile_tracks(one, times, Frame()), instant_at(times, 0, 0, -1.0))
            self.assertEqual(values["x", None].shown, there, [build.id for build in order])

    def test_a_blink_goes_and_comes_at_most_twice_a_second(self) -> None:
        def blinking(lasts_ms: int, repeats: int) -> None:
            one = Slide(
                "s",
                "Bell",
                objects=(shape("x"),),
                order=(
                    Build(
                        id="b",
                        object_id="x",
                        effect="accents blink",
                        starts=Together(),
                        lasts_ms=lasts_ms,
                        repeats=repeats,
                    ),
                ),
            )
            compile_tracks(one, compile_show(Show("show", "Show", slides=(one,))).slides[0], Frame())

        for repeats in (2, 0):
            with self.assertRaisesMessage(
                BadValue, "Blink: every 0.499 s is more often than eyes can bear; at least 0.5 s each, twice a second."
            ):
                blinking(499, repeats)
        blinking(500, 0)
        blinking(100, 1)
