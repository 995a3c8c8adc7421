"""What is left of a film is told truly."""

import itertools
import tempfile
import threading
from fractions import Fraction
from pathlib import Path
from typing import Any
from unittest import TestCase, mock

import msgspec
from hypothesis import given
from hypothesis import strategies as st

from ritornel.core.errors import Cancelled
from ritornel.core.render import film
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import write_film
from ritornel.core.render.soundtrack import GivenUp
from ritornel.core.render.workload import (
    CLIP_FRAME_MS,
    HELD_FRAME_MS,
    PAINTED_FRAME_MS,
    STARTING_MS,
    FilmProgress,
    PictureWork,
    Progress,
    sound_work_ms,
    time_left_ms,
)
from ritornel.core.schedule.performance import perform
from ritornel.core.time.edges import frame_count
from ritornel.demo.orlmere import FILES, MEDIA, media, orlmere
from ritornel.demo.pendulum import pendulum
from tests.examples import example_a

ORDER = FilmOrder(1280, 720, Fraction(25))
WORK = st.lists(st.floats(0, 50_000), min_size=1, max_size=8)


class PictureWorkTest(TestCase):
    def test_frames_that_change_weigh_and_frames_that_are_held_hardly(self) -> None:
        performance = perform(example_a())
        work = PictureWork(performance, ORDER)
        # Slide 1 of example A changes until 2 000 ms and stands then.
        moving, held = work.between(23, 42), work.between(60, 79)
        self.assertAlmostEqual(moving, 19 * (PAINTED_FRAME_MS + HELD_FRAME_MS), delta=1.0)
        self.assertAlmostEqual(held, 19 * HELD_FRAME_MS)

    def test_parts_of_the_work_make_the_whole(self) -> None:
        performance = perform(orlmere())
        work, total = PictureWork(performance, ORDER), frame_count(performance.schedule.length_ms, ORDER.rate)
        cuts = [0, *range(7, total, 131), total]
        parts = [work.between(first, end) for first, end in itertools.pairwise(cuts)]
        self.assertAlmostEqual(sum(parts), work.between(0, total), places=3)
        self.assertGreater(min(parts), 0)

    def test_a_clip_weighs_more_and_a_larger_picture_as_much_more_as_it_has_pixels(self) -> None:
        performance = perform(pendulum())
        index = next(n for n, staged in enumerate(performance.slides) if staged.slide.id == "ask-s")
        schedule = performance.schedule
        first = frame_count(schedule.starts_ms[index] + 1000, ORDER.rate)
        work = PictureWork(performance, ORDER).between(first, first + 1)
        self.assertIn(round(work, 3), (HELD_FRAME_MS, round(CLIP_FRAME_MS + HELD_FRAME_MS, 3)))
        large = msgspec.structs.replace(ORDER, width_px=2560, height_px=1440)
        self.assertAlmostEqual(
            PictureWork(performance, large).between(0, 400), 4 * PictureWork(performance, ORDER).between(0, 400)
        )

    def test_silence_is_no_work(self) -> None:
        show = example_a()
        silent = msgspec.structs.replace(
            show, music=(), slides=tuple(msgspec.structs.replace(s, voice=None) for s in show.slides)
        )
        self.assertEqual(sound_work_ms(perform(silent)), 0.0)


class TimeLeftTest(TestCase):
    @given(WORK, st.floats(0, 50_000), st.integers(1, 4))
    def test_it_is_no_shorter_than_the_longest_part_and_no_longer_than_all_after_each_other(
        self, segments: list[float], sound: float, processes: int
    ) -> None:
        left = time_left_ms(segments, sound, processes)
        self.assertGreaterEqual(left + 0.001, max(sound, *segments, (sum(segments) + sound) / processes))
        self.assertLessEqual(left, sum(segments) + sound + 0.001)

    def test_on_a_machine_of_even_speed_the_end_is_told_from_the_first_tenth_on(self) -> None:
        """Three segments and the sound, drawn by two processes of a machine four times as slow as the one measured."""
        segments, sound, slow = (6_000.0, 5_000.0, 4_000.0), 3_000.0, 4.0
        progress = FilmProgress(segments, sound, ((0.0, 0.0, 0.0), 0.0))
        # The sound's process draws the second segment afterwards, the other one the first and the third.
        ends_ms = STARTING_MS + max(6_000 + 4_000, 3_000 + 5_000)
        for share in (0.1, 0.3, 0.5, 0.7, 0.9):
            now = share * ends_ms
            one = max(now - STARTING_MS, 0.0)
            heard = min(one, sound)
            done = (min(one, 6_000.0), min(max(one - sound, 0.0), 5_000.0), min(max(one - 6_000, 0.0), 4_000.0))
            told = progress.at(done, heard, 1)
            if not one:
                self.assertEqual(told.done, 0)
                continue
            says = now * slow * told.total / told.done
            self.assertAlmostEqual(says / (ends_ms * slow), 1, delta=0.05)

    def test_what_was_found_done_is_told_apart_and_the_end_is_told_only_at_the_end(self) -> None:
        progress = FilmProgress([1_000.0, 1_000.0], 0.0, ([1_000.0, 0.0], 0.0))
        begun = progress.at([1_000.0, 0.0], 0.0, 1)
        self.assertEqual(begun.done, begun.before)
        nearly = progress.at([1_000.0, 1_000.0], 0.0, 2)
        self.assertLess(nearly.done, nearly.total)
        self.assertEqual((progress.end(2).done, progress.end(2).total), (nearly.total, nearly.total))

    @given(st.lists(st.tuples(st.integers(0, 2), st.floats(0, 9_000)), max_size=20))
    def test_it_never_goes_back(self, steps: list[tuple[int, float]]) -> None:
        whole, done = [9_000.0, 4_000.0, 7_000.0], [0.0, 0.0, 0.0]
        progress, told = FilmProgress(whole, 5_000.0, ([0.0] * 3, 0.0)), [0]
        for number, more in steps:
            done[number] = min(done[number] + more, whole[number])
            told.append(progress.at(done, 0.0, 1).done)
        self.assertEqual(told, sorted(told))


class CancelTest(TestCase):
    def test_a_film_of_which_only_the_sound_is_missing_can_be_cancelled(self) -> None:
        paths = {asset.sha256: MEDIA / FILES[asset_id][0] for asset_id, (asset, _) in media().items()}
        show = orlmere()
        short = msgspec.structs.replace(show, slides=show.slides[:1])
        drawn, draw = threading.Event(), film._draw

        def endless(*given: object) -> None:
            given_up = next(one for one in given if isinstance(one, threading.Event))
            given_up.wait()
            raise GivenUp

        def drawing(*given: Any) -> None:
            draw(*given)
            drawn.set()

        def report(progress: Progress) -> None:
            if drawn.is_set():
                raise Cancelled("It was cancelled.")

        patched = mock.patch.multiple(film, write_sound=endless, _draw=drawing)
        with tempfile.TemporaryDirectory() as name, patched:
            path = Path(name) / "film.mp4"
            with self.assertRaises(Cancelled):
                write_film(perform(short), path, FilmOrder(320, 180, Fraction(10)), paths.__getitem__, report)
            self.assertEqual(list(Path(name).iterdir()), [])
