"""Media in storage, by the SHA-256 of their content.

A stored file is complete: it is written elsewhere, checked against its hash and moved into place.
"""

import hashlib
from collections.abc import Iterable, Iterator
from pathlib import Path

from django.core.files.storage import default_storage

from ritornel.core.checks import FileFault
from ritornel.core.document.show import Asset
from ritornel.core.errors import BadMedia
from ritornel.web.config.atomic_files import atomic_file

CHUNK_BYTES = 1 << 20


def media_name(sha256: str) -> str:
    """The name of content in storage: two characters of its hash make a folder."""
    return f"{sha256[:2]}/{sha256}"


def media_path(sha256: str) -> Path:
    """The local file with this content. It may be missing."""
    return Path(default_storage.path(media_name(sha256)))


def _chunks(path: Path) -> Iterator[bytes]:
    with path.open("rb") as source:
        while chunk := source.read(CHUNK_BYTES):
            yield chunk


def hash_file(path: Path) -> str:
    """The SHA-256 of a file's content."""
    digest = hashlib.sha256()
    for chunk in _chunks(path):
        digest.update(chunk)
    return digest.hexdigest()


def _keep(sha256: str, chunks: Iterable[bytes], size: int) -> None:
    """Stores content unless it is there and complete.

    A damaged file is replaced. Raises BadMedia, DiskFull.
    """
    path = media_path(sha256)
    if path.is_file() and path.stat().st_size == size and hash_file(path) == sha256:
        # As young as what has just come: it is not tidied away before a show holds it.
        path.touch()
        return
    digest = hashlib.sha256()
    with atomic_file(path) as unfinished:
        with unfinished.open("wb") as out:
            for chunk in chunks:
                digest.update(chunk)
                out.write(chunk)
        if digest.hexdigest() != sha256:
            raise BadMedia("A file changed while it was being kept. Nothing was added; try again.")


def keep_media(sha256: str, data: bytes) -> None:
    """Stores content; the same content is stored once."""
    _keep(sha256, (data,), len(data))


def keep_media_file(sha256: str, path: Path) -> None:
    """Stores the content of a file, without loading all of it into memory."""
    _keep(sha256, _chunks(path), path.stat().st_size)


def fault_of(asset: Asset) -> FileFault | None:
    """The fault of an asset's file: it is missing, or its size has changed.

    None where it is right.
    """
    try:
        size = media_path(asset.sha256).stat().st_size
    except FileNotFoundError:
        return "missing"
    return None if size == asset.size_bytes else "damaged"
