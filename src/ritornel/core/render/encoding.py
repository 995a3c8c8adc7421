"""How the pictures of films are encoded."""

from fractions import Fraction
from typing import Any

import msgspec
from av.video.frame import PictureType
from av.video.reformatter import ColorRange, Colorspace

from ritornel.core.time.edges import FrameRate

X264 = {"preset": "superfast", "crf": "20", "bf": "2", "x264-params": "b-adapt=0:b-pyramid=none"}
"""Of the presets and their parts, what makes a dissolve of grainy photographs quickest at the same quality
(docs/decisions.md).
"""
TICKS = 16
"""Decoding times are told in sixteenths of a frame."""
VP9 = {"crf": "30", "b": "0", "deadline": "realtime", "cpu-used": "7", "row-mt": "1"}


class FilmOrder(msgspec.Struct, frozen=True):
    """What is wanted. With `constant_rate` every frame is written, for players that need it; without, a still span is
    one long frame.
    """

    width_px: int = 1280
    height_px: int = 720
    rate: FrameRate = Fraction(30)
    constant_rate: bool = False


def picture_stream(container: Any, order: FilmOrder, webm: bool, threads: int) -> Any:
    """The stream of a film's pictures, counted in frames."""
    video = container.add_stream("libvpx-vp9" if webm else "libx264", rate=order.rate, options=VP9 if webm else X264)
    video.width, video.height, video.pix_fmt = order.width_px, order.height_px, "yuv420p"
    video.codec_context.time_base = 1 / order.rate
    video.codec_context.thread_count, video.codec_context.thread_type = threads, "FRAME"
    video.codec_context.colorspace, video.codec_context.color_range = Colorspace.ITU709, ColorRange.MPEG
    video.codec_context.color_primaries = video.codec_context.color_trc = 1
    return video


class PictureTrack:
    """Encodes frames in order and writes them; the last lasts until `end`, in frames.

    A frame that stands is never one that is guessed from its neighbours.

    An encoder that reorders frames tells decoding times that lag behind, so the track of a film whose last picture
    stands would end with an earlier frame. Here each frame is decoded as late as it can be: at its own time, or a
    sixteenth of a frame before the first that needs it. So decoding, too, begins at 0 and ends with the show. At a
    constant rate the encoder's times stand, one frame early, and the file says so.
    """

    def __init__(self, container: Any, order: FilmOrder, webm: bool, threads: int, end: int) -> None:
        self._container, self._order, self._end = container, order, end
        self._stream = picture_stream(container, order, webm, threads)
        self._frame: Any = None
        self._group: list[Any] = []

    def put(self, frame: Any) -> None:
        """Takes the next frame; None after the last."""
        held, self._frame = self._frame, frame
        if held is not None:
            if frame is None or frame.pts - held.pts > 1:
                held.pict_type = PictureType.P
            self._take(self._stream.encode(held))
        if frame is None:
            self._take(self._stream.encode(None))
            self._write(last=True)

    def _take(self, packets: list[Any]) -> None:
        for packet in packets:
            # What is shown after all of a group begins the next one.
            if self._group and packet.pts > max(one.pts for one in self._group):
                self._write()
            self._group.append(packet)

    def _write(self, last: bool = False) -> None:
        """Writes a group: a frame, and those that are shown before it but decoded after it."""
        latest = None
        # The film ends with what is shown last; where decoding is not one frame early, with what is decoded last too.
        final = [max(self._group, key=lambda one: one.pts)] if last else []
        if last and not self._order.constant_rate:
            final.append(self._group[-1])
        for packet in reversed(self._group):
            shown = packet.pts * TICKS
            latest = shown if latest is None else min(shown, latest - 1)
            ends = self._end * TICKS if packet in final else shown + TICKS
            decoded = packet.dts * TICKS if self._order.constant_rate else latest
            packet.pts, packet.dts, packet.duration = shown, decoded, ends - shown
            packet.time_base = 1 / (self._order.rate * TICKS)
        for packet in self._group:
            self._container.mux(packet)
        self._group = []
