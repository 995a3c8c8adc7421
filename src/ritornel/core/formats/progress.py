"""How much of a file is read, written by the process that reads it for the one that waits, as a line in a file: `12
300` is done and total.
"""

from pathlib import Path


def tell_progress(told: Path | None, done: int, total: int) -> None:
    """Writes the progress into its file. A reader never sees a half-written line."""
    if told is None:
        return
    part = told.with_suffix(".part")
    part.write_text(f"{done} {total}", encoding="ascii")
    part.replace(told)


def read_progress(told: Path) -> tuple[int, int]:
    """The progress in the file, done and total; 0 of 0 before the first is written."""
    if not told.is_file():
        return 0, 0
    done, total = map(int, told.read_text(encoding="ascii").split())
    return done, total
