"""The pictures of a clip at any instant, read from its file."""

from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any, Self

import av
import numpy as np
import skia
from av.video.reformatter import ColorRange, Colorspace, Interpolation, VideoReformatter
from PIL import Image

from ritornel.core.containers import open_container
from ritornel.core.errors import BadMedia
from ritornel.core.render.surfaces import image_of

EARLY_MS = 0.2
"""A frame counts as begun so much before its time:

1033.33 is meant to be the third part of 3100. The browser's painter does the same.
"""
EXACT = int(Interpolation.BICUBIC | Interpolation.ACCURATE_RND | Interpolation.FULL_CHR_H_INT)
AHEAD_MS = 3000
"""An instant at most so far ahead is reached by decoding on; one further away, or behind, by looking for the key
picture before it.
"""


class ClipReader:
    """An open clip. It keeps its present picture; the next request may be for any instant, and the answer is always the
    same.
    """

    def __init__(self, path: Path, name: str) -> None:
        try:
            self._container: Any = open_container(path)
        except (av.FFmpegError, OSError) as error:
            raise BadMedia(f"The clip “{name}” is missing or cannot be read.") from error
        if not self._container.streams.video:
            raise BadMedia(f"“{name}” has no picture in it.")
        self._name = name
        self._reformatter = VideoReformatter()
        self._stream: Any = self._container.streams.video[0]
        self._stream.thread_type = "AUTO"
        self._frames: Iterator[Any] = iter(())
        self._now: Any = None
        self._next: Any = None
        self._image: tuple[Any, tuple[int, int], skia.Image] | None = None
        self._first_ms: Fraction | None = None

    def close(self) -> None:
        self._container.close()

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def _ms(self, frame: Any) -> Fraction:
        """When the frame begins, counted from the first."""
        at: Fraction = Fraction(frame.pts or 0) * frame.time_base * 1000
        if self._first_ms is None:
            start = self._stream.start_time
            self._first_ms = Fraction(start) * self._stream.time_base * 1000 if start is not None else Fraction(0)
        return at - self._first_ms

    def _step(self) -> None:
        self._now, self._next = self._next, next(self._frames, None)

    def _seek(self, at_ms: float) -> None:
        offset = int(Fraction(at_ms) / 1000 / self._stream.time_base) + (self._stream.start_time or 0)
        self._container.seek(max(offset, self._stream.start_time or 0), stream=self._stream)
        self._frames = self._decoded()
        self._now = next(self._frames, None)
        self._next = next(self._frames, None)

    def _decoded(self) -> Iterator[Any]:
        try:
            yield from (frame for frame in self._container.decode(self._stream) if frame.pts is not None)
        except av.FFmpegError:
            return  # a file that was cut off has as many pictures as were read

    def frame_at(self, at_ms: float) -> Any:
        """The last frame that begins at `at_ms` or before; the first where none does.

        Raises BadMedia where the clip has no frame.
        """
        at_ms += EARLY_MS
        if self._now is None or self._ms(self._now) > at_ms or self._ms(self._now) + AHEAD_MS < at_ms:
            self._seek(at_ms)
            if self._now is None or self._ms(self._now) > at_ms:
                self._seek(0)
        while self._next is not None and self._ms(self._next) <= at_ms:
            self._step()
        if self._now is None:
            raise BadMedia(f"The clip “{self._name}” has no picture that can be read.")
        return self._now

    def picture_at(self, at_ms: float) -> Image.Image:
        """The same as an upright Pillow picture."""
        frame = self.frame_at(at_ms)
        return Image.fromarray(
            np.ascontiguousarray(turn_upright(convert_frame(frame, "rgb24", self._reformatter), frame.rotation))
        )

    def image_at(self, at_ms: float, size_px: tuple[int, int] | None = None) -> skia.Image:
        """The same as an upright image. Where the file's pictures are upright and larger than `size_px`, it is scaled
        down while its colours are converted, which costs a twentieth of scaling it while painting.
        """
        frame = self.frame_at(at_ms)
        if size_px is None or frame.rotation % 360 or size_px[0] > frame.width or size_px[1] > frame.height:
            size_px = (frame.width, frame.height)
        if self._image is None or self._image[0] is not frame or self._image[1] != size_px:
            pixels = turn_upright(convert_frame(frame, "bgra", self._reformatter, size_px), frame.rotation)
            image = image_of(pixels)
            self._image = (frame, size_px, image)
        return self._image[2]

    def plain_at(self, at_ms: float, width_px: int, height_px: int) -> Any:
        """The same as a new frame in YUV 4:2:0 of BT.709, where the clip has that size and stands upright;
        else None.
        """
        frame = self.frame_at(at_ms)
        if (frame.width, frame.height) != (width_px, height_px) or frame.rotation % 360:
            return None
        ready = (
            frame.format.name == "yuv420p"
            and matrix_of(frame) == Colorspace.ITU709
            and frame.color_range in (ColorRange.UNSPECIFIED, ColorRange.MPEG)
        )
        if not ready:
            frame = self._reformatter.reformat(
                frame,
                format="yuv420p",
                src_colorspace=matrix_of(frame),
                dst_colorspace=int(Colorspace.ITU709),
                dst_color_range=int(ColorRange.MPEG),
            )
        # What the reader keeps must not be given away: whoever encodes a frame sets its time.
        own = av.VideoFrame(width_px, height_px, "yuv420p")
        for plane, source in zip(own.planes, frame.planes, strict=True):
            if plane.buffer_size != source.buffer_size:
                return av.VideoFrame.from_ndarray(frame.to_ndarray(), format="yuv420p")
            plane.update(source)
        return own


def matrix_of(frame: Any) -> int:
    """The colour matrix of the frame.

    Where a file does not say, its size does, as in browsers: from 720 lines on ITU-R BT.709, below BT.601.
    """
    told = int(frame.colorspace)
    return (
        told
        if told in [int(known) for known in Colorspace]
        else int(Colorspace.ITU709 if frame.height >= 720 else Colorspace.ITU601)
    )


def convert_frame(frame: Any, pixels: str, reformatter: Any, size_px: tuple[int, int] | None = None) -> Any:
    """The frame's pixels at a size, rounded to the nearest; the faster way would round down."""
    width_px, height_px = size_px or (frame.width, frame.height)
    made = reformatter.reformat(
        frame, width_px, height_px, format=pixels, src_colorspace=matrix_of(frame), interpolation=EXACT
    )
    return made.to_ndarray()


def turn_upright(pixels: Any, turned_deg: int) -> Any:
    """The pixels turned upright: a file may say that the camera was turned, counter-clockwise in degrees."""
    return np.rot90(pixels, (turned_deg // 90) % 4)
