"""The stand-ins: a catalogue of what ships with Ritornel, and a site with its clips.

How they behave is said when they are made.
"""

import re
import time
from functools import cache
from pathlib import Path
from typing import Literal

import msgspec

from ritornel.demo import orlmere, pendulum
from ritornel.outside import CatalogueEntry, Kind, NoAnswer
from ritornel.sounds import LIBRARY

Manner = Literal["prompt", "slow", "failing"]
SLOW_S = 30.0
"""Longer than anybody waits."""
SITE = "clips.orlmere.example"
_ADDRESS = re.compile(rf"^https?://(?:www\.)?{re.escape(SITE)}/(?:watch/|v/)?([a-z0-9-]+)/?(?:[?#].*)?$", re.IGNORECASE)
_LICENCE = "CC0 1.0"
# Made-up people of a made-up town; the files are the demo's own.
_PICTURES = {
    "noon": ("The tower at noon", "Ines Okafor", ("tower", "church", "stone", "sky", "day", "orlmere")),
    "night": ("The tower at night", "Ines Okafor", ("tower", "night", "lamp", "dark", "orlmere")),
    "works": ("The going train", "Odo Lindqvist", ("gears", "wheels", "brass", "movement", "clockwork", "machine")),
    "bell": ("The hour bell", "Marta Vane", ("bell", "bronze", "belfry", "hour")),
    "dial": ("The mended dial", "Odo Lindqvist", ("dial", "hands", "face", "numerals", "clock")),
}
_SOUND_WORDS = {
    "tick": ("clock", "second", "escapement"),
    "tock": ("clock", "second", "escapement"),
    "bell": ("hour", "strike", "tower", "clock"),
    "small-bell": ("quarter", "ring", "signal"),
    "page": ("paper", "turn", "book"),
    "whoosh": ("air", "pass", "swift", "transition"),
    "ratchet": ("winding", "crank", "gears"),
    "clockwork": ("gears", "movement", "machine", "loop"),
    "room": ("quiet", "silence", "ambience", "loop"),
}


def _named(name: str, author: str) -> str:
    return f"“{name}” by {author}, {_LICENCE}"


@cache
def _shipped() -> dict[str, tuple[CatalogueEntry, Path]]:
    found: dict[str, tuple[CatalogueEntry, Path]] = {}

    def add(
        entry_id: str, kind: Kind, name: str, author: str, words: tuple[str, ...], path: Path, lasts_ms: int = 0
    ) -> None:
        entry = CatalogueEntry(
            id=entry_id,
            kind=kind,
            name=name,
            author=author,
            licence=_LICENCE,
            credit=_named(name, author),
            words=words,
            file_name=path.name,
            size_bytes=path.stat().st_size,
            lasts_ms=lasts_ms,
        )
        found[entry_id] = (entry, path)

    for key, (name, author, words) in _PICTURES.items():
        add(f"picture-{key}", "picture", name, author, words, orlmere.MEDIA / orlmere.FILES[key][0])
    for sound in LIBRARY:
        add(f"sound-{sound.name}", "sound", sound.title, "Tibor Hale", _SOUND_WORDS.get(sound.name, ()), sound.path)
    waltz = orlmere.MEDIA / orlmere.FILES["waltz"][0]
    add(
        "music-waltz",
        "music",
        "Winders' waltz",
        "The Orlmere Town Band",
        ("waltz", "dance", "strings", "calm", "three four"),
        waltz,
        24_000,
    )
    add(
        "clip-pendulum",
        "clip",
        "The pendulum",
        "Marta Vane",
        ("swing", "rod", "clock", "second", "loop"),
        pendulum.FILE,
        pendulum.LASTS_S * 1000,
    )
    return found


class _Behaving:
    """Waits or fails first, as it was told to."""

    def __init__(self, manner: Manner = "prompt") -> None:
        self.manner = manner

    def _answer(self) -> None:
        if self.manner == "slow":
            time.sleep(SLOW_S)
        if self.manner == "failing":
            raise NoAnswer("It answered with an error (503).")


class StandInCatalogue(_Behaving):
    """A catalogue of what ships with Ritornel."""

    def search(self, words: str, kind: Kind | None = None) -> tuple[CatalogueEntry, ...]:
        """All words have to begin something in the name, the author or the words of an entry; those found in the name
        come first.
        """
        self._answer()
        wanted = [word for word in re.split(r"\W+", words.lower()) if word]
        ranked: list[tuple[int, int, CatalogueEntry]] = []
        for number, (entry, _) in enumerate(_shipped().values()):
            if kind is not None and entry.kind != kind:
                continue
            name = re.split(r"\W+", entry.name.lower())
            about = [*name, *re.split(r"\W+", " ".join((entry.author, entry.kind, *entry.words)).lower())]
            if all(any(own.startswith(word) for own in about) for word in wanted):
                ranked.append((-sum(any(own.startswith(word) for own in name) for word in wanted), number, entry))
        return tuple(entry for *_, entry in sorted(ranked, key=lambda one: one[:2]))

    def entry(self, entry_id: str) -> CatalogueEntry | None:
        self._answer()
        found = _shipped().get(entry_id)
        return found[0] if found else None

    def fetch(self, entry: CatalogueEntry) -> bytes:
        self._answer()
        return _shipped()[entry.id][1].read_bytes()


class StandInVideoSite(_Behaving):
    """A site at clips.orlmere.example with two addresses that lead to something: /watch/pendulum-swings and
    /watch/pendulum-up-close.
    """

    VIDEOS = ("pendulum-swings", "pendulum-up-close")

    def lookup(self, address: str) -> CatalogueEntry | None:
        self._answer()
        match = _ADDRESS.match(address.strip())
        if match is None or match[1].lower() not in self.VIDEOS:
            return None
        entry, _ = _shipped()["clip-pendulum"]
        name = match[1].lower().replace("-", " ").capitalize()
        return msgspec.structs.replace(
            entry, id=match[1].lower(), name=name, credit=f"{_named(name, entry.author)}, {address.strip()}"
        )

    def fetch(self, entry: CatalogueEntry) -> bytes:
        self._answer()
        return pendulum.FILE.read_bytes()
