import contextlib
import errno
import io
import json
import math
import tempfile
from fractions import Fraction
from pathlib import Path
from unittest import mock

import av
import msgspec
import numpy as np
import skia
from django.test import SimpleTestCase

from ritornel.cli import main
from ritornel.core.document import AdvanceAfter, MusicSpan, Show
from ritornel.core.document.edits import PutVoice, apply_edit
from ritornel.core.document.show import Voice
from ritornel.core.errors import BadMedia, BadValue, Cancelled, RitornelError
from ritornel.core.formats.archive import read_archive
from ritornel.core.formats.media import Limits
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import write_film
from ritornel.core.render.frames import changing_frames
from ritornel.core.render.painter import Painter
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import frame_state_at, frame_state_at_rest, perform
from ritornel.core.time import frame_count
from ritornel.demo.orlmere import FILES, MEDIA, orlmere
from tests.examples import example_a

DEMO = orlmere()
PATHS = {asset.sha256: MEDIA / FILES[asset.id][0] for asset in DEMO.assets}
TINY = FilmOrder(160, 90, Fraction(10))


def media(sha256: str) -> Path:
    return PATHS.get(sha256, Path("/nowhere"))


def short() -> Show:
    """The demo's first two slides, cut down to four seconds."""
    slides = tuple(msgspec.structs.replace(slide, advance=AdvanceAfter(2000, True)) for slide in DEMO.slides[:2])
    return msgspec.structs.replace(DEMO, slides=slides, music=(MusicSpan(id="m", asset_id="waltz", fade_out_ms=500),))


def pixels(image: skia.Image) -> np.ndarray:
    return np.asarray(image.toarray(colorType=skia.kRGBA_8888_ColorType))


def metered(path: Path) -> tuple[float, float]:
    """Integrated loudness in LUFS and true peak in dBTP of a film's sound."""
    with av.open(str(path)) as container:
        graph = av.filter.Graph()
        source = graph.add_abuffer(template=container.streams.audio[0])
        meter, sink = graph.add("ebur128", "peak=true:metadata=1"), graph.add("abuffersink")
        source.link_to(meter)
        meter.link_to(sink)
        graph.configure()
        said: dict[str, str] = {}
        for frame in container.decode(audio=0):
            graph.push(frame)
            with contextlib.suppress(av.BlockingIOError, av.EOFError):
                while True:
                    said = dict(graph.pull().metadata)
    peaks = [float(said[f"lavfi.r128.true_peaks_ch{channel}"]) for channel in (0, 1)]
    return float(said["lavfi.r128.I"]), 20 * math.log10(max(peaks))


class FilmTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def film(
        self, name: str, order: FilmOrder = TINY, show: Show | None = None
    ) -> tuple[list[Fraction], int, "np.ndarray"]:
        path = self.folder / name
        write_film(perform(show or short()), path, order, media)
        with av.open(str(path)) as container:
            times, last = [], None
            for frame in container.decode(video=0):
                times.append(frame.pts * frame.time_base)
                last = frame
            assert last is not None
            image = last.to_ndarray(format="rgb24")
        with av.open(str(path)) as container:
            samples = sum(frame.samples for frame in container.decode(audio=0))
        return times, samples, image

    def test_mp4_has_exact_times_and_picture_and_sound_of_one_length(self) -> None:
        times, samples, _ = self.film("x.mp4")
        self.assertEqual(times[0], 0)
        self.assertEqual(times[-1], Fraction(39, 10))
        self.assertTrue(all((time * 10).denominator == 1 for time in times))
        self.assertLess(len(times), 40)
        # AAC comes in packets of 1024 samples; the container says how much of the last one counts.
        self.assertLess(abs(samples - 4 * 48_000), 2048)

    def test_webm_holds_the_same_frames(self) -> None:
        times, samples, _ = self.film("x.webm")
        self.assertEqual(round(float(times[-1]), 2), 3.9)
        self.assertLess(abs(samples - 4 * 48_000), 2000)

    def test_it_lands_at_minus_16_lufs_by_an_independent_meter(self) -> None:
        """On the written files, by the meter that comes with the codecs; music alone, quiet or loud, and sunk under a
        voice.
        """
        spoken = apply_edit(short(), PutVoice("noon-s", Voice("waltz", 9000, 7500, 300))).show
        quiet = msgspec.structs.replace(short(), music=(MusicSpan(id="m", asset_id="waltz", gain_db=-30.0),))
        for name, show in (("music.mp4", short()), ("quiet.webm", quiet), ("spoken.mp4", spoken)):
            write_film(perform(show), self.folder / name, TINY, media)
            loudness, peak = metered(self.folder / name)
            self.assertAlmostEqual(loudness, -16.0, delta=0.5, msg=name)
            self.assertLessEqual(peak, -1.0, name)

    def test_a_constant_rate_writes_every_frame(self) -> None:
        times, _, _ = self.film("x.mp4", msgspec.structs.replace(TINY, constant_rate=True))
        self.assertEqual(times, [Fraction(n, 10) for n in range(40)])

    def test_the_last_picture_is_what_the_painter_paints(self) -> None:
        _, _, image = self.film("x.mp4")
        performance = perform(short())
        expected = pixels(Painter(performance, 160, 90, media).image(frame_state_at(performance, 3900)))[:, :, :3]
        self.assertLess(float(np.abs(image.astype(int) - expected).mean()), 4)

    def test_only_frames_that_change_are_drawn(self) -> None:
        performance = perform(example_a())
        order = FilmOrder(160, 90, Fraction(30))
        frames = [number for number, _, _ in changing_frames(performance, order)]
        self.assertEqual(frame_count(32_400, order.rate), 972)
        self.assertEqual((frames[0], frames[-1]), (0, 971))
        moving_ms = 800 + 1200 + 500 + 400 + 600 + 200 + 18_200
        self.assertLess(len(frames), moving_ms * 30 / 1000 + 20)

    def test_a_cancelled_film_leaves_nothing_behind(self) -> None:
        def report(progress: Progress) -> None:
            if progress.done > 5:
                raise Cancelled("enough")

        with self.assertRaises(Cancelled):
            write_film(perform(short()), self.folder / "x.mp4", TINY, media, report)
        self.assertEqual(list(self.folder.iterdir()), [])

    def test_a_full_disk_is_told_and_leaves_nothing_behind(self) -> None:
        full = OSError(errno.ENOSPC, "No space left on device")
        with (
            mock.patch("ritornel.core.render.soundtrack.mix_block", side_effect=full),
            self.assertRaisesMessage(RitornelError, "The disk is full"),
        ):
            write_film(perform(short()), self.folder / "x.mp4", TINY, media)
        self.assertEqual(list(self.folder.iterdir()), [])

    def test_a_really_full_disk_is_told_too(self) -> None:
        if not Path("/dev/full").exists():
            self.skipTest("needs Linux's /dev/full")
        (self.folder / ".x.unfinished.mp4").symlink_to("/dev/full")
        with self.assertRaisesMessage(RitornelError, "The disk is full"):
            write_film(perform(short()), self.folder / "x.mp4", TINY, media)

    def test_orders_no_film_can_have_are_refused(self) -> None:
        for order, words in (
            (FilmOrder(161, 90), "161 px wide"),
            (FilmOrder(160, 9000), "9000 px high"),
            (FilmOrder(160, 90, Fraction(500)), "500 frames"),
        ):
            with self.assertRaisesMessage(BadValue, words):
                write_film(perform(short()), self.folder / "x.mp4", order, media)
        with self.assertRaisesMessage(BadValue, "ends in .mp4 or .webm"):
            write_film(perform(short()), self.folder / "x.avi", TINY, media)
        with self.assertRaisesMessage(BadValue, "nothing to film"):
            write_film(perform(Show("e", "Empty")), self.folder / "x.mp4", TINY, media)

    def test_a_missing_picture_is_named(self) -> None:
        with self.assertRaisesMessage(BadMedia, "The picture “The tower at noon” is missing"):
            write_film(
                perform(msgspec.structs.replace(short(), music=())),
                self.folder / "x.mp4",
                TINY,
                lambda _: Path("/nowhere"),
            )

    def test_a_looping_film_begins_out_of_its_last_slide(self) -> None:
        show = msgspec.structs.replace(short(), end="loop")
        first = next(changing_frames(perform(show), TINY))[1]
        self.assertEqual([layer.index for layer in first.layers], [1, 0])


class PainterTest(SimpleTestCase):
    def test_a_frame_of_other_proportion_stands_between_black_bars(self) -> None:
        performance = perform(DEMO)
        image = pixels(Painter(performance, 400, 400, media).image(frame_state_at_rest(performance, 2, 0)))
        self.assertEqual(image[0, 200, :3].tolist(), [0, 0, 0])
        self.assertEqual(image[100, 20, :3].tolist(), [0xF6, 0xF1, 0xE4])

    def test_what_is_away_is_not_painted(self) -> None:
        performance = perform(DEMO)
        before, after = (
            pixels(Painter(performance, 320, 180, media).image(frame_state_at_rest(performance, 2, beat)))
            for beat in (0, 1)
        )
        self.assertGreater(int((before != after).any(axis=2).sum()), 500)

    def test_a_dissolve_is_half_of_each_in_its_middle(self) -> None:
        show = msgspec.structs.replace(
            DEMO,
            slides=(
                DEMO.slides[3],
                msgspec.structs.replace(
                    DEMO.slides[2], transition=msgspec.structs.replace(DEMO.slides[2].transition, pace="even")
                ),
            ),
        )
        performance = perform(show)
        painter = Painter(performance, 320, 180, media)
        middle = pixels(painter.image(frame_state_at(performance, performance.schedule.starts_ms[1] + 450))).astype(int)
        old, new = (
            pixels(painter.image(frame_state_at(performance, performance.schedule.starts_ms[1] + at))).astype(int)
            for at in (0, 900)
        )
        self.assertLess(np.abs(middle - (old + new) / 2).mean(), 1.5)


