"""The frames of a film: their numbers, and what they show."""

from collections.abc import Iterator
from typing import Any

import av
import numpy as np
from av.video.reformatter import ColorRange, Colorspace, VideoReformatter
from numpy.typing import NDArray

from ritornel.core.render.dissolves import Dissolves, blend_of
from ritornel.core.render.encoding import FilmOrder, copy_picture
from ritornel.core.render.frame_types import FilmFrame
from ritornel.core.render.painter import MediaPath, Painter
from ritornel.core.render.pictures import Pictures
from ritornel.core.render.sequence import FrameSequence
from ritornel.core.render.surfaces import surface_over
from ritornel.core.schedule.clips import holds_clips
from ritornel.core.schedule.performance import FrameState, Performance, frame_state_at
from ritornel.core.time.edges import frame_count, frame_time_ms


def frame_state_of_frame(performance: Performance, order: FilmOrder, number: int) -> FrameState:
    """What a frame shows. A looping film's first transition comes from the last slide."""
    return frame_state_at(
        performance, float(frame_time_ms(number, order.rate)), first_pass=performance.schedule.end != "loop"
    )


def changing_frames(
    performance: Performance, order: FilmOrder, first: int = 0, end: int | None = None
) -> Iterator[tuple[int, FrameState, bool]]:
    """The numbers of the frames from `first` until before `end` with what they show, and whether it is new.

    The show's last frame is always included, so that a film of frames with durations ends with the show.
    """
    total = frame_count(performance.schedule.length_ms, order.rate)
    before: FrameState | None = None
    for number in range(first, total if end is None else min(end, total)):
        frame_state = frame_state_of_frame(performance, order, number)
        new = frame_state != before
        if new or (number == total - 1 and not order.constant_rate):
            yield number, frame_state, new
        before = frame_state


def shows_clips(performance: Performance, order: FilmOrder, first: int = 0, end: int | None = None) -> bool:
    """Whether a slide with a clip is visible in the frames from `first` until before `end`."""
    schedule = performance.schedule
    first_ms = frame_time_ms(first, order.rate)
    end_ms = schedule.length_ms if end is None else frame_time_ms(end, order.rate)
    return any(
        start < end_ms and start + timed.length_ms > first_ms and holds_clips(staged.slide)
        for start, timed, staged in zip(schedule.starts_ms, schedule.slides, performance.slides, strict=True)
    )


class Frames:
    """Draws frames one after another. A frame that equals the one before is not drawn again."""

    def __init__(
        self, performance: Performance, order: FilmOrder, media: MediaPath, pictures: Pictures | None = None
    ) -> None:
        self._order = order
        self._painter = Painter(performance, order.width_px, order.height_px, media, pictures)
        self._pixels = np.zeros((order.height_px, order.width_px, 4), dtype=np.uint8)
        self._sequence = FrameSequence(self._painter, surface_over(self._pixels))
        self._last: Any = None
        self._reformatter = VideoReformatter()
        self._dissolves = Dissolves(self._still_planes)

    def _in_yuv(self, pixels: NDArray[np.uint8]) -> Any:
        """The pixels in the film's format. They are read in place, and may be painted over afterwards."""
        source = av.VideoFrame.from_numpy_buffer(pixels, format="bgra")
        return self._reformatter.reformat(
            source, format="yuv420p", dst_colorspace=int(Colorspace.ITU709), dst_color_range=int(ColorRange.MPEG)
        )

    def _still_planes(self, frame_state: FrameState) -> NDArray[np.uint8]:
        pixels = np.zeros_like(self._pixels)
        with surface_over(pixels) as canvas:
            self._painter.paint(canvas, frame_state)
        return np.asarray(self._in_yuv(pixels).to_ndarray())

    def frame(self, number: int, frame_state: FrameState, new: bool) -> FilmFrame:
        """The frame, `number` frames after the start of counting."""
        if not new and self._last is not None:
            return FilmFrame(copy_picture(self._last, number))
        blend = blend_of(frame_state)
        made = self._painter.through(frame_state)
        if made is None:
            planes = self._dissolves.planes(frame_state, blend)
            made = None if planes is None else av.VideoFrame.from_ndarray(planes, format="yuv420p")
        if made is None:
            self._sequence.paint(frame_state)
            made = self._in_yuv(self._pixels)
        made.pts, made.time_base = number, 1 / self._order.rate
        self._last = made
        return FilmFrame(made, blend)
