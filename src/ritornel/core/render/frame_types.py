"""Which frames of a film are predicted from both neighbours (B frames), and which only from an earlier one (P frames).

An encoder must find out what changes between frames; here it is known.
"""

from collections.abc import Hashable, Iterator
from typing import Any

import msgspec
from av.video.frame import PictureType

BETWEEN = 2
"""B frames between two others, where things move in any way."""
BETWEEN_IN_DISSOLVE = 9
"""The same in a dissolve, whose frames are what an encoder makes of two frames by their distance in time (ITU-T H.264,
8.4.2.3.1, implicit weights): measured in docs/decisions.md.
"""
LARGE_PX = 2_100_000
BETWEEN_LARGE = 3
"""Frames of more pixels than 1920 × 1080 have fewer: each that waits for its type takes 40 MB at 3840 × 2160."""
STRAIGHT = 3
"""Shares of 256 by which a frame of a dissolve may lie off the line between two others and still be predicted well."""


class Blend(msgspec.Struct, frozen=True):
    """How a frame is mixed from two still pictures: which two, and the upper one's share of 256."""

    pictures: Hashable
    share: int


class FilmFrame(msgspec.Struct, frozen=True):
    """A frame of a film, and how it is mixed where it belongs to a dissolve of still slides."""

    picture: Any
    blend: Blend | None = None


def between_in_dissolve(width_px: int, height_px: int) -> int:
    """How many B frames may lie between two others in a dissolve of frames of that size."""
    return BETWEEN_LARGE if width_px * height_px > LARGE_PX else BETWEEN_IN_DISSOLVE


class FrameTypes:
    """Gives each frame its type. The first is an I frame. Frames come out in their order, at most ten frames later. A
    frame that stands is never a B frame.
    """

    def __init__(self, most_between: int = BETWEEN_IN_DISSOLVE) -> None:
        self._most_between = most_between
        self._begun = False
        self._waiting: list[FilmFrame] = []
        # The upper picture's share in the frame before those that wait.
        self._share = 0

    def put(self, frame: FilmFrame) -> Iterator[Any]:
        """The frames whose types are known once `frame` has come."""
        if not self._begun:
            self._begun, self._share = True, frame.blend.share if frame.blend else 0
            frame.picture.pict_type = PictureType.I
            yield frame.picture
            return
        if self._waiting and self._ends_before(frame):
            last = self._waiting[-1].blend
            self._share = last.share if last and frame.blend and last.pictures == frame.blend.pictures else 0
            yield from self.end()
        self._waiting.append(frame)

    def end(self) -> Iterator[Any]:
        """The frames that still wait: the last is a P frame."""
        for frame in self._waiting:
            frame.picture.pict_type = PictureType.P if frame is self._waiting[-1] else PictureType.B
            yield frame.picture
        self._waiting = []

    def _ends_before(self, frame: FilmFrame) -> bool:
        """Whether the last of the waiting frames is a P frame, if `frame` is next."""
        last = self._waiting[-1]
        if frame.picture.pts - last.picture.pts > 1:
            return True
        if last.blend is None:
            return frame.blend is not None or len(self._waiting) > BETWEEN
        if frame.blend is not None and frame.blend.pictures != last.blend.pictures:
            # Something moves in what is mixed.
            return len(self._waiting) > BETWEEN
        goes_on = frame.blend or Blend(last.blend.pictures, 256)
        return len(self._waiting) > self._most_between or not self._lie_before(goes_on)

    def _lie_before(self, blend: Blend) -> bool:
        """Whether the waiting frames are mixed from the same pictures, on the line from the frame before them to
        `blend`.
        """
        step = (blend.share - self._share) / (len(self._waiting) + 1)
        return all(
            frame.blend is not None
            and frame.blend.pictures == blend.pictures
            and abs(frame.blend.share - (self._share + step * number)) <= STRAIGHT
            for number, frame in enumerate(self._waiting, 1)
        )