class CommandLineTest(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def call(self, *words: str) -> tuple[int, str, str]:
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            code = main([*words])
        return code, out.getvalue(), err.getvalue()

    def test_from_a_folder_of_pictures_to_a_film_and_stills(self) -> None:
        album, film = str(self.folder / "a.ritornel"), str(self.folder / "a.mp4")
        code, said, _ = self.call(
            "new",
            str(MEDIA),
            "--each",
            "1.5",
            "--transition",
            "dissolve:0.5",
            "--music",
            str(MEDIA / "winders-waltz.ogg"),
            "--title",
            "Album",
            "-o",
            album,
        )
        self.assertEqual((code, said.strip()), (0, f"{album}: 5 slides, 0:07.5"))
        code, said, _ = self.call("schedule", album)
        self.assertEqual(json.loads(said)["length_ms"], 7500)
        code, said, _ = self.call("schedule", album, "--at", "2")
        self.assertEqual((json.loads(said)["slide_id"], json.loads(said)["slide_ms"]), ("slide-2", 500))
        code, said, _ = self.call("schedule", album, "--mode", "live")
        self.assertNotIn("length_ms", json.loads(said))
        code, said, bar = self.call("render", album, "-o", film, "--size", "160x90", "--fps", "10")
        self.assertEqual(code, 0)
        self.assertIn("100%", bar)
        code, said, _ = self.call("stills", album, "-o", str(self.folder / "stills"), "--size", "160x90")
        self.assertEqual(
            sorted(path.name for path in (self.folder / "stills").iterdir()), [f"0{n}-0.png" for n in range(1, 6)]
        )

    def test_a_film_of_the_command_line_has_the_bytes_of_one_that_is_made_in_segments_by_one_process(self) -> None:
        album = str(self.folder / "long.ritornel")
        self.call("new", str(MEDIA), "--each", "6", "--transition", "cut", "-o", album)
        films = []
        for processes in (1, 4):
            film = self.folder / f"{processes}.mp4"
            with mock.patch("ritornel.cli.MOST_PROCESSES", processes):
                code, _, _ = self.call("render", album, "-o", str(film), "--size", "160x90", "--fps", "10")
            self.assertEqual(code, 0)
            films.append(film.read_bytes())
        self.assertEqual(films[0], films[1])
        self.assertFalse(list(self.folder.glob("*segments*")), "what it was made of is gone")

    def test_pictures_drift_in_turn_where_that_is_wanted(self) -> None:
        album = str(self.folder / "drift.ritornel")
        self.assertEqual(
            self.call("new", str(MEDIA), "--each", "2", "--transition", "cut", "--drift", "-o", album)[0], 0
        )
        with open(album, "rb") as source:
            show = read_archive(source, "drift.ritornel", lambda sha256, data: None, Limits())
        drifts = [slide.objects[0].drift for slide in show.slides]  # type: ignore[union-attr]
        self.assertTrue(all(drifts))
        self.assertNotEqual(drifts[0], drifts[1])

    def test_numbered_voices_make_each_slide_as_long_as_its_voice(self) -> None:
        voices, album = self.folder / "voices", self.folder / "told.ritornel"
        voices.mkdir()
        waltz = MEDIA / "winders-waltz.ogg"
        for name in ("01 noon.ogg", "3.ogg", "hello.ogg"):
            (voices / name).write_bytes(waltz.read_bytes())
        (voices / "2.wav").write_bytes(b"no sound")
        code, said, err = self.call(
            "new", str(MEDIA), "--each", "2", "--transition", "cut", "--voices", str(voices), "-o", str(album)
        )
        self.assertEqual(code, 0)
        for sentence in ("“hello.ogg” has no number in its name.", "“2.wav” is neither a picture nor a sound"):
            self.assertIn(sentence, err)
        _, said, _ = self.call("schedule", str(album))
        schedule = json.loads(said)
        lasts = next(asset for asset in DEMO.assets if asset.id == "waltz").lasts_ms
        self.assertEqual(
            [slide["length_ms"] for slide in schedule["slides"]], [lasts + 600, 2000, lasts + 600, 2000, 2000]
        )
        self.assertEqual([voice["start_ms"] for voice in schedule["voices"]], [0, lasts + 2600])

    def test_what_cannot_be_done_is_one_sentence_and_exit_2(self) -> None:
        for words, sentence in (
            (("schedule", str(self.folder / "no.ritornel")), "There is no file"),
            (("new", str(self.folder / "no"), "-o", "x"), "There is no folder"),
            (("new", str(MEDIA), "--each", "soon", "-o", "x"), "“soon” is not a time"),
            (
                ("new", str(MEDIA), "--voices", str(self.folder), "-o", str(self.folder / "x")),
                "has no sounds that can be used",
            ),
            (("new", str(MEDIA), "--voices", str(self.folder / "no"), "-o", "x"), "There is no folder"),
            (("new", str(MEDIA), "--transition", "swoop:1", "-o", "x"), "There is no transition “swoop”"),
        ):
            code, _, err = self.call(*words)
            self.assertEqual(code, 2)
            self.assertIn(sentence, err)
