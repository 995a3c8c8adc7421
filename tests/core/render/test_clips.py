import tempfile
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
import skia
from av.stream import Disposition
from django.test import SimpleTestCase

from ritornel.core.document import AdvanceAfter, Box, Build, Follows, Frame, Show, Slide
from ritornel.core.document.objects import PLAYS, Caption, Clip, Shape, Stroke
from ritornel.core.formats.media import Limits, asset_from, probe_medium
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import write_film
from ritornel.core.render.painter import Painter
from ritornel.core.schedule.performance import FrameState, frame_state_at, perform
from tests.footage import ROUND, footage, number_of


class FilmedClipSource(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        data = footage(90)
        self.source = self.folder / "clip.mp4"
        self.source.write_bytes(data)
        self.asset = asset_from(probe_medium(data, "clip.mp4", Limits()), "clip", "Clip")

    def film(self, rate: int, **more: object) -> tuple[list[int], list[float], np.ndarray]:
        """The numbers of the clip's frames that a film shows, when, and its sound."""
        clip = Clip("clip", "Clip", Box(0, 0, 64, 36), "clip", **{"out_ms": 3000, "fit": "stretch", **more})  # type: ignore[arg-type]
        slide = Slide(
            "s",
            "S",
            objects=(clip,),
            order=(Build(id="play", object_id="clip", effect=PLAYS, starts=Follows()),),
            advance=AdvanceAfter(2000),
        )
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


class FilmedClipTest(FilmedClipSource):
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


class CaptionTrackTest(FilmedClipSource):
    """What players find beside pictures and sound."""

    def written(self, suffix: str) -> Path:
        captions = (Caption(200, 900, "One tooth"), Caption(1000, 1500, "Tick, tück"))
        clip = Clip("clip", "Clip", Box(8, 0, 48, 36), "clip", out_ms=3000, captions=captions)
        slide = Slide(
            "s",
            "S",
            objects=(clip,),
            order=(Build(id="play", object_id="clip", effect=PLAYS, starts=Follows()),),
            advance=AdvanceAfter(2000),
        )
        show = Show("show", "Show", Frame(64, 36), slides=(slide,), assets=(self.asset,), language="de-CH")
        path = self.folder / f"film{suffix}"
        write_film(perform(show), path, FilmOrder(64, 36, Fraction(10)), lambda sha256: self.source)
        return path

    def test_the_captions_are_a_track_with_their_times(self) -> None:
        for suffix in (".mp4", ".webm"):
            with self.subTest(suffix), av.open(str(self.written(suffix))) as container:
                (track,) = container.streams.subtitles
                languages = {stream.language for stream in (track, container.streams.video[0])}
                self.assertEqual(languages, {"deu"})
                found = []
                for packet in container.demux(track):
                    words = bytes(packet)[2:] if suffix == ".mp4" else bytes(packet)
                    if words and packet.pts is not None:
                        begins_s = packet.pts * track.time_base
                        found.append((begins_s, begins_s + packet.duration * track.time_base, words.decode()))
                tenth = Fraction(1, 10)
                self.assertEqual(found, [(2 * tenth, 9 * tenth, "One tooth"), (10 * tenth, 15 * tenth, "Tick, tück")])

    def test_an_mp4_has_a_poster_of_its_first_slide_at_rest_and_its_pictures_come_first(self) -> None:
        with av.open(str(self.written(".mp4"))) as container:
            pictures, poster = container.streams.video
            self.assertEqual((pictures.codec_context.name, poster.codec_context.name), ("h264", "mjpeg"))
            self.assertTrue(poster.disposition & Disposition.attached_pic)
            (shown,) = list(container.decode(poster))
        with av.open(str(self.folder / "film.mp4")) as container:
            *_, last = container.decode(video=0)
        a, b = (frame.to_ndarray(format="rgb24").astype(int) for frame in (shown, last))
        # The clip shows another of its pictures by then; what stands beside it is the same.
        self.assertLess(np.abs(a[:, :6] - b[:, :6]).mean(), 6)
        self.assertGreater(np.ptp(a), 60, "the clip is seen on it")

    def test_without_captions_there_is_no_such_track(self) -> None:
        self.film(10)
        with av.open(str(self.folder / "film.mp4")) as container:
            self.assertEqual(list(container.streams.subtitles), [])


class UnpaintedTest(SimpleTestCase):
    """A clip that is all there is to see goes into the film as it is in its file."""

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.source = Path(folder.name) / "clip.mp4"
        data = footage(30)
        self.source.write_bytes(data)
        self.asset = asset_from(probe_medium(data, "clip.mp4", Limits()), "clip", "Clip")

    def staged(self, over: bool = False, **more: object) -> tuple[Painter, FrameState]:
        clip = Clip("clip", "Clip", Box(0, 0, 64, 48), "clip", **{"out_ms": 1000, **more})  # type: ignore[arg-type]
        objects = (
            Shape("under", "Under", Box(0, 0, 10, 10), "ellipse"),
            clip,
            *((Shape("dot", "Dot", Box(2, 2, 4, 4), "ellipse"),) if over else ()),
        )
        slide = Slide(
            "s",
            "S",
            objects=objects,
            order=(Build(id="play", object_id="clip", effect=PLAYS, starts=Follows()),),
            advance=AdvanceAfter(1000),
        )
        performance = perform(Show("show", "Show", Frame(64, 48), slides=(slide,), assets=(self.asset,)))
        return Painter(performance, 64, 48, lambda sha256: self.source), frame_state_at(performance, 500)

    def test_it_is_the_frame_that_would_have_been_painted(self) -> None:
        painter, frame_state = self.staged()
        frame = painter.through(frame_state)
        painted = painter.image(frame_state).toarray(colorType=skia.kRGBA_8888_ColorType)[:, :, :3]
        self.assertEqual(number_of(frame), 15)
        self.assertLess(
            abs(float(frame.to_ndarray(format="rgb24").mean()) - float(painted.mean())), 4, "frames are 12 apart"
        )
        frame.pts = 777
        self.assertEqual(number_of(painter.through(frame_state)), 15, "what is given away is not what the reader keeps")

    def test_whatever_more_there_is_to_see_is_painted(self) -> None:
        cases: list[dict[str, object]] = [
            {"over": True},
            {"size": (32, 24)},
            {"opacity": 0.5},
            {"corner_px": 8.0},
            {"flip_x": True},
        ]
        cases.append({"stroke": Stroke("#000000")})
        for more in cases:
            with self.subTest(more):
                if "size" in more:
                    painter, frame_state = self.staged()
                    painter = Painter(painter.performance, 32, 24, lambda sha256: self.source)
                else:
                    painter, frame_state = self.staged(**more)  # type: ignore[arg-type]
                self.assertIsNone(painter.through(frame_state))
