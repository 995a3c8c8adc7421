"""How the pictures of films are encoded."""

from collections.abc import Iterator
from fractions import Fraction
from typing import Any

import av
import msgspec
from av.packet import Packet
from av.video.reformatter import ColorRange, Colorspace

from ritornel.core.render.frame_types import FilmFrame, FrameTypes, between_in_dissolve
from ritornel.core.render.h264 import Repeats
from ritornel.core.time.edges import FrameRate

X264 = {
    "preset": "superfast",
    "crf": "20",
    "forced-idr": "1",
    "x264-params": "b-adapt=0:b-pyramid=none:partitions=i8x8",
}
"""Of the presets and their parts, what makes a dissolve of grainy photographs quickest at the same quality
(docs/decisions.md). Which frames are B frames is decided by `FrameTypes`.
"""
LOOKAHEAD = ":mbtree=1:rc-lookahead=4"
"""For clips: where the camera's noise stands still it is not encoded again and again. A third of the time, an eighth of
the bytes, and the quality of photographs (docs/decisions.md).
"""
LEAST_REPEATED = 12
"""At a constant rate, a picture that stands for more frames than this is not encoded again for each of them. The
picture after it is a whole one, which costs as much as a dozen copies.
"""
TICKS = 16
"""Decoding times are told in sixteenths of a frame."""
VP9 = {"crf": "30", "b": "0", "deadline": "realtime", "cpu-used": "7", "row-mt": "1"}


class FilmOrder(msgspec.Struct, frozen=True):
    """The settings of a film. With `constant_rate` every frame is written, for players that need that; without it, a
    still span is one long frame.
    """

    width_px: int = 1280
    height_px: int = 720
    rate: FrameRate = Fraction(30)
    constant_rate: bool = False


def picture_stream(container: Any, order: FilmOrder, webm: bool, threads: int, clips: bool) -> Any:
    """The stream of a film's pictures, with times counted in frames; `clips` says whether it contains clips."""
    between = {"bf": str(between_in_dissolve(order.width_px, order.height_px))}
    x264 = X264 | between | ({"x264-params": X264["x264-params"] + LOOKAHEAD} if clips else {})
    video = container.add_stream("libvpx-vp9" if webm else "libx264", rate=order.rate, options=VP9 if webm else x264)
    video.width, video.height, video.pix_fmt = order.width_px, order.height_px, "yuv420p"
    video.codec_context.time_base = 1 / order.rate
    video.codec_context.thread_count, video.codec_context.thread_type = threads, "FRAME"
    video.codec_context.colorspace, video.codec_context.color_range = Colorspace.ITU709, ColorRange.MPEG
    video.codec_context.color_primaries = video.codec_context.color_trc = 1
    return video


class PictureTrack:
    """Encodes frames in order and writes them; the last one lasts until `end`, in frames.

    At a constant rate a picture is written for every frame, otherwise only for those that differ. An encoder that
    reorders frames gives late decoding times, so the track of a film with a still end would stop at an earlier frame.
    Here each frame is decoded as late as possible: at its own time, or a sixteenth of a frame before the first that
    needs it. So decoding, too, begins at 0 and ends with the show. At a constant rate frames are decoded at whole
    frames, one early, and the file says so.
    """

    def __init__(
        self, container: Any, order: FilmOrder, webm: bool, threads: int, end: int, clips: bool = False
    ) -> None:
        self._container, self._order, self._webm, self._end = container, order, webm, end
        self._stream = picture_stream(container, order, webm, threads, clips)
        self._types = self._begun()
        self._last: Any = None
        # A picture, and those that are decoded after it and shown before it.
        self._group: list[Any] = []
        # How many repeats come after the picture of a frame.
        self._repeated: dict[int, int] = {}
        self._repeats: Repeats | None = None
        self._decoded = 0

    def _begun(self) -> FrameTypes:
        return FrameTypes(between_in_dissolve(self._order.width_px, self._order.height_px))

    def put(self, frame: FilmFrame | None) -> None:
        """Takes the next frame that differs. None comes after the last."""
        if self._order.constant_rate and self._last is not None:
            self._stand((self._end if frame is None else frame.picture.pts) - self._last.pts - 1)
        if frame is not None:
            self._last = frame.picture
            self._encode(self._types.put(frame))
            return
        self._encode(self._types.end())
        self._take(self._stream.encode(None))
        self._write(last=True)

    def _stand(self, frames: int) -> None:
        """Repeats the last picture for so many frames."""
        if frames > LEAST_REPEATED and not self._webm:
            self._encode(self._types.end())
            self._types = self._begun()
            self._repeated[self._last.pts] = frames
            return
        for _ in range(frames):
            self._last = copy_picture(self._last, self._last.pts + 1)
            self._encode(self._types.put(FilmFrame(self._last)))

    def _encode(self, pictures: Iterator[Any]) -> None:
        for picture in pictures:
            self._take(self._stream.encode(picture))

    def _take(self, packets: list[Any]) -> None:
        for packet in packets:
            # What is shown after all of a group begins the next one.
            if self._group and packet.pts > max(one.pts for one in self._group):
                self._write()
            self._group.append(packet)

    def _write(self, last: bool = False) -> None:
        """Writes a group: a frame, and the frames that are shown before it but decoded after it."""
        if self._order.constant_rate:
            early = 0 if self._webm else 1
            for packet in [*self._group, *self._repeats_of(self._group)]:
                packet.dts, packet.duration, packet.time_base = self._decoded - early, 1, 1 / self._order.rate
                self._decoded += 1
                self._container.mux(packet)
        else:
            self._time(last)
            for packet in self._group:
                self._container.mux(packet)
        self._group = []

    def _repeats_of(self, group: list[Any]) -> Iterator[Any]:
        """The pictures that repeat after a group."""
        first = group[0]
        count = self._repeated.get(first.pts, 0)
        if not count:
            return
        if self._repeats is None:
            self._repeats = Repeats(bytes(self._stream.codec_context.extradata))
        pts, stream = first.pts, first.stream
        for number, content in enumerate(self._repeats.after(bytes(first), count), 1):
            packet = Packet(content)
            packet.stream, packet.pts = stream, pts + number
            yield packet

    def _time(self, last: bool) -> None:
        """Sets the times of the group's packets, where pictures last as long as they stand."""
        latest = None
        # The film ends with what is shown last, and with what is decoded last.
        final = [max(self._group, key=lambda one: one.pts), self._group[-1]] if last else []
        for packet in reversed(self._group):
            shown = packet.pts * TICKS
            latest = shown if latest is None else min(shown, latest - 1)
            ends = self._end * TICKS if packet in final else shown + TICKS
            packet.pts, packet.dts, packet.duration = shown, latest, ends - shown
            packet.time_base = 1 / (self._order.rate * TICKS)


def copy_picture(picture: Any, number: int) -> Any:
    """The same picture, `number` frames after the start of counting."""
    made = av.VideoFrame(picture.width, picture.height, picture.format.name)
    for plane, source in zip(made.planes, picture.planes, strict=True):
        plane.update(source)
    made.pts, made.time_base = number, picture.time_base
    return made
