"""The amount of work in a film, known in advance, so that the remaining time can be estimated.

Work is counted in ms of one processor, measured on one machine for pictures of 1280 x 720. Another machine is slower or
faster at all of it alike: only the proportions matter.
"""

import bisect
import heapq
from collections.abc import Sequence

import msgspec

from ritornel.core.render.encoding import FilmOrder
from ritornel.core.schedule.change_times import changing_spans
from ritornel.core.schedule.clips import holds_clips
from ritornel.core.schedule.performance import Performance
from ritornel.core.time.edges import frame_time_ms

STARTING_MS = 900.0
"""Starting the processes that draw, with what they import."""
ENDING_MS = 300.0
"""The poster, and joining what was made."""
PAINTED_FRAME_MS, CLIP_FRAME_MS, HELD_FRAME_MS = 18.0, 27.0, 0.2
"""A frame that was painted and encoded (dissolves 14, builds 20, other transitions 27), one with a clip in it, and one
that is held.
"""
USUAL_PIXELS = 1280 * 720
SOUND_MS_PER_S = 78.0
"""Mixing, measuring and encoding a second of sound."""


class PictureWork:
    """The work of a film's pictures, between any two frames."""

    def __init__(self, performance: Performance, order: FilmOrder) -> None:
        schedule, self._rate = performance.schedule, order.rate
        size = order.width_px * order.height_px / USUAL_PIXELS
        self._held_ms = HELD_FRAME_MS * size
        # Instants of the show, and the work until each; between two of them it grows evenly.
        self._at_ms, self._sums = [0.0], [0.0]
        for start, staged in zip(schedule.starts_ms, performance.slides, strict=True):
            cost = (CLIP_FRAME_MS if holds_clips(staged.slide) else PAINTED_FRAME_MS) * size
            for span in changing_spans(staged):
                frames = float((span.end_ms - span.start_ms) * order.rate / 1000)
                self._at_ms += [float(start + span.start_ms), float(start + span.end_ms)]
                self._sums += [self._sums[-1], self._sums[-1] + max(frames, 1.0) * cost]

    def _until(self, at_ms: float) -> float:
        after = bisect.bisect_right(self._at_ms, at_ms)
        if after == len(self._at_ms):
            return self._sums[-1]
        (begin, end), (low, high) = self._at_ms[after - 1 : after + 1], self._sums[after - 1 : after + 1]
        return low + (high - low) * (at_ms - begin) / (end - begin)

    def between(self, first: int, end: int) -> float:
        """The work of the frames from `first` until before `end`, in ms."""
        first_ms, end_ms = (float(frame_time_ms(number, self._rate)) for number in (first, end))
        return self._until(end_ms) - self._until(first_ms) + (end - first) * self._held_ms


def sound_work_ms(performance: Performance) -> float:
    """The work of the whole sound; 0 for a silent film."""
    return SOUND_MS_PER_S * performance.schedule.length_ms / 1000 if performance.sound_ids() else 0.0


def time_left_ms(segments_ms: Sequence[float], sound_ms: float, processes: int = 2) -> float:
    """How long this work takes: one process makes the sound and then draws, the others draw; a free process takes the
    next segment.

    >>> time_left_ms([4_000.0, 4_000.0, 4_000.0], 2_000.0), time_left_ms([1_000.0], 9_000.0)
    (8000.0, 9000.0)
    """
    free_at_ms = [0.0] * (processes - 1) + [sound_ms]
    for work_ms in segments_ms:
        heapq.heapreplace(free_at_ms, free_at_ms[0] + work_ms)
    return max(free_at_ms)


class Progress(msgspec.Struct, frozen=True):
    """How much of the work is done, and which slide is being drawn (from 1).

    `before` was done before this run began: it says nothing about the machine's speed.
    """

    done: int
    total: int
    slide: int
    before: int = 0


class FilmProgress:
    """Counts the work of a film: of each of its segments, and of its sound. `found_ms` is what an earlier run had done.
    `starting_ms` counts as done with the first of the work.
    """

    def __init__(
        self,
        segments_ms: Sequence[float],
        sound_ms: float,
        found_ms: tuple[Sequence[float], float],
        processes: int = 2,
        starting_ms: float = STARTING_MS,
    ) -> None:
        self._segments_ms, self._sound_ms, self._processes = segments_ms, sound_ms, processes
        self._found_ms, self._starting_ms = (tuple(found_ms[0]), found_ms[1]), starting_ms
        self._all_ms = time_left_ms(segments_ms, sound_ms, processes)
        self._before_ms = self._all_ms - self._left_ms(*found_ms)
        self._reached_ms = 0.0
        self._total = round(starting_ms + self._all_ms + ENDING_MS)

    def _left_ms(self, segments_ms: Sequence[float], sound_ms: float) -> float:
        left = [max(whole - done, 0.0) for whole, done in zip(self._segments_ms, segments_ms, strict=True)]
        return time_left_ms(left, max(self._sound_ms - sound_ms, 0.0), self._processes)

    def at(self, segments_ms: Sequence[float], sound_ms: float, slide: int) -> Progress:
        """The progress where so much of each is done; never complete."""
        started = (tuple(segments_ms), sound_ms) != self._found_ms
        done = self._starting_ms * started + self._all_ms - self._left_ms(segments_ms, sound_ms)
        # Where a segment ends early another order of the rest may take longer: what was told is not taken back.
        self._reached_ms = max(self._reached_ms, done)
        return Progress(min(round(self._reached_ms), self._total - 1), self._total, slide, round(self._before_ms))

    def end(self, slide: int) -> Progress:
        """The progress when the film is complete."""
        return Progress(self._total, self._total, slide, round(self._before_ms))
