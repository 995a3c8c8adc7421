"""Uploads: examined in a process of their own, then stored."""

import contextlib
import tempfile
from collections.abc import Callable, Iterator
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
from ritornel.core.formats.progress import read_progress
from ritornel.core.formats.svg import looks_like_svg
from ritornel.core.wording import one_line
from ritornel.web.jobs.sandbox import Bounds, run_confined
from ritornel.web.shows.services import keep_media_file

LONG = Bounds(wall_s=600, cpu_s=600)
"""Three hundred pages, or an evening's films, may take minutes: their reader is seen at work, and can be told to
stop.
"""


DRAWING = Bounds(wall_s=15, cpu_s=5)
SNIFFED_BYTES = 4096


class Intake(msgspec.Struct, frozen=True):
    """The result of an upload: its entry for the shelf, and sentences for its maker."""

    asset: Asset
    notes: tuple[str, ...] = ()


@contextlib.contextmanager
def _examine(
    upload: UploadedFile, asset_id: str, credit: dict[str, Any]
) -> Iterator[tuple[Asset, tuple[str, ...], Path]]:
    """The true kind of an upload, sentences for its maker, and the file to store, which is removed afterwards.

    Raises BadMedia.
    """
    name = one_line(upload.name or "file")[:120] or "file"
    limit = settings.MEDIA_LIMITS.file_bytes
    if upload.size is not None and upload.size > limit:
        raise BadMedia(f"“{name}” has {upload.size / 1e6:.1f} MB; at most {limit / 1e6:.0f} MB can be added.")
    with tempfile.TemporaryDirectory(prefix="upload-") as folder:
        path, redrawn = Path(folder) / "came", Path(folder) / "redrawn"
        with path.open("wb") as out:
            for chunk in upload.chunks():
                out.write(chunk)
        # A drawing is computed, and a filter in it can take for ever; everything else is as much work as it has bytes.
        with path.open("rb") as source:
            bounds = DRAWING if looks_like_svg(source.read(SNIFFED_BYTES)) else Bounds()
        asset, notes = run_confined(
            asset_of_file, path, redrawn, asset_id, name, settings.MEDIA_LIMITS, credit, what=name, bounds=bounds
        )
        yield asset, notes, redrawn if redrawn.is_file() else path


def take_in(upload: UploadedFile, asset_id: str, **credit: Any) -> Intake:
    """The upload as an entry for the shelf, its content stored.

    Raises BadMedia for a file that cannot be shown or heard, and then stores nothing.
    """
    with _examine(upload, asset_id, credit) as (asset, notes, path):
        keep_media_file(asset.sha256, path)
    return Intake(asset, notes)


def heal_media(upload: UploadedFile, asset: Asset) -> None:
    """Stores the file of an asset again. Raises BadMedia for any other file than the original one."""
    with _examine(upload, asset.id, {}) as (found, _, path):
        if found.sha256 != asset.sha256:
            words = (
                f"“{upload.name}” is another file than the one that “{asset.name}” was. Nothing was changed; "
                "to use it instead, replace it on the shelf."
            )
            raise BadMedia(one_line(words))
        keep_media_file(asset.sha256, path)


def write_down(source: UploadedFile, path: Path, name: str, limit: int) -> None:
    """Writes an upload to a file. Raises BadMedia for one with more bytes than `limit`."""
    if source.size is not None and source.size > limit:
        raise BadMedia(
            f"“{name}” has {source.size / 1e6:.1f} MB; at most {limit / 1e6:.0f} MB can be read. Nothing was made."
        )
    with path.open("wb") as out:
        for chunk in source.chunks():
            out.write(chunk)


def unpack(
    kind: str, path: Path, name: str, media: Path, show_id: str, watch: Callable[[int, int], None]
) -> tuple[Show, tuple[Any, ...]]:
    """The show of a file, an "archive", a "pdf" or a "presentation", and its losses, as sentences or as Loss; its media
    then lie in the folder `media`. `watch` gets the number of pages or files that are done, and the total (0: not known
    yet); an error of it ends the reading. Raises BadArchive or BadMedia.
    """
    readers: dict[str, tuple[Callable[..., Any], tuple[Any, ...]]] = {
        "archive": (unpack_archive, (settings.MEDIA_LIMITS,)),
        "pdf": (read_pdf, ()),
        "presentation": (read_opendocument, (settings.MEDIA_LIMITS,)),
    }
    reader, given = readers[kind]
    with tempfile.TemporaryDirectory(prefix="reading-") as folder:
        told = Path(folder) / "told"

        def look() -> None:
            watch(*read_progress(told))

        outcome: tuple[Show, tuple[Any, ...]] = run_confined(
            reader, path, name, media, show_id, *given, told, what=name, bounds=LONG, watch=look
        )
    return outcome
