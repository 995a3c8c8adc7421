import tempfile
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from django.test import SimpleTestCase

from ritornel.core.document import AdvanceAfter, Box, Build, Follows, Frame, Show, Slide
from ritornel.core.document.objects import PLAYS, Clip
from ritornel.core.formats.media import Limits, asset_from, examined
from ritornel.core.render.film import FilmOrder, write_film
from ritornel.core.schedule.performance import perform
from tests.footage import ROUND, footage, number_of


class FilmedClipTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        data = footage(90)
        self.source = self.folder / "clip.mp4"
        self.source.write_bytes(data)
        self.asset = asset_from(examined(data, "clip.mp4", Limits()), "clip", "Clip")

    def film(self, rate: int, **more: object) -> tuple[list[int], list[float], np.ndarray]:
        """The numbers of the clip's frames that a film shows, when, and its sound."""
        clip = Clip("clip", "Clip", Box(0, 0, 64, 36), "clip", **{"out_ms": 3000, "fit": "stretch", **more})  # type: ignore[arg-type]
        slide = Slide("s", "S", objects=(clip,), order=(Build("play", "clip", PLAYS, Follows()),), advance=AdvanceAfter(2000))
        show = Show("show", "Show", Frame(64, 36), slides=(slide,), assets=(self.asset,))
        path = self.folder / "film.mp4"
        write_film(perform(show), path, FilmOrder(64, 36, Fraction(rate)), lambda sha256: self.source)
        numbers, times, sound = [], [], []
        with av.open(str(path)) as container:
            for frame in container.decode(video=0):
                numbers.append(number_of(frame))
                times.append(float(frame.pts * frame.time_base))
        with av.open(str(path)) as container:
            sound = [frame.to_ndarray().T for frame in container.decode(audio=0)]
        return numbers, times, np.concatenate(sound)

    def test_each_frame_shows_the_clip_at_its_own_time_from_the_in_point_on(self) -> None:
        numbers, times, _ = self.film(30, in_ms=1000, out_ms=2000)
        for number, at in list(zip(numbers, times, strict=True))[:30]:
            self.assertEqual(number, (30 + round(at * 30)) % ROUND, at)

    def test_it_stops_exactly_on_the_last_picture_before_the_out_point_and_lasts_as_long(self) -> None:
        numbers, times, _ = self.film(30, in_ms=500, out_ms=1500)
        self.assertEqual(numbers[-1], 44 % ROUND)
        self.assertGreater(times[-1], 1.9)
        numbers, _, _ = self.film(30, out_ms=3000)
        self.assertEqual(len(numbers), 90, "longer than its slide's two seconds")

    def test_its_sound_is_heard_while_it_plays_and_not_when_it_is_muted(self) -> None:
        _, _, sound = self.film(10, in_ms=0, out_ms=1000)
        loud = np.abs(sound[: len(sound) // 2 - 4800]).max()
        self.assertGreater(loud, 0.1)
        self.assertLess(np.abs(sound[len(sound) // 2 + 4800 :]).max(), 0.01)
