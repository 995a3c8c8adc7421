"""The camera's recording from a browser, as one clip with a length: browsers write neither a length nor an index for
seeking.
"""

from collections.abc import Sequence
from fractions import Fraction
from pathlib import Path
from typing import Any

import av

from ritornel.core.containers import open_container
from ritornel.core.errors import BadMedia

_FORMS = {"matroska,webm": "webm", "mov,mp4,m4a,3gp,3g2,mj2": "mp4"}


def write_joined(segments: Sequence[tuple[Path, int]], target: Path) -> None:
    """Joins segments, each with its start in ms, into one file without encoding again.

    A damaged end of a segment, where its recording was cut off, is left out. Raises BadMedia where they hold no
    picture.
    """
    if not segments:
        raise BadMedia("The camera recorded nothing.")
    with open_container(segments[0][0]) as first:
        form = _FORMS.get(first.format.name)
    if form is None:
        raise BadMedia("What the camera recorded is of a kind that cannot be read.")
    written = 0
    with av.open(str(target), "w", format=form) as out:
        streams: dict[str, Any] = {}
        for path, begins_ms in segments:
            written += _copy_packets(path, Fraction(begins_ms, 1000), out, streams)
    if not written:
        raise BadMedia("There is no picture in what the camera recorded.")


def _copy_packets(path: Path, begins: Fraction, out: Any, streams: dict[str, Any]) -> int:
    """Copies a segment's packets, moved to its start, and returns the number of pictures."""
    pictures = 0
    with open_container(path) as source:
        for kind, found in (("video", source.streams.video), ("audio", source.streams.audio)):
            if found and kind not in streams:
                streams[kind] = out.add_stream_from_template(found[0])
        wanted = [stream for stream in source.streams if stream.type in streams]
        zero: Fraction | None = None
        try:
            for packet in source.demux(wanted):
                if packet.pts is None or packet.time_base is None:
                    continue
                at = packet.pts * packet.time_base
                zero = at if zero is None else zero
                kind = packet.stream.type
                packet.pts = packet.dts = int((at - zero + begins) / packet.time_base)
                packet.stream = streams[kind]
                out.mux(packet)
                pictures += kind == "video"
        except av.FFmpegError:
            return pictures
    return pictures
