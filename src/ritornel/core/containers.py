"""Opening sounds and clips: only the kinds of file that Ritornel takes, and only the one file.

FFmpeg detects the kind of a file by itself and follows what the file says: a stream description named `x.mp4` would
open network ports, a playlist would read other files. So the demuxers are named, and only the protocol for files is
allowed.
"""

from pathlib import Path
from typing import IO, Any

import av

DEMUXERS = "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,wav,mp3,ogg,flac"
"""FFmpeg's names for the kinds of file that are taken in."""
_OPTIONS = {"format_whitelist": DEMUXERS, "protocol_whitelist": "file"}


def open_container(source: Path | IO[bytes]) -> Any:
    """The container in a file, to be closed by the caller.

    Raises av.FFmpegError for any other kind of file, OSError for one that is not there.
    """
    return av.open(str(source) if isinstance(source, Path) else source, "r", options=dict(_OPTIONS))
