import os
import pickle
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from fractions import Fraction
from pathlib import Path
from unittest import TestCase, mock

import av
import msgspec
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ritornel.core.document.show import AdvanceAfter, Show, Transition
from ritornel.core.errors import BadMedia, BadValue, Cancelled
from ritornel.core.render import segmented_film
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import write_film
from ritornel.core.render.frames import frame_state_of_frame
from ritornel.core.render.process_pool import Crew, FilmSegment, FilmSource
from ritornel.core.render.segmented_film import STILL_FRAMES, segments_of, write_segmented_film
from ritornel.core.render.workload import Progress
from ritornel.core.schedule.performance import perform
from ritornel.core.time.edges import frame_count
from ritornel.demo.orlmere import media, orlmere

replace = msgspec.structs.replace
SMALL = FilmOrder(160, 90, Fraction(10))


def still(count: int = 3, each_ms: int = 9000) -> Show:
    """Slides of the demo that stand still at their ends."""
    slides = tuple(
        replace(slide, order=(), transition=Transition("dissolve", 400), advance=AdvanceAfter(each_ms), voice=None)
        for slide in orlmere().slides[:count]
    )
    return replace(orlmere(), slides=slides, end="hold")


class SegmentsTest(TestCase):
    def test_slides_that_end_in_rest_are_segments(self) -> None:
        self.assertEqual(
            segments_of(perform(still()), SMALL),
            (FilmSegment(0, 0, 90), FilmSegment(1, 90, 180), FilmSegment(2, 180, 270)),
        )

    def test_a_short_show_and_one_that_never_rests_have_one(self) -> None:
        self.assertEqual(len(segments_of(perform(still(3, 5000)), SMALL)), 1)
        moving = tuple(replace(slide, transition=Transition("dissolve", 9000)) for slide in still().slides)
        self.assertEqual(len(segments_of(perform(replace(still(), slides=moving)), SMALL)), 1)

    @settings(max_examples=8, deadline=None)
    @given(
        st.sampled_from([Fraction(10), Fraction(24), Fraction(30_000, 1001), Fraction(60)]),
        st.sampled_from(["hold", "loop", "black"]),
    )
    def test_segments_hold_every_frame_once_and_begin_after_a_rest(self, rate: Fraction, end: str) -> None:
        performance = perform(replace(orlmere(), end=end))  # type: ignore[arg-type]
        order = replace(SMALL, rate=rate)
        segments = segments_of(performance, order)
        numbers = [number for segment in segments for number in range(segment.first, segment.end)]
        self.assertEqual(numbers, list(range(frame_count(performance.schedule.length_ms, rate))))
        self.assertGreater(len(segments), 4)
        for segment in segments[1:]:
            rest = [
                frame_state_of_frame(performance, order, segment.first - back) for back in range(1, STILL_FRAMES + 1)
            ]
            self.assertTrue(all(frame_state == rest[0] for frame_state in rest))


class PartedTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory(prefix="ritornel-parted-")
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.parts = self.folder / "parts"
        self.paths: dict[str, str] = {}
        for asset, data in media().values():
            (self.folder / asset.sha256).write_bytes(data)
            self.paths[asset.sha256] = str(self.folder / asset.sha256)

    def scene(self, show: Show | None = None, order: FilmOrder = SMALL) -> FilmSource:
        return FilmSource(show or still(), order, self.paths)

    def frames(self, path: Path) -> list[tuple[Fraction, np.ndarray]]:
        with av.open(str(path)) as container:
            return [
                (frame.pts * frame.time_base, frame.to_ndarray(format="rgb24").astype(int))
                for frame in container.decode(video=0)
            ]

    def samples(self, path: Path) -> np.ndarray:
        with av.open(str(path)) as container:
            return np.concatenate([frame.to_ndarray() for frame in container.decode(audio=0)], axis=1)

    def test_it_has_the_frames_and_the_sound_of_a_film_made_in_one(self) -> None:
        for suffix, order in (("mp4", SMALL), ("mp4", replace(SMALL, constant_rate=True)), ("webm", SMALL)):
            one, many = self.folder / f"one.{suffix}", self.folder / f"many.{suffix}"
            write_film(perform(still(2)), one, order, lambda sha256: self.folder / sha256)
            write_segmented_film(self.scene(still(2), order), many, self.parts)
            first, second = self.frames(one), self.frames(many)
            self.assertEqual([at for at, _ in first], [at for at, _ in second])
            # Both are lossy, each in its own way: 34 dB lie between the worst two of so small pictures.
            worst = max(float(((a - b) ** 2).mean()) for (_, a), (_, b) in zip(first, second, strict=True))
            self.assertLess(worst, 255**2 / 10**3.4)
            heard, again = self.samples(one), self.samples(many)
            length = min(heard.shape[1], again.shape[1])
            self.assertLess(abs(heard.shape[1] - again.shape[1]), 1500)
            self.assertLess(float(np.abs(heard[:, :length] - again[:, :length]).max()), 0.02)
            self.assertFalse(self.parts.exists())

    def test_progress_rises_to_the_end(self) -> None:
        told: list[Progress] = []
        write_segmented_film(self.scene(), self.folder / "film.mp4", self.parts, told.append)
        self.assertEqual([entry.done for entry in told], sorted(entry.done for entry in told))
        self.assertEqual((told[-1].done, told[-1].slide), (told[-1].total, 3))
        self.assertEqual({entry.done for entry in told if entry.done == entry.total}, {told[-1].done})

    def test_a_film_that_is_given_up_leaves_nothing(self) -> None:
        def report(progress: Progress) -> None:
            if progress.done:
                raise Cancelled("The film was cancelled.")

        with self.assertRaises(Cancelled):
            write_segmented_film(self.scene(), self.folder / "film.mp4", self.parts, report)
        self.assertEqual([path.name for path in self.folder.iterdir() if path.name not in self.paths], [])

    def test_a_killed_film_goes_on_from_its_finished_segments(self) -> None:
        """Its maker is killed as soon as a segment is whole; the next one draws only the others."""
        order = replace(SMALL, width_px=640, height_px=360, rate=Fraction(20))
        scene = self.scene(still(6), order)
        (self.folder / "scene").write_bytes(pickle.dumps(scene))
        words = (
            "import sys, pickle; from pathlib import Path; from ritornel.core.render.segmented_film "
            "import write_segmented_film\n"
            "if __name__ == '__main__':\n"
            "    folder = Path(sys.argv[1]); write_segmented_film(pickle.loads((folder / "
            "'scene').read_bytes()), folder / 'film.mp4', folder / 'parts')\n"
        )
        (self.folder / "maker.py").write_text(words)
        maker = subprocess.Popen(
            [sys.executable, str(self.folder / "maker.py"), str(self.folder)],
            env={**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)},
        )
        until = time.monotonic() + 60
        while not list(self.parts.glob("[0-9]*.mp4")) and time.monotonic() < until:
            time.sleep(0.02)
        maker.send_signal(signal.SIGKILL)
        maker.wait()
        kept = {path.name: path.stat().st_ino for path in self.parts.glob("[0-9]*.mp4")}
        self.assertTrue(0 < len(kept) < 6, kept)
        joined: dict[str, int] = {}
        join = segmented_film.join_film

        def watched(pictures: list[tuple[Path, Fraction]], *rest: object) -> None:
            joined.update({path.name: path.stat().st_ino for path, _ in pictures})
            join(pictures, *rest)  # type: ignore[arg-type]

        with mock.patch.object(segmented_film, "join_film", watched):
            write_segmented_film(scene, self.folder / "film.mp4", self.parts)
        self.assertEqual({name: joined[name] for name in kept}, kept, "what was finished was not drawn again")
        self.assertEqual(self.frames(self.folder / "film.mp4")[-1][0], Fraction(6 * 9 * 20 - 1, 20))

    def test_the_sound_s_maker_gives_its_place_to_a_drawer_and_no_more_work_at_a_time_than_was_allowed(self) -> None:
        begun: list[str] = []
        start = Crew._start

        def watched(crew: Crew, work: Callable[..., None], *more: object) -> None:
            at_work = sum(process.is_alive() for process in crew._processes)
            begun.append(f"{work.__name__} beside {at_work}")
            start(crew, work, *more)

        with mock.patch.object(Crew, "_start", watched):
            write_segmented_film(self.scene(), self.folder / "film.mp4", self.parts)
        self.assertEqual(begun[:2], ["_make_sound beside 0", "_draw_segments beside 1"])
        self.assertEqual(len(begun), 3)
        self.assertTrue(begun[2].startswith("_draw_segments"))

    def test_a_show_without_sound_has_a_film_without(self) -> None:
        silent = replace(
            still(), music=(), slides=tuple(replace(slide, transition=Transition()) for slide in still().slides)
        )
        write_segmented_film(self.scene(silent), self.folder / "film.mp4", self.parts)
        with av.open(str(self.folder / "film.mp4")) as container:
            # Its chapters are a track of their own in an .mp4, and its poster is listed as one.
            self.assertEqual([stream.type for stream in container.streams], ["video", "data", "video"])

    def test_what_another_film_left_is_not_used(self) -> None:
        self.parts.mkdir()
        (self.parts / "plan.json").write_bytes(b"[]")
        (self.parts / "000.mp4").write_bytes(b"of another film")
        write_segmented_film(self.scene(), self.folder / "film.mp4", self.parts)
        self.assertEqual(
            len({at for at, _ in self.frames(self.folder / "film.mp4")}), len(self.frames(self.folder / "film.mp4"))
        )

    def test_a_missing_medium_is_told_and_nothing_is_left(self) -> None:
        picture = next(asset for asset in orlmere().assets if asset.kind == "picture")
        Path(self.paths[picture.sha256]).unlink()
        with self.assertRaises(BadMedia) as told:
            write_segmented_film(self.scene(), self.folder / "film.mp4", self.parts)
        self.assertIn(picture.name, str(told.exception))
        self.assertFalse(self.parts.exists() or (self.folder / "film.mp4").exists())

    def test_orders_that_cannot_be_are_refused(self) -> None:
        with self.assertRaisesRegex(BadValue, "a film ends in .mp4 or .webm"):
            write_segmented_film(self.scene(), self.folder / "film.avi", self.parts)
        self.assertFalse(self.parts.exists())
