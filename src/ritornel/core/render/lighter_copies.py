"""Lighter copies of clips for browsers: for clips that are large or heavy, or in a form that browsers do not play."""

from fractions import Fraction
from pathlib import Path
from typing import Any

import av
from av.audio.resampler import AudioResampler
from av.video.frame import PictureType

from ritornel.core.containers import open_container
from ritornel.core.errors import BadMedia
from ritornel.core.time.edges import SAMPLE_RATE_HZ
from ritornel.core.time.milliseconds import round_half_up

SIDE_PX = 1280
KEY_EVERY = 12
"""A key picture every so many: what is looked for in a browser is there at once."""
TICK = Fraction(1, 90_000)


def _even(length: float) -> int:
    return max(round_half_up(length / 2) * 2, 2)


def _first(streams: Any) -> Any:
    return next(iter(streams), None)


def write_lighter(path: Path, target: Path) -> int:
    """Writes the clip at `path` as MP4 with H.264 and AAC at `target`: at most 1280 px wide and high, with the same
    times for pictures and sound. Returns the number of pictures. Raises BadMedia where none can be read.
    """
    pictures = 0
    with (
        open_container(path) as source,
        av.open(str(target), "w", format="mp4", options={"movflags": "+faststart"}) as out,
    ):
        seen, heard = source.streams.video[0], _first(source.streams.audio)
        streams = [seen, heard] if heard is not None else [seen]
        scale = min(SIDE_PX / max(seen.codec_context.width, seen.codec_context.height), 1.0)
        video = out.add_stream(
            "libx264", rate=seen.average_rate or 30, options={"preset": "veryfast", "crf": "25", "g": str(KEY_EVERY)}
        )
        audio = out.add_stream("aac", rate=SAMPLE_RATE_HZ, layout="stereo") if heard is not None else None
        resampler = AudioResampler(format="fltp", layout="stereo", rate=SAMPLE_RATE_HZ)
        # A file's header is written with its first packet, and that may be one of sound: what the pictures are must be
        # known before.
        first: Any = next(iter(source.decode(seen)), None)
        if first is None:
            raise BadMedia(f"“{path.name}” has no picture that can be read.")
        size = _upright_size(first, scale, seen)
        video.width, video.height, video.pix_fmt = *size, "yuv420p"
        video.time_base = video.codec_context.time_base = TICK
        source.seek(0)
        begins: Fraction | None = None
        for packet in source.demux(streams):
            try:
                frames: Any = packet.decode()
            except av.FFmpegError:
                continue  # what is damaged in the middle is left out
            for frame in frames:
                if frame.pts is None or frame.time_base is None:
                    continue
                at = Fraction(frame.pts) * frame.time_base
                begins = at if begins is None else begins
                if isinstance(frame, av.AudioFrame):
                    if audio is not None:
                        _sound(out, audio, resampler.resample(frame), begins)
                    continue
                plain = _turn_upright(frame).reformat(*size, format="yuv420p")
                plain.pts, plain.time_base, plain.pict_type = round((at - begins) / TICK), TICK, PictureType.NONE
                if plain.pts >= 0:
                    out.mux(video.encode(plain))
                    pictures += 1
        out.mux(video.encode(None))
        if audio is not None:
            _sound(out, audio, resampler.resample(None), begins or Fraction(0))
            out.mux(audio.encode(None))
    return pictures


def write_checked_lighter(path: Path, target: Path) -> None:
    """The same, then reads the copy: raises BadMedia where it does not have all pictures that were written."""
    written = write_lighter(path, target)
    with open_container(target) as copy:
        read = sum(1 for packet in copy.demux(copy.streams.video[0]) if packet.pts is not None)
        if read != written:
            raise BadMedia(f"The lighter copy of “{path.name}” has {read} pictures instead of {written}.")


def _upright_size(frame: Any, scale: float, stream: Any) -> tuple[int, int]:
    aspect = float(stream.sample_aspect_ratio or 1) or 1.0
    wide, high = _even(frame.width * aspect * scale), _even(frame.height * scale)
    return (high, wide) if frame.rotation % 180 else (wide, high)


def _turn_upright(frame: Any) -> Any:
    """The frame turned upright, where the camera was turned."""
    if not frame.rotation % 360:
        return frame
    from ritornel.core.render.footage import turn_upright

    return av.VideoFrame.from_ndarray(
        turn_upright(frame.to_ndarray(format="rgb24"), frame.rotation).copy(), format="rgb24"
    )


def _sound(out: Any, audio: Any, parts: list[Any], begins: Fraction) -> None:
    for part in parts:
        if part.pts is not None:
            part.pts -= round(begins * SAMPLE_RATE_HZ)
        out.mux(audio.encode(part))
