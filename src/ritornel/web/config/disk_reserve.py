"""A reserve of free room on the disk, so that databases can be opened when everything else is full.

SQLite's write-ahead log needs a small file beside the database to open it at all, also for reading; that file is
removed when the last connection closes. So the server and the worker keep one connection open as long as they run, and
each process that starts on a full disk releases the reserve first.
"""

import contextlib
import shutil
import sqlite3
from pathlib import Path

RESERVE = "reserve"
RESERVE_BYTES = 4_000_000
"""Enough for the files beside the three databases, and for a few hundred sessions and edits."""


def mind_reserve(folder: Path) -> None:
    """Releases the reserve where less room than its size is left; makes it where it is missing and there is plenty of
    room.
    """
    path = folder / RESERVE
    with contextlib.suppress(OSError):
        free = shutil.disk_usage(folder).free
        if free < RESERVE_BYTES:
            path.unlink(missing_ok=True)
        elif free > 3 * RESERVE_BYTES and not path.is_file():
            # Written, not only made long: a file with holes takes no room.
            path.write_bytes(bytes(RESERVE_BYTES))


def keep_open(database: Path) -> sqlite3.Connection:
    """A connection that keeps the database open while it exists; a missing file is made.

    Raises sqlite3.OperationalError.
    """
    held = sqlite3.connect(database, timeout=20, check_same_thread=False)
    held.execute("SELECT count(*) FROM sqlite_master").fetchone()
    return held
