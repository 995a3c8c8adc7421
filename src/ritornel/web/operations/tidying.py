"""Removing what nothing refers to any more: media of removed shows and files derived from them, films, folders of
editions, remains of killed processes.

Only what is older than a day goes, so that nothing disappears while somebody still works with it; a removed show's own
files go at once.
"""

import contextlib
import fcntl
import os
import re
import shutil
import time
from collections.abc import Callable, Collection, Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings
from django.contrib.sessions.models import Session
from django.core.files.storage import storages
from django.utils import timezone

from ritornel.core.render.version import RENDERER
from ritornel.core.wording import count_text
from ritornel.web.config.atomic_files import UNFINISHED
from ritornel.web.config.disk_reserve import mind_reserve
from ritornel.web.releases.models import Edition, FilmJob, HandIn, Release
from ritornel.web.shows.models import Asset, Edit, ReceivedEdit
from ritornel.web.shows.services import Reading, Show, removable_kinds, step_texts, thin_history, thinnable_shows
from ritornel.web.takes.models import Recording

DAY_S = 24 * 3600.0
MEASURED_S = 30 * DAY_S
"""How long measurements and small pictures of shows as they were are kept; they can be made again."""
OLD_FOLDERS = ("smalls", "strips", "light", "tempo", "waves", "loudness", "looks")
"""Where earlier versions kept derived files."""
_HASH = re.compile(rb"\b[0-9a-f]{64}\b")


class Tidied(msgspec.Struct, frozen=True):
    """The removed things of one kind."""

    what: str
    count: int = 0
    bytes: int = 0

    def text(self) -> str:
        """A line of the report."""
        return f"{self.what}: {count_text(self.count, 'removed', 'removed')}, {self.bytes / 1e6:.1f} MB"


def _old(path: Path, age_s: float) -> bool:
    with contextlib.suppress(FileNotFoundError):
        return time.time() - path.lstat().st_mtime >= age_s
    return False


def _size(path: Path) -> int:
    """The number of bytes that its removal frees: a file with a second name frees none."""
    if not path.is_dir():
        found = path.lstat()
        return found.st_size if found.st_nlink == 1 else 0
    return sum(_size(entry) for entry in path.iterdir())


def _remove(what: str, paths: Iterator[Path]) -> Tidied:
    count = size = 0
    for path in paths:
        with contextlib.suppress(FileNotFoundError):
            size += _size(path)
            if path.is_dir():
                shutil.rmtree(path)
            else:
                path.unlink()
            count += 1
    return Tidied(what, count, size)


def _below(folder: Path, pattern: str = "*") -> Iterator[Path]:
    return iter(sorted(folder.glob(pattern))) if folder.is_dir() else iter(())


def hashes_of(show: Show) -> set[str]:
    """The media of a show, and those that undo could restore."""
    found = set(show.assets.values_list("sha256", flat=True))
    for columns in show.edits.values_list("changes", "inverse").iterator(chunk_size=200):
        for text in step_texts(*columns):
            found.update(match.decode() for match in _HASH.findall(text))
    return found


def referenced_hashes(but_log_of: str = "") -> set[str]:
    """All media that a show has, that undo could restore, that an edition or a film uses, or that were recorded. What
    only the log of the show `but_log_of` refers to is left out.
    """
    found = set(Asset.objects.values_list("sha256", flat=True))
    blobs: tuple[Any, ...] = (
        Edition.everywhere.values_list("document", flat=True),
        FilmJob.everywhere.values_list("document", flat=True),
    )
    for rows in blobs:
        for blob in rows.iterator(chunk_size=200):
            found.update(match.decode() for match in _HASH.findall(bytes(blob)))
    for columns in Edit.objects.exclude(show=but_log_of).values_list("changes", "inverse").iterator(chunk_size=200):
        for text in step_texts(*columns):
            found.update(match.decode() for match in _HASH.findall(text))
    for about in _below(Path(settings.VAR) / "recordings", "*/cut-*.json"):
        found.update(match.decode() for match in _HASH.findall(about.read_bytes()))
    for media in _below(Path(settings.VAR) / "readings", "*/media/*"):
        found.add(media.name)
    return found


def _media(wanted: set[str], age_s: float) -> Iterator[Path]:
    root = Path(storages["default"].path(""))
    for path in _below(root, "??/*"):
        if path.name not in wanted and not path.name.startswith(UNFINISHED) and _old(path, age_s):
            yield path


def _derived(wanted: set[str], age_s: float) -> Iterator[Path]:
    root = Path(settings.VAR) / "derived"
    for kind in _below(root):
        if kind.name.startswith("."):
            continue
        for version in _below(kind):
            if version.name != f"v{RENDERER}":
                yield version
                continue
            for path in _below(version, "??/*"):
                key = _HASH.match(path.name.encode())
                measured = kind.name in ("frames", "loudness", "slides")
                if (measured and _old(path, MEASURED_S)) or (
                    not measured and key and key[0].decode() not in wanted and _old(path, age_s)
                ):
                    yield path


