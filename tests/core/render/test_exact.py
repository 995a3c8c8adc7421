"""Written films, read again: their times, their peaks, what players find in them."""

import random
import tempfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import av
import msgspec
import numpy as np

from ritornel.core.document import AdvanceAfter, MusicSpan, Show
from ritornel.core.document.show import Asset, Slide
from ritornel.core.render.dissolves import two_still_layers
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import write_film
from ritornel.core.render.frames import Frames, frame_state_of_frame
from ritornel.core.render.muxing import chapters_of
from ritornel.core.render.soundtrack import peak_db_of, write_sound
from ritornel.core.schedule.performance import Performance, perform
from ritornel.core.time.edges import frame_count
from ritornel.demo.orlmere import FILES, MEDIA, orlmere
from tests.core.render.test_film import metered
from tests.mp4_boxes import top_boxes, tracks

DEMO = orlmere()
PATHS = {asset.sha256: MEDIA / FILES[asset.id][0] for asset in DEMO.assets}
RATES = (Fraction(10), Fraction(24), Fraction(30_000, 1001), Fraction(30), Fraction(60))


def media(sha256: str) -> Path:
    return PATHS[sha256]


def chance_show(chance: random.Random) -> Show:
    """Some slides of the demo, each of some length, with music or without."""
    slides = tuple(
        msgspec.structs.replace(slide, advance=AdvanceAfter(chance.randrange(100, 2500), chance.random() < 0.7))
        for slide in chance.sample(DEMO.slides, chance.randrange(1, 4))
    )
    music = (MusicSpan(id="m", asset_id="waltz"),) if chance.random() < 0.7 else ()
    return msgspec.structs.replace(DEMO, slides=slides, music=music, end=chance.choice(("hold", "loop", "black")))


class TimesTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def test_the_pictures_of_any_show_last_as_long_as_it_does_in_the_container(self) -> None:
        chance = random.Random(17)
        for number in range(14):
            show, rate = chance_show(chance), chance.choice(RATES)
            order = FilmOrder(160, 90, rate, chance.random() < 0.4)
            performance = perform(show)
            length_s = frame_count(performance.schedule.length_ms, rate) / rate
            with self.subTest(number, rate=rate, constant=order.constant_rate, length_s=float(length_s)):
                path = self.folder / f"{number}.mp4"
                write_film(performance, path, order, media)
                picture = next(track for track in tracks(path) if track.kind == "vide")
                self.assertEqual(picture.media_s, length_s)
                self.assertEqual(sum(picture.samples_s), length_s)
                self.assertLess(abs(picture.shown_s - length_s), Fraction(1, 500))
                # At a constant rate each frame is decoded one early, and the edit list says from where it is shown.
                early_s = 1 / rate if order.constant_rate and picture.reordered else 0
                self.assertTrue(all(at_s == early_s for _, at_s in picture.edits), picture.edits)
                self.assertTrue(not early_s or picture.edits)
                with av.open(str(path)) as container:
                    times = [frame.pts * frame.time_base for frame in container.decode(video=0)]
                self.assertEqual(times[0], 0)
                self.assertLess(times[-1] * 1000, performance.schedule.length_ms)
                self.assertTrue(all((at * rate).denominator == 1 for at in times))

    def test_webm_has_the_length_of_the_show_too(self) -> None:
        chance = random.Random(18)
        for number in range(3):
            performance = perform(chance_show(chance))
            path = self.folder / f"{number}.webm"
            write_film(performance, path, FilmOrder(160, 90, Fraction(30)), media)
            with av.open(str(path)) as container:
                self.assertAlmostEqual((container.duration or 0) / 1000, performance.schedule.length_ms, delta=45)
                self.assertEqual(next(container.demux(video=0)).pts, 0)

    def test_players_find_title_and_chapters_first_and_can_begin_before_all_is_there(self) -> None:
        slides = tuple(msgspec.structs.replace(slide, advance=AdvanceAfter(1000, True)) for slide in DEMO.slides[:4])
        performance = perform(msgspec.structs.replace(DEMO, slides=slides, music=(), end="hold"))
        path = self.folder / "x.mp4"
        write_film(performance, path, FilmOrder(160, 90, Fraction(10)), media)
        names = top_boxes(path)
        self.assertLess(names.index("moov"), names.index("mdat"))
        with av.open(str(path)) as container:
            self.assertEqual(container.metadata["title"], DEMO.title)
            found = [(one["metadata"]["title"], one["start"] * one["time_base"]) for one in container.chapters()]
            stream = container.streams.video[0].codec_context
            self.assertEqual(
                (stream.profile, stream.color_primaries, stream.color_trc, int(stream.colorspace)), ("High", 1, 1, 1)
            )
        self.assertEqual(found, [(one.name, Fraction(one.start_ms, 1000)) for one in chapters_of(performance)])
        self.assertEqual([one.name for one in chapters_of(performance)], ["The town", "How it keeps time"])

    def test_the_same_show_gives_the_same_bytes(self) -> None:
        performance, order = perform(chance_show(random.Random(3))), FilmOrder(160, 90, Fraction(10))
        made = []
        for name in ("a.mp4", "b.mp4"):
            write_film(performance, self.folder / name, order, media)
            made.append((self.folder / name).read_bytes())
        self.assertEqual(made[0], made[1])


