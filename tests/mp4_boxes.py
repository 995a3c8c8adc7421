"""A second reader of .mp4 files, by the boxes of ISO/IEC 14496-12: what the library that wrote a file says of it proves
little.
"""

import struct
from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import msgspec

FULL = 4
"""Version and flags, with which many boxes begin."""


class Track(msgspec.Struct, frozen=True):
    """A track: its kind, how long its media and its place in the film are, in s, how long each sample lasts, by how
    much samples are shown later than decoded, and its edits: (length in s, from where in the media in s).
    """

    kind: str
    media_s: Fraction
    shown_s: Fraction
    samples_s: tuple[Fraction, ...]
    reordered: bool
    edits: tuple[tuple[Fraction, Fraction], ...]


def boxes(data: bytes, first: int = 0, end: int | None = None) -> Iterator[tuple[str, int, int]]:
    """Each box's name, and where its content begins and ends."""
    end = len(data) if end is None else end
    while first + 8 <= end:
        size, name = struct.unpack_from(">I4s", data, first)
        head = 8
        if size == 1:
            (size,), head = struct.unpack_from(">Q", data, first + 8), 16
        size = size or end - first
        yield name.decode("latin-1"), first + head, first + size
        first += size


def inside(data: bytes, place: tuple[int, int], *path: str) -> tuple[int, int] | None:
    """The first box along a path of names."""
    for wanted in path:
        found = next(((start, end) for name, start, end in boxes(data, *place) if name == wanted), None)
        if found is None:
            return None
        place = found
    return place


def _timed(data: bytes, place: tuple[int, int] | None, before: int) -> tuple[int, int]:
    """The time scale and the duration of an mdhd or mvhd box; `before` is how many 4-byte fields stand between them and
    the times of creation.
    """
    assert place is not None
    wide = data[place[0]] == 1
    at = place[0] + FULL + (16 if wide else 8) + before
    scale = struct.unpack_from(">I", data, at)[0]
    return scale, struct.unpack_from(">Q" if wide else ">I", data, at + 4)[0]


def _durations(data: bytes, place: tuple[int, int] | None) -> list[int]:
    assert place is not None
    count = struct.unpack_from(">I", data, place[0] + FULL)[0]
    pairs = [struct.unpack_from(">II", data, place[0] + FULL + 4 + 8 * entry) for entry in range(count)]
    return [length for many, length in pairs for _ in range(many)]


def _edits(data: bytes, place: tuple[int, int] | None) -> list[tuple[int, int]]:
    if place is None:
        return []
    wide = data[place[0]] == 1
    count = struct.unpack_from(">I", data, place[0] + FULL)[0]
    form, step = (">Qq", 20) if wide else (">Ii", 12)
    return [struct.unpack_from(form, data, place[0] + FULL + 4 + step * entry) for entry in range(count)]


def top_boxes(path: Path) -> list[str]:
    """The names of the file's outermost boxes in order."""
    return [name for name, _, _ in boxes(path.read_bytes())]


def tracks(path: Path) -> list[Track]:
    """The file's tracks."""
    data = path.read_bytes()
    film = inside(data, (0, len(data)), "moov")
    assert film is not None
    film_scale, _ = _timed(data, inside(data, film, "mvhd"), 0)
    found = []
    for name, start, end in boxes(data, *film):
        if name != "trak":
            continue
        place = (start, end)
        handler = inside(data, place, "mdia", "hdlr")
        header = inside(data, place, "tkhd")
        assert handler is not None and header is not None
        kind = data[handler[0] + 8 : handler[0] + 12].decode()
        scale, duration = _timed(data, inside(data, place, "mdia", "mdhd"), 0)
        wide = data[header[0]] == 1
        shown = struct.unpack_from(">Q" if wide else ">I", data, header[0] + FULL + (16 if wide else 8) + 8)[0]
        samples = _durations(data, inside(data, place, "mdia", "minf", "stbl", "stts"))
        edits = _edits(data, inside(data, place, "edts", "elst"))
        found.append(
            Track(
                kind,
                Fraction(duration, scale),
                Fraction(shown, film_scale),
                tuple(Fraction(length, scale) for length in samples),
                inside(data, place, "mdia", "minf", "stbl", "ctts") is not None,
                tuple((Fraction(length, film_scale), Fraction(at, scale)) for length, at in edits),
            )
        )
    return found
