"""Pictures, clips and sounds of a presentation, each put on the show's shelf once."""

import hashlib
from pathlib import Path

from ritornel.core.document.show import Asset
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Limits, asset_from, probe_medium
from ritornel.core.formats.opendocument.package import Package

MOST_MEDIA = 2000


class Shelf:
    """The media so far. `folder` holds each under its hash."""

    def __init__(self, package: Package, folder: Path, limits: Limits) -> None:
        self._package, self._folder, self._limits = package, folder, limits
        self._by_place: dict[str, Asset | str] = {}
        self._by_hash: dict[str, Asset] = {}

    @property
    def assets(self) -> tuple[Asset, ...]:
        return tuple(self._by_hash.values())

    def brought(self, address: str, name: str = "") -> Asset | str:
        """The shelf's entry for an address, or a sentence that says why there is none.

        Nothing outside the file is fetched.
        """
        place = self._package.inner(address)
        if place is None:
            outside = address.startswith(("http:", "https:", "file:", "ftp:", "/", "../"))
            return (
                ("a picture, clip or sound that lies outside the file")
                if outside or ".." in address
                else "a picture, clip or sound that is not in the file"
            )
        if place not in self._by_place:
            self._by_place[place] = self._read(place, name or Path(place).stem)
        return self._by_place[place]

    def asset(self, address: str, name: str, lost: set[str]) -> Asset | None:
        """The shelf's entry, or None with the loss added to `lost`."""
        found = self.brought(address, name)
        if isinstance(found, str):
            lost.add(found)
            return None
        return found

    def _read(self, place: str, name: str) -> Asset | str:
        if len(self._by_hash) >= MOST_MEDIA:
            return f"pictures, clips and sounds after the first {MOST_MEDIA:,}"
        try:
            medium = probe_medium(self._package.bytes_of(place) or b"", name, self._limits)
        except BadMedia:
            suffix = Path(place).suffix.lstrip(".").upper()[:8]
            return f"a picture, clip or sound that cannot be read{f' ({suffix})' if suffix.isalnum() else ''}"
        sha256 = hashlib.sha256(medium.data).hexdigest()
        if sha256 not in self._by_hash:
            (self._folder / sha256).write_bytes(medium.data)
            self._by_hash[sha256] = asset_from(medium, f"medium-{len(self._by_hash) + 1}", name[:200])
        return self._by_hash[sha256]
