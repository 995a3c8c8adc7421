"""How the pictures of films are encoded."""

from fractions import Fraction
from typing import Any

import msgspec
from av.video.reformatter import ColorRange, Colorspace

from ritornel.core.time.edges import FrameRate

X264 = {"preset": "veryfast", "crf": "20", "bf": "0", "x264-params": "subme=1"}
"""One step of motion search below the preset's own: a quarter less work for the same picture. No frame is reordered: the picture's track then lasts
exactly as long as the show (docs/decisions.md)."""
VP9 = {"crf": "30", "b": "0", "deadline": "realtime", "cpu-used": "7", "row-mt": "1"}


class FilmOrder(msgspec.Struct, frozen=True):
    """What is wanted. With `constant_rate` every frame is written, for players that need it; without, a still span is one long frame."""

    width_px: int = 1280
    height_px: int = 720
    rate: FrameRate = Fraction(30)
    constant_rate: bool = False


def picture_stream(container: Any, order: FilmOrder, webm: bool, threads: int) -> Any:
    """The stream of a film's pictures, counted in frames."""
    video = container.add_stream("libvpx-vp9" if webm else "libx264", rate=order.rate, options=VP9 if webm else X264)
    video.width, video.height, video.pix_fmt = order.width_px, order.height_px, "yuv420p"
    video.codec_context.time_base = 1 / order.rate
    video.codec_context.thread_count = threads
    video.codec_context.colorspace, video.codec_context.color_range = Colorspace.ITU709, ColorRange.MPEG
    video.codec_context.color_primaries = video.codec_context.color_trc = 1
    return video


class PictureTrack:
    """Encodes frames in order and writes them, each lasting until the next; the last lasts until `end`, in frames. No frame is reordered, so what is
    written is decoded as it is shown and begins at 0."""

    def __init__(self, container: Any, order: FilmOrder, webm: bool, threads: int, end: int) -> None:
        self._container, self._end = container, end
        self._stream = picture_stream(container, order, webm, threads)
        self._held: Any = None

    def put(self, frame: Any) -> None:
        """Takes the next frame; None after the last."""
        for packet in self._stream.encode(frame):
            self._write_before(packet.pts)
            self._held = packet
        if frame is None:
            self._write_before(self._end)

    def _write_before(self, pts: int) -> None:
        if self._held is not None:
            self._held.duration = pts - self._held.pts
            self._container.mux(self._held)
            self._held = None
