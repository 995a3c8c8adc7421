"""Our own small sounds for transitions and builds, ready to be put on a shelf.

`python -m ritornel.sounds.making` makes the files again.
"""

from pathlib import Path

import msgspec

FOLDER = Path(__file__).parent
AUTHOR, LICENCE = "Ritornel", "CC0 1.0"


class LibrarySound(msgspec.Struct, frozen=True):
    """A sound of the library: its name in addresses and of its file, and what it is called."""

    name: str
    title: str

    @property
    def path(self) -> Path:
        return FOLDER / f"{self.name}.ogg"


LIBRARY = (
    LibrarySound("tick", "Tick"),
    LibrarySound("tock", "Tock"),
    LibrarySound("bell", "Bell"),
    LibrarySound("small-bell", "Small bell"),
    LibrarySound("page", "Page"),
    LibrarySound("whoosh", "Whoosh"),
    LibrarySound("ratchet", "Ratchet"),
    LibrarySound("clockwork", "Clockwork, keeps on"),
    LibrarySound("room", "Quiet room, keeps on"),
)


def library_sound(name: str) -> LibrarySound | None:
    """The sound with this name, or None."""
    return next((sound for sound in LIBRARY if sound.name == name), None)
