"""Files coming in: examined in a process of their own, then kept."""

import tempfile
from pathlib import Path
from typing import IO, Any

import msgspec
from django.conf import settings
from django.core.files.uploadedfile import UploadedFile

from ritornel.core.document.show import Asset, Show
from ritornel.core.errors import BadMedia
from ritornel.core.formats.archive import read_archive
from ritornel.core.formats.media import Limits, asset_from, examined
from ritornel.web.shows.confined import confined
from ritornel.web.shows.storage import keep_media_file


class Intake(msgspec.Struct, frozen=True):
    """What became of a file: its entry for the shelf, and sentences for what its maker should know."""

    asset: Asset
    notes: tuple[str, ...] = ()


def _look(path: Path, redrawn: Path, name: str, limits: Limits, asset_id: str, credit: dict[str, Any]) -> Intake:
    """What the file is; where its picture had to be redrawn, that lies at `redrawn` afterwards."""
    data = path.read_bytes()
    medium = examined(data, name, limits)
    if medium.data is not data:
        redrawn.write_bytes(medium.data)
    return Intake(asset_from(medium, asset_id, name.rsplit(".", 1)[0] or name, **credit), medium.notes)


def take_in(upload: UploadedFile, asset_id: str, **credit: Any) -> Intake:
    """The upload as an entry for the shelf, its content kept. Raises BadMedia for what cannot be shown or heard, and keeps nothing then."""
    name = (upload.name or "file")[:120]
    limit = settings.MEDIA_LIMITS.file_bytes
    if upload.size is not None and upload.size > limit:
        raise BadMedia(f"“{name}” has {upload.size / 1e6:.1f} MB; at most {limit / 1e6:.0f} MB can be added.")
    with tempfile.TemporaryDirectory(prefix="ritornel-in-") as folder:
        path, redrawn = Path(folder) / "came", Path(folder) / "redrawn"
        with path.open("wb") as out:
            for chunk in upload.chunks():
                out.write(chunk)
        intake: Intake = confined(_look, path, redrawn, name, settings.MEDIA_LIMITS, asset_id, credit, what=name)
        keep_media_file(intake.asset.sha256, redrawn if redrawn.is_file() else path)
    return intake


def _unpack(path: Path, name: str, folder: Path, limits: Limits) -> Show:
    def keep(sha256: str, data: bytes) -> None:
        (folder / sha256).write_bytes(data)

    with path.open("rb") as source:
        return read_archive(source, name, keep, limits)


def unpack(source: IO[bytes], name: str) -> Show:
    """The show in an archive, its media kept. Raises BadArchive or BadMedia, and keeps nothing then."""
    with tempfile.TemporaryDirectory(prefix="ritornel-in-") as folder:
        path, media = Path(folder) / "archive", Path(folder) / "media"
        media.mkdir()
        with path.open("wb") as out:
            while chunk := source.read(1_000_000):
                out.write(chunk)
        show: Show = confined(_unpack, path, name, media, settings.MEDIA_LIMITS, what=name)
        for found in media.iterdir():
            keep_media_file(found.name, found)
    return show