class PeakTest(TestCase):
    def test_no_true_peak_of_the_written_file_is_above_its_ceiling(self) -> None:
        """Sounds that codecs make louder than they were: squares and clicks, raised to -16 LUFS."""
        t = np.arange(48_000 * 3)
        square = np.sign(np.sin(2 * np.pi * 997 * t / 48_000)) * (0.02 + 0.5 * (t % 24_000 < 300))
        clicks = 0.01 * np.sin(t / 30) + 0.8 * (t % 12_000 < 2)
        for name, mono in (("square", square), ("clicks", clicks)):
            samples = np.repeat(mono.astype(np.float32)[:, None], 2, axis=1)
            asset = Asset("sound", "Sound", "a" * 64, "audio/wav", size_bytes=1, lasts_ms=3000)
            show = Show(
                "s",
                "S",
                slides=(Slide("one", advance=AdvanceAfter(3000)),),
                music=(MusicSpan(id="m", asset_id="sound"),),
                assets=(asset,),
            )
            for suffix in ("mp4", "webm"):
                with self.subTest(name, suffix=suffix), tempfile.TemporaryDirectory() as folder:
                    path = Path(folder) / "sound.mp4"
                    write_sound(perform(show), {"sound": samples}, path, suffix == "webm")
                    self.assertLessEqual(peak_db_of(path), -1.0)
                    lufs, peak_db = metered(path)
                    self.assertLessEqual(peak_db, -0.9)
                    self.assertLess(lufs, -15.5)


class DissolveTest(TestCase):
    def frame(self, performance: Performance, frames: Frames, order: FilmOrder, number: int) -> np.ndarray:
        return np.asarray(
            frames.frame(number, frame_state_of_frame(performance, order, number), True).picture.to_ndarray(),
            dtype=int,
        )

    def test_a_dissolve_blended_after_conversion_looks_as_one_that_is_painted(self) -> None:
        order = FilmOrder(320, 180, Fraction(30))
        performance = perform(DEMO)
        index = next(
            n for n, staged in enumerate(performance.slides) if n and staged.slide.transition.name == "dissolve"
        )
        first = int(performance.schedule.starts_ms[index] * 30 / 1000) + 3
        blended = Frames(performance, order, media)
        self.assertIsNotNone(two_still_layers(frame_state_of_frame(performance, order, first)))
        for number in range(first, first + 8):
            # A painter that has seen nothing before paints the frame whole.
            painted = self.frame(performance, Frames(performance, order, media), order, number)
            found = self.frame(performance, blended, order, number)
            self.assertLessEqual(np.abs(found - painted).max(), 2)
