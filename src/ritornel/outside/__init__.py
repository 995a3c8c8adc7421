"""Services outside of Ritornel that it asks for things: a catalogue of pictures, sounds, music and clips with their
licences, and a site of videos.

What ships are stand-ins: small services that answer as online ones would, slowly or not at all where they are told to.
An installation that has real ones names others with the same three functions in its settings.
"""

from typing import Literal, Protocol

import msgspec

from ritornel.core.errors import RitornelError

Kind = Literal["picture", "sound", "music", "clip"]


class NoAnswer(RitornelError):
    """A service that cannot be reached, answers with an error, or takes too long."""


class CatalogueEntry(msgspec.Struct, frozen=True, kw_only=True):
    """Something that can be had: what it is called, whose it is, on which terms, and how its author wants to be named.

    `lasts_ms` is 0 for pictures.
    """

    id: str
    kind: Kind
    name: str
    author: str
    licence: str
    credit: str
    words: tuple[str, ...] = ()
    file_name: str = ""
    size_bytes: int = 0
    lasts_ms: int = 0


class Catalogue(Protocol):
    """Looks for things by words and hands them out."""

    def search(self, words: str, kind: Kind | None = None) -> tuple[CatalogueEntry, ...]:
        """Everything in which all words are found, the best first. Raises NoAnswer."""

    def entry(self, entry_id: str) -> CatalogueEntry | None:
        """The entry, or None. Raises NoAnswer."""

    def fetch(self, entry: CatalogueEntry) -> bytes:
        """Its file. Raises NoAnswer."""


class VideoSite(Protocol):
    """Hands out videos by the addresses people copy from their browsers."""

    def lookup(self, address: str) -> CatalogueEntry | None:
        """What lies at the address; None where it is none of the site's, or nothing lies there. Raises NoAnswer."""

    def fetch(self, entry: CatalogueEntry) -> bytes:
        """The video. Raises NoAnswer."""
