"""The Ritornel archive: a zip with `show.json`, readable and versioned, and the media by content hash."""

import hashlib
import json
import re
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import IO, Any

import msgspec

from ritornel.core.document.decoding import from_builtins, to_builtins
from ritornel.core.document.integrity import check_integrity
from ritornel.core.document.show import Show
from ritornel.core.errors import BadArchive, RitornelError
from ritornel.core.formats.media import Limits, file_name, probe_medium
from ritornel.core.formats.progress import tell_progress
from ritornel.core.formats.upgrades import VERSION, upgrade

SCHEMA = "ritornel.show"
_NAME = re.compile(r"^media/[0-9a-f]{64}\.[a-z0-9]{2,5}$")
MOST_BYTES = 4_000_000_000
MOST_RATIO = 200
"""Media hardly shrink, so a file that unpacks to over 200 times its size is a trap."""

ADD_AGAIN = "Add the same file again: on the shelf, or in the readiness check."

Keep = Callable[[str, bytes], None]
"""Stores a medium's bytes under its SHA-256."""


class _Envelope(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    schema: str
    version: int
    show: dict[str, Any]


def show_json(show: Show) -> bytes:
    """`show.json`: indented, in the order of the fields, with schema and version."""
    body = {"schema": SCHEMA, "version": VERSION, "show": to_builtins(show)}
    return json.dumps(body, ensure_ascii=False, indent=1).encode()


def read_show_json(data: bytes, name: str) -> Show:
    """The show in `show.json`. Raises BadArchive, naming the path of the field that is wrong."""
    try:
        envelope = msgspec.json.decode(data, type=_Envelope)
    except (msgspec.DecodeError, msgspec.ValidationError, UnicodeDecodeError) as error:
        raise BadArchive(f"“{name}”: show.json is not a Ritornel show ({error}).") from error
    if envelope.schema != SCHEMA:
        raise BadArchive(f"“{name}”: show.json says it is “{envelope.schema}”, not “{SCHEMA}”.")
    if not 1 <= envelope.version <= VERSION:
        raise BadArchive(
            f"“{name}” was written in version {envelope.version} of the archive; this Ritornel reads "
            f"versions 1 to {VERSION}."
        )
    try:
        show: Show = from_builtins(upgrade(envelope.show, envelope.version), Show, f"“{name}”, show.json")
        check_integrity(show)
    except BadArchive:
        raise
    except RitornelError as error:
        raise BadArchive(str(error)) from error
    return show


def write_archive(show: Show, out: IO[bytes], media: Callable[[str], Path]) -> None:
    """Writes the show and all its media.

    No entry says when it was written, so one show always gives the same bytes. Raises BadArchive, naming the medium,
    where one is missing or does not match its hash: an archive that cannot be read would be a worthless backup.
    """
    with zipfile.ZipFile(out, "w") as bundle:
        bundle.writestr(zipfile.ZipInfo("show.json"), show_json(show), zipfile.ZIP_DEFLATED)
        written: set[str] = set()
        for asset in show.assets:
            path = media(asset.sha256)
            if not path.is_file():
                raise BadArchive(
                    f"The file of “{asset.name}” is missing, so “{show.title}” cannot be archived whole. {ADD_AGAIN}"
                )
            if asset.sha256 not in written:
                # Pictures and sounds are compressed already; storing them keeps writing fast.
                entry = zipfile.ZipInfo(f"media/{file_name(asset)}")
                entry.file_size = path.stat().st_size
                digest = hashlib.sha256()
                with path.open("rb") as medium, bundle.open(entry, "w") as inside:
                    while chunk := medium.read(1 << 20):
                        digest.update(chunk)
                        inside.write(chunk)
                if digest.hexdigest() != asset.sha256:
                    raise BadArchive(
                        f"The file of “{asset.name}” is damaged, so “{show.title}” cannot be archived whole. "
                        f"{ADD_AGAIN}"
                    )
                written.add(asset.sha256)


def read_archive(source: IO[bytes], name: str, keep: Keep, limits: Limits, told: Path | None = None) -> Show:
    """The show in an archive.

    Its media go to `keep` once everything is checked. The file `told` says how many are done. Raises BadArchive for a
    file that is no archive, that has paths outside itself, unpacks to too much, lacks media, or is of a version from
    the future. Media are untrusted: their content must match their hash and be what the show says.
    """
    try:
        with zipfile.ZipFile(source) as bundle:
            return _read(bundle, name, keep, limits, told)
    except (zipfile.BadZipFile, EOFError, NotImplementedError, RuntimeError) as error:
        raise BadArchive(f"“{name}” is not a Ritornel archive, or it is damaged.") from error


def _read(bundle: zipfile.ZipFile, name: str, keep: Keep, limits: Limits, told: Path | None) -> Show:
    entries = {entry.filename: entry for entry in bundle.infolist()}
    for entry in entries.values():
        if entry.filename != "show.json" and not _NAME.match(entry.filename):
            raise BadArchive(
                f"“{name}” holds “{entry.filename}”, which has no place in an archive. Nothing was taken from it."
            )
        if entry.file_size > max(entry.compress_size, 5_000) * MOST_RATIO:
            raise BadArchive(
                f"“{name}”: “{entry.filename}” would unpack to {entry.file_size:,} bytes from "
                f"{entry.compress_size:,}. Nothing was taken from it."
            )
    if sum(entry.file_size for entry in entries.values()) > MOST_BYTES:
        raise BadArchive(f"“{name}” would unpack to more than {MOST_BYTES / 1e9:.0f} GB.")
    if "show.json" not in entries:
        raise BadArchive(f"“{name}” has no show.json, so it is not a Ritornel archive.")
    show = read_show_json(bundle.read("show.json"), name)
    # Everything is checked before anything is kept, one medium in memory at a time.
    for number, asset in enumerate(show.assets):
        tell_progress(told, number, len(show.assets))
        inside = f"media/{file_name(asset)}"
        if inside not in entries:
            raise BadArchive(f"“{name}” lacks the medium “{asset.name}” ({inside}).")
        data = bundle.read(inside)
        if hashlib.sha256(data).hexdigest() != asset.sha256:
            raise BadArchive(f"“{name}”: “{asset.name}” is not what its hash says; the archive is damaged.")
        try:
            medium = probe_medium(data, asset.name, limits)
        except RitornelError as error:
            raise BadArchive(f"“{name}”: {error}") from error
        # Version 1 kept moving pictures as they came; their first moment is a PNG.
        if medium.media_type != asset.media_type and not (
            medium.media_type == "image/png" and asset.media_type in ("image/gif", "image/webp")
        ):
            raise BadArchive(f"“{name}”: “{asset.name}” says it is {asset.media_type}, but it is {medium.media_type}.")
    for sha256, inside in {asset.sha256: f"media/{file_name(asset)}" for asset in show.assets}.items():
        keep(sha256, bundle.read(inside))
    return show


def unpack_archive(
    path: Path, name: str, folder: Path, show_id: str, limits: Limits, told: Path | None = None
) -> tuple[Show, tuple[str, ...]]:
    """The show in the archive at `path` with a new id, and its losses: none.

    Its media then lie in `folder`, each under its hash. Raises BadArchive.
    """

    def keep(sha256: str, data: bytes) -> None:
        (folder / sha256).write_bytes(data)

    with path.open("rb") as source:
        return msgspec.structs.replace(read_archive(source, name, keep, limits, told), id=show_id), ()
