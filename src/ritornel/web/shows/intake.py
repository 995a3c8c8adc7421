"""Files coming in: examined in a process of their own, then kept."""

import tempfile
from pathlib import Path
from typing import IO, Any

import msgspec
from django.conf import settings
from django.core.files.uploadedfile import UploadedFile

from ritornel.core.document.show import Asset, Show
from ritornel.core.errors import BadMedia
from ritornel.core.formats.archive import unpack_archive
from ritornel.core.formats.media import asset_of_file
from ritornel.core.formats.opendocument.names import Loss
from ritornel.core.formats.opendocument.reading import read_opendocument
from ritornel.core.formats.pdf import read_pdf
from ritornel.web.shows.confined import confined
from ritornel.web.shows.storage import keep_media_file


class Intake(msgspec.Struct, frozen=True):
    """What became of a file: its entry for the shelf, and sentences for what its maker should know."""

    asset: Asset
    notes: tuple[str, ...] = ()


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
        asset, notes = confined(asset_of_file, path, redrawn, asset_id, name, settings.MEDIA_LIMITS, credit, what=name)
        keep_media_file(asset.sha256, redrawn if redrawn.is_file() else path)
    return Intake(asset, notes)


def unpack(source: IO[bytes], name: str) -> Show:
    """The show in an archive, its media kept. Raises BadArchive or BadMedia, and keeps nothing then."""
    with tempfile.TemporaryDirectory(prefix="ritornel-in-") as folder:
        path, media = Path(folder) / "archive", Path(folder) / "media"
        media.mkdir()
        with path.open("wb") as out:
            while chunk := source.read(1_000_000):
                out.write(chunk)
        show: Show = confined(unpack_archive, path, name, media, settings.MEDIA_LIMITS, what=name)
        for found in media.iterdir():
            keep_media_file(found.name, found)
    return show


def _uploaded(source: UploadedFile, path: Path, name: str) -> None:
    """Writes an upload down. Raises BadMedia for one that is over the limit."""
    limit = settings.MEDIA_LIMITS.file_bytes
    if source.size is not None and source.size > limit:
        raise BadMedia(f"“{name}” has {source.size / 1e6:.1f} MB; at most {limit / 1e6:.0f} MB can be read. Nothing was made.")
    with path.open("wb") as out:
        for chunk in source.chunks():
            out.write(chunk)


def unpack_pdf(source: UploadedFile, show_id: str) -> tuple[Show, tuple[str, ...]]:
    """The show of a PDF, its pictures kept, and what could not be brought in. Raises BadMedia, and keeps nothing then."""
    name = (source.name or "pages.pdf")[:120]
    with tempfile.TemporaryDirectory(prefix="ritornel-in-") as folder:
        path, media = Path(folder) / "came", Path(folder) / "media"
        media.mkdir()
        _uploaded(source, path, name)
        show, told = confined(read_pdf, path, name, media, show_id, what=name)
        for found in media.iterdir():
            keep_media_file(found.name, found)
    return show, told


def unpack_presentation(source: UploadedFile, show_id: str, keeps: bool) -> tuple[Show, tuple[Loss, ...]]:
    """The show of an OpenDocument presentation and what is lost; its media are kept only where it `keeps` them. Raises BadMedia, and keeps nothing then."""
    name = (source.name or "presentation.odp")[:120]
    with tempfile.TemporaryDirectory(prefix="ritornel-in-") as folder:
        path, media = Path(folder) / "came", Path(folder) / "media"
        media.mkdir()
        _uploaded(source, path, name)
        show, losses = confined(read_opendocument, path, name, media, show_id, settings.MEDIA_LIMITS, what=name)
        for found in media.iterdir() if keeps else ():
            keep_media_file(found.name, found)
    return show, losses
