"""Media in storage, under the SHA-256 of their content."""

from pathlib import Path

from django.core.files.base import ContentFile, File
from django.core.files.storage import default_storage


def media_name(sha256: str) -> str:
    """Where content lies in storage: two characters of its hash make a folder."""
    return f"{sha256[:2]}/{sha256}"


def media_path(sha256: str) -> Path:
    """The local file with this content. It may be missing."""
    return Path(default_storage.path(media_name(sha256)))


def keep_media(sha256: str, data: bytes) -> None:
    """Stores content; the same content is stored once."""
    if not default_storage.exists(media_name(sha256)):
        default_storage.save(media_name(sha256), ContentFile(data))


def keep_media_file(sha256: str, path: Path) -> None:
    """Stores the content of a file, which never lies in memory as a whole."""
    if not default_storage.exists(media_name(sha256)):
        with path.open("rb") as source:
            default_storage.save(media_name(sha256), File(source))
