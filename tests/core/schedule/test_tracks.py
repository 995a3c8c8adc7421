import random

from django.test import SimpleTestCase

from bench.schedule import slide
from ritornel.core.document import Frame, Show
from ritornel.core.motion.sampling import values_at
from ritornel.core.schedule import compile_show
from ritornel.core.schedule.tracks import compile_tracks, instant_at, object_values, rest_instant


class TracksTest(SimpleTestCase):
    def test_what_is_looked_up_of_objects_at_rest_is_what_their_tracks_say(self) -> None:
        slides = tuple(slide(number) for number in range(3))  # every kind of effect, repeats that go on among them
        schedule = compile_show(Show("show", "Show", slides=slides))
        chance = random.Random(5)
        for one, times in zip(slides, schedule.slides, strict=True):
            tracks = compile_tracks(one, times, Frame())
            moments = [rest_instant(times, beat) for beat in range(len(times.beats))]
            for _ in range(60):
                beat = chance.randrange(len(times.beats))
                since = chance.random() * 4000 - 500
                moments.append(instant_at(times, times.beats[beat].start_ms + since, beat, since))
            for at in moments:
                direct = {(motion.object_id, motion.part): values_at(motion, at) for motion in tracks.motions}
                self.assertEqual(object_values(tracks, at), direct)
