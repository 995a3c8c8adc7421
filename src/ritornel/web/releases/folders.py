"""Editions as folders of static files.

Strangers are served from them; any web server can serve such a folder as it is, with its page.
"""

import contextlib
import gzip
import os
import shutil
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from django.conf import settings

from ritornel.core.document.decoding import to_json
from ritornel.core.errors import DiskFull
from ritornel.core.formats.media import SUFFIXES
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import Performance
from ritornel.core.schedule.reduced_motion import calm_performance
from ritornel.web.config.atomic_files import NO_ROOM
from ritornel.web.releases.browser_media import file_of, served_name, used_media
from ritornel.web.releases.page_alone import page_of
from ritornel.web.shows.services import new_id

PERFORMANCE, CALM, FIRST, PAGE = "performance.json", "calm.json", "first.webp", "index.html"
"""What painters read; the same for those who ask for less motion; a small picture of the beginning; the page for other
web servers.
"""
LEFT_AFTER_S = 24 * 3600
"""What is laid out so long ago was left by one that was killed; nothing takes a minute."""
TYPES = {suffix: media_type for media_type, suffix in SUFFIXES.items()} | {".json": "application/json"}
"""What is served, by its ending. A page is not: it would run in the name of this server."""


def edition_place(address: str, number: int) -> Path:
    """The folder of an edition."""
    return Path(settings.VAR) / "editions" / address / str(number)


def served_file(address: str, number: int, name: str) -> tuple[Path, str] | None:
    """A file of an edition and its type; None where the edition has no file of that name."""
    path, media_type = edition_place(address, number) / name, TYPES.get(Path(name).suffix)
    if media_type is None or Path(name).name != name or not path.is_file():
        return None
    return path, media_type


def packed_beside(path: Path) -> Path:
    """The place of the same file compressed by gzip."""
    return path.with_name(path.name + ".gz")


def write_words(folder: Path, name: str, words: bytes) -> None:
    """Writes a text file, and a compressed one beside it."""
    (folder / name).write_bytes(words)
    packed_beside(folder / name).write_bytes(gzip.compress(words, 9, mtime=0))


def put_beside(source: Path, target: Path) -> None:
    """Links a file of the store into a folder without a copy, where the disk allows that."""
    try:
        os.link(source, target)
    except OSError:
        shutil.copyfile(source, target)


@contextlib.contextmanager
def lay_out_edition(staged: Performance, first: bytes, how: dict[str, Any]) -> Iterator[Path]:
    """A temporary folder with the whole edition, to be moved by `put_in_place`; without that it is removed.

    Its addresses are relative, so that it can stand anywhere. `how` says how its page begins. Raises BadMedia where a
    medium is missing, DiskFull.
    """
    root = Path(settings.VAR) / "editions"
    for left in root.glob(".*"):
        with contextlib.suppress(FileNotFoundError):
            if time.time() - left.stat().st_mtime > LEFT_AFTER_S:
                shutil.rmtree(left, ignore_errors=True)
    folder = root / f".{new_id()}"
    folder.mkdir(parents=True)
    try:
        media = staged.media(served_name)
        for asset, rate_pct in used_media(staged).values():
            target = folder / served_name(asset, rate_pct)
            if not target.exists():
                put_beside(file_of(asset, rate_pct)[0], target)
        write_words(folder, PERFORMANCE, to_json(audience_show(staged, media)))
        write_words(folder, CALM, to_json(audience_show(calm_performance(staged), media)))
        (folder / FIRST).write_bytes(first)
        (folder / PAGE).write_bytes(page_of(staged, {"performance": PERFORMANCE, "calm": CALM, **how}))
        yield folder
    except OSError as error:
        if error.errno in NO_ROOM:
            raise DiskFull(
                f"The disk is full: no edition of “{staged.title}” could be made. Free some space and try again."
            ) from error
        raise
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def put_in_place(folder: Path, address: str, number: int) -> None:
    """Moves a folder to the edition's place. A folder that is there is the remains of an edition that was never
    completed.
    """
    place = edition_place(address, number)
    place.parent.mkdir(exist_ok=True)
    shutil.rmtree(place, ignore_errors=True)
    folder.replace(place)


def clear(address: str) -> None:
    """Removes the served files of all editions at an address."""
    shutil.rmtree(edition_place(address, 1).parent, ignore_errors=True)
