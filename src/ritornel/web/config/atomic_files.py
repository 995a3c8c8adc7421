"""Files that are complete or absent, also after a kill, a power cut, or on a full disk."""

import contextlib
import errno
import os
import secrets
import shutil
from collections.abc import Iterator
from pathlib import Path

from ritornel.core.errors import DiskFull

NO_ROOM = (errno.ENOSPC, errno.EDQUOT)
UNFINISHED = ".unfinished-"
"""How the name of a file begins that is not whole yet. One that is a day old was left by a process that was killed."""


@contextlib.contextmanager
def report_disk_full(words: str) -> Iterator[None]:
    """Turns the system's error for a full disk into DiskFull with these words."""
    try:
        yield
    except OSError as error:
        if error.errno in NO_ROOM:
            raise DiskFull(f"The server's disk is full. {words}") from error
        raise


def sync_folder(folder: Path) -> None:
    """Makes sure that the names in the folder survive a power cut."""
    handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def sync_file(path: Path) -> None:
    """Makes sure that the file's content survives a power cut."""
    with path.open("rb") as source:
        os.fsync(source.fileno())


@contextlib.contextmanager
def atomic_folder(target: Path) -> Iterator[Path]:
    """The same for a folder: it is made here, and the caller fills it."""
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_name(f"{UNFINISHED}{secrets.token_hex(6)}-{target.name}")
    try:
        with report_disk_full("Nothing was kept; try again when there is room."):
            unfinished.mkdir()
            yield unfinished
            for path in unfinished.iterdir():
                sync_file(path)
            sync_folder(unfinished)
            unfinished.replace(target)
            sync_folder(target.parent)
    finally:
        shutil.rmtree(unfinished, ignore_errors=True)


@contextlib.contextmanager
def atomic_file(target: Path) -> Iterator[Path]:
    """A temporary path to write to.

    At the end it becomes `target`, synced and in one step. A failure leaves nothing behind. Raises DiskFull.
    """
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_name(f"{UNFINISHED}{secrets.token_hex(6)}-{target.name}")
    try:
        with report_disk_full("Nothing was kept; try again when there is room."):
            yield unfinished
            sync_file(unfinished)
            unfinished.replace(target)
            sync_folder(target.parent)
    finally:
        unfinished.unlink(missing_ok=True)
