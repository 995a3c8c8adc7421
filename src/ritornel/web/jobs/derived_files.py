"""Files derived from media: thumbnails, filmstrips, waveforms, lighter copies, sounds at other speeds, measurements.

Each is made once. Its maker holds its lock, which the system releases when that process ends in any way. The file is
written under a temporary name, checked, synced and moved into place, so that a killed maker leaves nothing that looks
complete. Each of them can be made again.
"""

import contextlib
import fcntl
import hashlib
import json
import logging
import os
import time
from collections.abc import Callable, Iterator
from pathlib import Path

from django.conf import settings

from ritornel.core.errors import BadMedia
from ritornel.core.render.version import RENDERER
from ritornel.web.config.atomic_files import atomic_file

log = logging.getLogger(__name__)

QUEUED_S = 600.0
"""A job that was asked for so long ago and has not begun may have been lost with its queue: it is asked for again."""
FAILED_S = 3600.0
"""What could not be made is not tried again before so long."""


def derived_path(kind: str, key: str, ending: str = "") -> Path:
    """The place of a derived file: by its kind, the renderer's version and its key."""
    return Path(settings.VAR) / "derived" / kind / f"v{RENDERER}" / key[:2] / f"{key}{ending}"


def _beside(target: Path, ending: str) -> Path:
    """A small file about a derived file: its lock, its place in the queue, or its failure."""
    name = hashlib.sha256(str(target.relative_to(settings.VAR)).encode()).hexdigest()[:32]
    path = Path(settings.VAR) / "derived" / ".about" / f"{name}.{ending}"
    path.parent.mkdir(parents=True, exist_ok=True)
    return path


@contextlib.contextmanager
def making(target: Path, wait: bool) -> Iterator[bool]:
    """Holds the lock of a derived file. With `wait` False it yields False at once where somebody else holds
    the lock.
    """
    path = _beside(target, "lock")
    while True:
        handle = os.open(path, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | (0 if wait else fcntl.LOCK_NB))
        except BlockingIOError:
            os.close(handle)
            yield False
            return
        except BaseException:
            os.close(handle)
            raise
        # Tidying may have removed the file meanwhile: then the lock is of a file that nobody else can open.
        with contextlib.suppress(FileNotFoundError):
            if os.fstat(handle).st_ino == path.stat().st_ino:
                break
        os.close(handle)
    try:
        yield True
    finally:
        os.close(handle)


@contextlib.contextmanager
def take_up(target: Path) -> Iterator[bool]:
    """For work that makes more than one file: takes it off the queue and holds its lock; yields False where somebody
    else does the work.
    """
    _beside(target, "queued").unlink(missing_ok=True)
    with making(target, wait=False) as mine:
        yield mine


def is_being_made(target: Path) -> bool:
    """Whether somebody is making it at this moment."""
    if not _beside(target, "lock").exists():
        return False
    with making(target, wait=False) as mine:
        return not mine


def failure_of(target: Path) -> str | None:
    """Why it could not be made, where that failed recently."""
    try:
        told = json.loads(_beside(target, "failed").read_bytes())
        return str(told["why"]) if time.time() - told["at"] < FAILED_S else None
    except (OSError, ValueError, KeyError):
        return None


Place = Callable[[Path], contextlib.AbstractContextManager[Path]]


def make_once(target: Path, write: Callable[[Path], object], wait: bool = True, place: Place = atomic_file) -> bool:
    """Calls `write` to make the file unless it is there; returns whether it is there then.

    A medium that is missing or unsuitable is noted as a failure. Raises DiskFull, and every other error of `write`.
    With `wait` False, nothing happens where somebody else makes it. `place` is `atomic_folder` for a folder.
    """
    _beside(target, "queued").unlink(missing_ok=True)
    if target.exists():
        return True
    with making(target, wait) as mine:
        if not mine or target.exists() or failure_of(target) is not None:
            return target.exists()
        try:
            with place(target) as unfinished:
                _beside(target, "place").write_text(unfinished.name)
                write(unfinished)
        except (BadMedia, FileNotFoundError) as error:
            log.warning("%s was not made: %s", target.relative_to(settings.VAR), error)
            _beside(target, "failed").write_text(json.dumps({"why": str(error), "at": time.time()}))
            return False
        _beside(target, "failed").unlink(missing_ok=True)
    return True


def unfinished_place(target: Path) -> Path | None:
    """Where a derived file is being written, for readers of a growing file."""
    if not is_being_made(target):
        return None
    with contextlib.suppress(FileNotFoundError):
        return target.with_name(_beside(target, "place").read_text())
    return None


def ask_once(target: Path, enqueue: Callable[[], object]) -> None:
    """Requests a derived file unless it is there, is being made, is queued, or failed recently."""
    if target.exists() or failure_of(target) is not None or is_being_made(target):
        return
    queued = _beside(target, "queued")
    with contextlib.suppress(FileNotFoundError):
        if time.time() - queued.stat().st_mtime < QUEUED_S:
            return
    queued.touch()
    enqueue()


def forget_queue() -> None:
    """Forgets what was queued and has not begun, so that it can be requested again: called when a worker starts, whose
    queue may be new.
    """
    for path in (Path(settings.VAR) / "derived" / ".about").glob("*.queued"):
        path.unlink(missing_ok=True)
