"""A stamp of all static files together.

It is part of their addresses, so that browsers can keep each file for a year and still get every change. The modules
import each other by relative names, which keep the stamp.
"""

import hashlib
from collections.abc import Iterable
from pathlib import Path

LETTERS = 12


def stamp_of(folders: Iterable[Path]) -> str:
    """Twelve hexadecimal digits of the SHA-256 over the names and contents of all files in the folders."""
    total = hashlib.sha256()
    for folder in folders:
        for path in sorted(folder.rglob("*")):
            if path.is_file():
                total.update(path.relative_to(folder).as_posix().encode() + b"\0")
                total.update(hashlib.sha256(path.read_bytes()).digest())
    return total.hexdigest()[:LETTERS]
