"""The files of recordings: parts are on the disk before they are answered.

Each recording has a folder with its sound, the camera's segments, and the pieces cut from them for the shelf.
"""

import os
import re
import tempfile
from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings

from ritornel.core.document.camera import Placement
from ritornel.core.document.decoding import from_builtins
from ritornel.core.document.show import Asset
from ritornel.core.errors import BadMedia, DiskFull, RitornelError
from ritornel.core.formats.media import asset_of_file
from ritornel.core.rehearsal.recording import RecordedSlide
from ritornel.core.rehearsal.selected_takes import RECORDED, Picked
from ritornel.core.render.camera_clip import write_joined
from ritornel.core.sound.recording_file import write_piece
from ritornel.web.config.atomic_files import NO_ROOM
from ritornel.web.jobs.sandbox import Bounds, run_confined
from ritornel.web.shows.services import keep_media_file
from ritornel.web.takes.models import Recording

SOUND = "sound.s16"
_SEGMENT = re.compile(r"^camera-(\d+)-(\d+)$")
LONG = Bounds(wall_s=600)


class UploadGap(RitornelError):
    """The part does not follow the stored ones; `size` is how much is stored."""

    def __init__(self, message: str, size: int) -> None:
        super().__init__(message)
        self.size = size


def recording_folder(recording_id: str) -> Path:
    """The folder of a recording."""
    return Path(settings.VAR) / "recordings" / recording_id


def sound_path(recording_id: str) -> Path:
    """The recording's sound so far; the file is missing before the first part."""
    return recording_folder(recording_id) / SOUND


def size_of(path: Path) -> int:
    """The number of stored bytes."""
    return path.stat().st_size if path.is_file() else 0


def append(path: Path, at: int, data: bytes) -> int:
    """Appends what follows byte `at`, as far as it is new, and returns the stored size, on the disk.

    A part that is sent twice changes nothing. Raises UploadGap where an earlier part is missing, DiskFull where there
    is no room; then nothing is added.
    """
    size = size_of(path)
    if at > size:
        raise UploadGap(f"Something before this is missing: {size} bytes are there, and these begin at {at}.", size)
    fresh = data[size - at :]
    if not fresh:
        return size
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        with path.open("ab") as out:
            out.write(fresh)
            out.flush()
            os.fsync(out.fileno())
    except OSError as error:
        if path.is_file():
            os.truncate(path, size)
        if error.errno in NO_ROOM:
            raise DiskFull(
                "The server's disk is full. What was recorded so far is safe; the rest is kept in this "
                "window until there is room."
            ) from error
        raise
    return size + len(fresh)


def segment_path(recording_id: str, piece: int, from_ms: int) -> Path:
    """The camera's segment of a piece, from `from_ms` of the recording on."""
    return recording_folder(recording_id) / f"camera-{piece}-{from_ms}"


def segments_of(recording_id: str, piece: RecordedSlide) -> list[tuple[Path, int]]:
    """The camera's segments of a piece, each with its start on the slide's clock, in ms."""
    folder = recording_folder(recording_id)
    found = []
    for path in folder.glob(f"camera-{piece.number}-*") if folder.is_dir() else ():
        match = _SEGMENT.match(path.name)
        if match and path.stat().st_size:
            found.append((path, max(int(match[2]) - piece.from_ms, 0)))
    return sorted(found, key=lambda entry: entry[1])


def has_picture(recording_id: str, piece: RecordedSlide) -> bool:
    """Whether a camera ran with the piece."""
    return bool(segments_of(recording_id, piece))


def sound_id(recording_id: str, piece: RecordedSlide) -> str:
    """The id of a piece's sound on the shelf. A piece that has become longer is another sound."""
    return f"{RECORDED}{recording_id}-{piece.number}-{piece.lasts_ms}"


def _about(recording_id: str, piece: RecordedSlide, what: str) -> Path:
    """The file about a cut: the shelf's entry, or null where it cannot be read."""
    return recording_folder(recording_id) / f"cut-{what}-{piece.number}-{piece.lasts_ms}.json"


def picture_ms(recording_id: str, piece: RecordedSlide) -> int | None:
    """The length of the camera's picture of a piece; None until it is cut."""
    about = _about(recording_id, piece, "camera")
    if not about.is_file():
        return None
    made: Asset | None = msgspec.json.decode(about.read_bytes(), type=Asset | None)
    return made.lasts_ms if made is not None else 0


def _cut(recording: Recording, piece: RecordedSlide, name: str, what: str, make: Any, asset_id: str) -> Asset:
    """A cut as the shelf's entry, its content stored; made once."""
    about = _about(recording.id, piece, what)
    if about.is_file():
        known: Asset | None = msgspec.json.decode(about.read_bytes(), type=Asset | None)
        if known is None:
            raise BadMedia(f"{name}: what was recorded cannot be read.")
        return known
    # The worker and a request may be at it at the same time: each works on files of its own, and the last to be done is
    # as good as the first.
    with tempfile.TemporaryDirectory(prefix="cut-", dir=about.parent) as folder:
        made, told = Path(folder) / "made", Path(folder) / "told"
        make(made)
        asset: Asset = run_confined(
            asset_of_file,
            made,
            Path(folder) / "redrawn",
            asset_id,
            name,
            settings.MEDIA_LIMITS,
            {"folder": "Recorded"},
            what=name,
        )[0]
        keep_media_file(asset.sha256, made)
        asset = msgspec.structs.replace(asset, name=name)
        told.write_bytes(msgspec.json.encode(asset))
        told.replace(about)
    return asset


def cut(recording: Recording, piece: RecordedSlide, slide_name: str) -> Picked:
    """A piece with its sound and picture, as assets for the shelf.

    Raises BadValue where nothing of it was recorded; a picture that cannot be read is left out.
    """
    name = f"{slide_name}, take {recording.number}"
    placement = recording_placement(recording)
    own = sound_id(recording.id, piece)
    sound = _cut(
        recording,
        piece,
        name,
        "sound",
        lambda target: write_piece(sound_path(recording.id), piece.from_ms, piece.lasts_ms, target),
        own,
    )
    picture = None
    segments = segments_of(recording.id, piece)
    if segments and placement.records:
        try:
            picture = _cut(
                recording,
                piece,
                f"{name}, camera",
                "camera",
                lambda target: run_confined(write_joined, segments, target, what=name, bounds=LONG),
                f"{own}-c",
            )
        except BadMedia:
            _about(recording.id, piece, "camera").write_bytes(b"null")
            picture = None
    return Picked(piece, sound, picture, placement)


def clip_of(recording: Recording, whole: RecordedSlide) -> Asset:
    """A short recording as an asset for the shelf: with its picture where a camera ran, else its sound alone.

    Raises BadMedia for a picture that cannot be read.
    """
    segments = segments_of(recording.id, whole)
    name = f"Recorded {recording.begun_at:%-d %b %H:%M}"
    if segments:
        size = sum(size_of(path) for path, _ in segments)
        counted = msgspec.structs.replace(whole, lasts_ms=size)
        return _cut(
            recording,
            counted,
            name,
            "clip",
            lambda target: run_confined(write_joined, segments, target, what=name, bounds=LONG),
            f"rec-{recording.id}-c",
        )
    return _cut(
        recording,
        whole,
        name,
        "voice",
        lambda target: write_piece(sound_path(recording.id), 0, whole.lasts_ms, target),
        f"rec-{recording.id}",
    )


def recording_placement(recording: Recording) -> Placement:
    """The camera's placement in a recording."""
    placement: Placement = from_builtins(recording.placement or {}, Placement, "The camera")
    return placement