def _about_derived(age_s: float) -> Iterator[Path]:
    """Locks that nobody holds, and notes about queued or failed work."""
    for path in _below(Path(settings.VAR) / "derived" / ".about"):
        if not _old(path, age_s):
            continue
        if path.suffix != ".lock":
            yield path
            continue
        handle = os.open(path, os.O_RDWR)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            yield path
        except BlockingIOError:
            continue
        finally:
            os.close(handle)


def _films(age_s: float) -> Iterator[Path]:
    root = Path(storages["films"].path(""))
    jobs = {job.file_name for job in FilmJob.everywhere.only("id", "kind")} | {
        f".{pk}.parts" for pk in FilmJob.everywhere.values_list("pk", flat=True)
    }
    handed = {Path(entry.file_name).name for entry in HandIn.objects.only("id", "kind")}
    for path in _below(root):
        if path.name != "handed-in" and path.name not in jobs and _old(path, age_s):
            yield path
    for path in _below(root / "handed-in"):
        if path.name not in handed and _old(path, age_s):
            yield path


def _editions(age_s: float) -> Iterator[Path]:
    known = {(address, str(number)) for address, number in Edition.everywhere.values_list("release__address", "number")}
    releases = set(Release.objects.values_list("address", flat=True))
    for place in _below(Path(settings.VAR) / "editions"):
        if place.name not in releases:
            if _old(place, age_s):
                yield place
            continue
        for edition in _below(place):
            if (place.name, edition.name) not in known and _old(edition, age_s):
                yield edition


def _folders(name: str, known: Collection[str], age_s: float) -> Iterator[Path]:
    for path in _below(Path(settings.VAR) / name):
        if path.name not in known and _old(path, age_s):
            yield path


def _unfinished(age_s: float) -> Iterator[Path]:
    places = (Path(storages["default"].path("")), Path(settings.VAR) / "derived", Path(settings.VAR) / "readings")
    for place in places:
        for path in _below(place, f"**/{UNFINISHED}*"):
            if _old(path, age_s):
                yield path


def _readings() -> Tidied:
    old = Reading.objects.filter(asked_at__lt=timezone.now() - timedelta(seconds=DAY_S)).exclude(
        state=Reading.State.RUNNING
    )
    return Tidied("Files that were read for a show and forgotten", old.count() and old.delete()[0])


def _received() -> Tidied:
    """Ids of edits whose page cannot wait for an answer any more."""
    old = ReceivedEdit.objects.filter(at__lt=timezone.now() - timedelta(days=30))
    return Tidied("Ids of edits that were made", old.delete()[0])


def _bin() -> Tidied:
    """Everything whose time in the bin is over, of every kind; files go with their rows."""
    count = size = 0
    for kind in removable_kinds():
        for row in kind.overdue():
            size += row.freed_bytes()
            row.delete()
            count += 1
    return Tidied("What lay in the bin", count, size)


def _histories() -> Tidied:
    """Older steps of the shows' histories, merged by days."""
    return Tidied("Older steps of histories, put together", sum(map(thin_history, thinnable_shows())))


def _sessions() -> Tidied:
    expired = Session.objects.filter(expire_date__lt=timezone.now())
    return Tidied("Expired sessions", expired.count() and expired.delete()[0])


def tidy(age_s: float = DAY_S) -> list[Tidied]:
    """Removes what nothing refers to and is older than that; reports it kind by kind."""
    wanted = referenced_hashes()
    var = Path(settings.VAR)
    readings = _readings()
    sweeps: tuple[tuple[str, Callable[[], Iterator[Path]]], ...] = (
        ("Media that no show holds", lambda: _media(wanted, age_s)),
        ("What was derived from them", lambda: _derived(wanted, age_s)),
        ("Derived files of earlier versions", lambda: (var / name for name in OLD_FOLDERS if (var / name).is_dir())),
        ("Notes of how they were made", lambda: _about_derived(age_s)),
        ("Films that no list has", lambda: _films(age_s)),
        ("Editions that are gone", lambda: _editions(age_s)),
        (
            "Recordings that are gone",
            lambda: _folders("recordings", set(Recording.everywhere.values_list("pk", flat=True)), age_s),
        ),
        (
            "Files that were read and are gone",
            lambda: _folders("readings", set(Reading.objects.values_list("pk", flat=True)), age_s),
        ),
        ("What was left half written", lambda: _unfinished(age_s)),
        ("Temporary files", lambda: (path for path in _below(settings.TEMPORARY) if _old(path, age_s))),
    )
    done = [
        readings,
        _bin(),
        _histories(),
        _sessions(),
        _received(),
        *(_remove(what, paths()) for what, paths in sweeps),
    ]
    mind_reserve(var)
    return done


def free_media(hashes: Collection[str], but_log_of: str = "") -> Tidied:
    """Removes these media, and what is derived from them, at once, where nothing else refers to them but the log of
    that show.
    """
    gone = set(hashes) - referenced_hashes(but_log_of)
    root = Path(storages["default"].path(""))
    derived = (
        path for sha256 in gone for path in _below(Path(settings.VAR) / "derived", f"*/v*/{sha256[:2]}/{sha256}*")
    )
    media = _remove("Media of a removed show", (root / sha256[:2] / sha256 for sha256 in gone))
    rest = _remove("", derived)
    return Tidied(media.what, media.count, media.bytes + rest.bytes)
