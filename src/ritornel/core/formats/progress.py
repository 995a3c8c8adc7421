"""How far a file is read, told by a process that reads it to one that waits, as a line in a file:

`12 300`, done and of how many.
"""

from pathlib import Path


def tell_progress(told: Path | None, done: int, total: int) -> None:
    """Writes it down where anybody asks. Whoever reads it never sees half of it."""
    if told is None:
        return
    part = told.with_suffix(".part")
    part.write_text(f"{done} {total}", encoding="ascii")
    part.replace(told)


def progress_told(told: Path) -> tuple[int, int]:
    """What stands there, done and of how many; 0 of 0 as long as nothing does."""
    if not told.is_file():
        return 0, 0
    done, total = map(int, told.read_text(encoding="ascii").split())
    return done, total
