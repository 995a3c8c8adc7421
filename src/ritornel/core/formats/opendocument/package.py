"""Opening a package that may be hostile: sizes are limited, entities are never expanded, and nothing outside the file
is fetched.
"""

import re
import zipfile
from pathlib import Path
from types import TracebackType
from typing import Self
from xml.etree.ElementTree import Element, ParseError

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import iterparse

from ritornel.core.errors import BadMedia
from ritornel.core.formats.opendocument.names import MEDIA_TYPE, attribute_of, full

MOST_ENTRIES = 5000
MOST_XML_BYTES = 80_000_000
MOST_BYTES = 2_000_000_000
MOST_RATIO = 250
"""What unpacks to over 250 times its size, and to more than a megabyte, is a trap; markup hardly reaches a hundred."""
FREE_BYTES = 1_000_000
MOST_PARTS, DEEPEST = 1_500_000, 300
NEWEST = (1, 4)
_OTHERS = {
    "text": "a text document",
    "spreadsheet": "a table",
    "graphics": "a drawing",
    "chart": "a chart",
    "formula": "a formula",
}
_ZIP, _FOREIGN = b"PK\x03\x04", b"\xd0\xcf\x11\xe0"


class Package:
    """An opened presentation: the trees of its content and styles, its pictures and sounds by their place inside, and
    its title.
    """

    def __init__(self, path: Path, name: str) -> None:
        self.name = name
        with path.open("rb") as file:
            head = file.read(4)
        if head != _ZIP:
            old = " It is of an older kind that is not open." if head == _FOREIGN else ""
            raise BadMedia(f"“{name}” is no OpenDocument presentation.{old} Nothing was made.")
        try:
            self._zip = zipfile.ZipFile(path)
        except (zipfile.BadZipFile, OSError, ValueError) as error:
            raise BadMedia(f"“{name}” is cut off or damaged. Nothing was made.") from error
        try:
            self._check_measure()
            self._check_kind()
            self.content = self._tree("content.xml")
            self.styles = (
                self._tree("styles.xml") if "styles.xml" in self._entries else Element(full("office:document-styles"))
            )
        except BaseException:
            self._zip.close()
            raise
        self.newer = self._newer()

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._zip.close()

    def _check_measure(self) -> None:
        self._entries = {entry.filename: entry for entry in self._zip.infolist()}
        if len(self._entries) > MOST_ENTRIES:
            raise BadMedia(
                f"“{self.name}” holds {len(self._entries):,} files; at most {MOST_ENTRIES:,} are read. "
                "Nothing was made."
            )
        for entry in self._entries.values():
            if entry.flag_bits & 1:
                raise BadMedia(
                    f"“{self.name}” is kept shut by a password. Save it without one, and choose it again. "
                    "Nothing was made."
                )
            if entry.file_size > FREE_BYTES and entry.file_size > entry.compress_size * MOST_RATIO:
                raise BadMedia(
                    f"“{self.name}”: “{entry.filename}” would unpack to {entry.file_size:,} bytes from "
                    f"{entry.compress_size:,}. Nothing was made."
                )
        if sum(entry.file_size for entry in self._entries.values()) > MOST_BYTES:
            raise BadMedia(f"“{self.name}” would unpack to more than {MOST_BYTES / 1e9:.0f} GB. Nothing was made.")

    def _check_kind(self) -> None:
        kind = (self.bytes_of("mimetype") or b"")[:200].decode("ascii", "replace").strip()
        base = kind.removesuffix("-template")
        if base != MEDIA_TYPE:
            other = _OTHERS.get(base.rpartition(".")[2])
            what = (
                (f"is {other}, not a presentation")
                if other and "opendocument" in base
                else "is no OpenDocument presentation"
            )
            raise BadMedia(f"“{self.name}” {what}. Nothing was made.")
        if b"encryption-data" in (self.bytes_of("META-INF/manifest.xml") or b""):
            raise BadMedia(
                f"“{self.name}” is kept shut by a password. Save it without one, and choose it again. Nothing was made."
            )
        if "content.xml" not in self._entries:
            raise BadMedia(f"“{self.name}” has no content.xml: it is damaged. Nothing was made.")

    def bytes_of(self, place: str) -> bytes | None:
        """The entry at a place inside, or None. Raises BadMedia where it is damaged."""
        entry = self._entries.get(place)
        if entry is None:
            return None
        try:
            # The bytes really unpacked are counted: what an entry says of its size may be a lie.
            with self._zip.open(entry) as part:
                data = part.read(entry.file_size + 1)
        except (zipfile.BadZipFile, EOFError, OSError, NotImplementedError, RuntimeError, ValueError) as error:
            raise BadMedia(f"“{self.name}” is cut off or damaged at “{place}”. Nothing was made.") from error
        except Exception as error:  # zlib.error is no subclass of anything above
            if type(error).__module__ != "zlib":
                raise
            raise BadMedia(f"“{self.name}” is cut off or damaged at “{place}”. Nothing was made.") from error
        return data

    def _tree(self, place: str) -> Element:
        if self._entries[place].file_size > MOST_XML_BYTES:
            raise BadMedia(
                f"“{self.name}”: “{place}” has more than {MOST_XML_BYTES / 1e6:.0f} MB of markup. Nothing was made."
            )
        root: Element | None = None
        count = depth = 0
        try:
            with self._zip.open(place) as source:
                for event, element in iterparse(
                    source, events=("start", "end"), forbid_dtd=True, forbid_entities=True, forbid_external=True
                ):
                    root = element if root is None else root
                    depth += 1 if event == "start" else -1
                    count += event == "start"
                    if count > MOST_PARTS or depth > DEEPEST:
                        raise BadMedia(
                            f"“{self.name}” has over {MOST_PARTS:,} parts, or {DEEPEST} inside one another. Nothing "
                            "was made."
                        )
        except DefusedXmlException as error:
            raise BadMedia(
                f"“{self.name}” defines entities or asks for other files, as no presentation needs to. "
                "Nothing was made."
            ) from error
        except (ParseError, ValueError, zipfile.BadZipFile, EOFError, OSError) as error:
            raise BadMedia(f"“{self.name}” is cut off or damaged at “{place}”. Nothing was made.") from error
        except Exception as error:
            if type(error).__module__ != "zlib":
                raise
            raise BadMedia(f"“{self.name}” is cut off or damaged at “{place}”. Nothing was made.") from error
        if root is None:
            raise BadMedia(f"“{self.name}”: “{place}” is empty. Nothing was made.")
        return root

    def _newer(self) -> str:
        """The version, where it is newer than all known ones: the known parts are read.

        Raises BadMedia for another generation of the format.
        """
        version = attribute_of(self.content, "office:version")
        match = re.match(r"^(\d+)\.(\d+)", version)
        if match is None:
            return ""
        if int(match[1]) > NEWEST[0]:
            raise BadMedia(
                f"“{self.name}” was written in OpenDocument {version}; versions up to "
                f"{NEWEST[0]}.{NEWEST[1]} can be read. Nothing was made."
            )
        return version if (int(match[1]), int(match[2])) > NEWEST else ""

    def inner(self, address: str) -> str | None:
        """The place inside that an address leads to; None for an address outside."""
        place = address.removeprefix("./")
        return place if place in self._entries and ".." not in place.split("/") else None
