"""Files coming in: examined in a process of their own, then kept."""

import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings
from django.core.files.uploadedfile import UploadedFile

from ritornel.core.document.show import Asset, Show
from ritornel.core.errors import BadMedia
from ritornel.core.formats.archive import unpack_archive
from ritornel.core.formats.media import asset_of_file
from ritornel.core.formats.opendocument.reading import read_opendocument
from ritornel.core.formats.pdf import read_pdf
from ritornel.core.formats.progress import progress_told
from ritornel.web.shows.confined import Bounds, confined
from ritornel.web.shows.storage import keep_media_file

LONG = Bounds(wall_s=600)
"""Three hundred pages, or an evening's films, may take minutes: their reader is seen at work, and can be told to stop."""


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


def write_down(source: UploadedFile, path: Path, name: str, limit: int) -> None:
    """Writes an upload down. Raises BadMedia for one that has more bytes than `limit`."""
    if source.size is not None and source.size > limit:
        raise BadMedia(f"“{name}” has {source.size / 1e6:.1f} MB; at most {limit / 1e6:.0f} MB can be read. Nothing was made.")
    with path.open("wb") as out:
        for chunk in source.chunks():
            out.write(chunk)


def unpack(kind: str, path: Path, name: str, media: Path, show_id: str, watch: Callable[[int, int], None]) -> tuple[Show, tuple[Any, ...]]:
    """The show of a file, an "archive", a "pdf" or a "presentation", and what is lost, in sentences or as Loss; its media lie in the folder `media` afterwards.
    `watch` is told how many of its pages or files are done, of how many (0: not known yet); what it raises ends the reading. Raises BadArchive or BadMedia."""
    readers: dict[str, tuple[Callable[..., Any], tuple[Any, ...]]] = {
        "archive": (unpack_archive, (settings.MEDIA_LIMITS,)), "pdf": (read_pdf, ()), "presentation": (read_opendocument, (settings.MEDIA_LIMITS,)),
    }  # fmt: skip
    reader, given = readers[kind]
    with tempfile.TemporaryDirectory(prefix="ritornel-in-") as folder:
        told = Path(folder) / "told"

        def look() -> None:
            watch(*progress_told(told))

        outcome: tuple[Show, tuple[Any, ...]] = confined(reader, path, name, media, show_id, *given, told, what=name, bounds=LONG, watch=look)
    return outcome
