"""Finished segments of films, stored by their content: a film that is made again after an edit draws only the segments
that changed.
"""

import contextlib
import hashlib
import os
import shutil
import time
from collections.abc import Iterable
from fractions import Fraction
from pathlib import Path
from typing import Any

import msgspec

from ritornel.core.document.show import Asset
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.process_pool import FilmSegment
from ritornel.core.schedule.performance import Performance
from ritornel.core.sound.tempo import asset_and_rate

VERSION = 3
"""Counted up when a segment or a sound would be drawn, mixed or encoded in another way."""
MOST_BYTES = 2_000_000_000
MOST_DAYS = 14


def _key(*about: Any) -> str:
    return hashlib.sha256(msgspec.json.encode([VERSION, *about], enc_hook=str)).hexdigest()


def _media(assets: Iterable[Asset], body: bytes) -> list[tuple[str, str]]:
    """The media named in a text, by id, with their hashes.

    An id that is part of another one is found too; that costs a segment and is still correct.
    """
    return sorted((asset.id, asset.sha256) for asset in assets if asset.id.encode() in body)


def segment_key(performance: Performance, order: FilmOrder, webm: bool, segment: FilmSegment) -> str:
    """A key for everything that the pictures of a segment depend on: its slides and the one before them, their starts
    counted from the segment's first frame, their media, the show's end where it is visible, and the encoding.
    """
    schedule = performance.schedule
    first_ms, end_ms = (Fraction(1000 * number) / order.rate for number in (segment.first, segment.end))
    touched = [
        i
        for i, start in enumerate(schedule.starts_ms)
        if start < end_ms and start + schedule.slides[i].length_ms > first_ms
    ]
    last = len(performance.slides) - 1
    before = touched[0] - 1 if touched and touched[0] else last if schedule.end == "loop" else None
    slides = []
    for index in [*([before] if before is not None else []), *touched]:
        staged = performance.slides[index]
        body = msgspec.json.encode([staged.drawing, staged.tracks, staged.schedule])
        offset = str(schedule.starts_ms[index] - first_ms) if index in touched else ""
        slides.append((offset, hashlib.sha256(body).hexdigest(), _media(performance.assets.values(), body)))
    ends = (
        (schedule.end, str(schedule.content_ms - first_ms), str(schedule.length_ms - first_ms))
        if not touched or last in touched
        else ()
    )
    begins = segment.first == 0 and schedule.end == "loop"
    return _key("pictures", performance.frame, order, webm, segment.end - segment.first, slides, ends, begins)


def sound_key(performance: Performance, webm: bool) -> str:
    """A key for everything that the sound of a film depends on."""
    media = [(key, performance.assets[asset_and_rate(key)[0]].sha256) for key in performance.sound_ids()]
    return _key("sound", performance.music, performance.events, media, performance.schedule.length_ms, webm)


class SegmentStore:
    """A folder of finished files by their keys. The least recently used ones are removed first."""

    def __init__(self, folder: Path, most_bytes: int = MOST_BYTES) -> None:
        self._folder, self._most_bytes = folder, most_bytes
        folder.mkdir(parents=True, exist_ok=True)

    def fetch(self, key: str, target: Path) -> bool:
        """Puts the file stored under the key into its place; returns whether there was one."""
        kept = self._folder / key
        try:
            _link(kept, target)
            os.utime(kept)
        except FileNotFoundError:
            return False
        return True

    def keep(self, key: str, source: Path) -> None:
        """Stores a finished file. If that fails, it is made again another time."""
        place, fresh = self._folder / key, self._folder / f".{key}.{os.getpid()}"
        with contextlib.suppress(OSError):
            _link(source, fresh)
            fresh.replace(place)

    def trim(self) -> None:
        """Removes what nobody used for two weeks, and the oldest files above the allowed size."""
        entries = sorted(
            ((path.stat().st_mtime, path.stat().st_size, path) for path in self._folder.iterdir()), reverse=True
        )
        total, since = 0, time.time() - MOST_DAYS * 86_400
        for at, size, path in entries:
            total += size
            if total > self._most_bytes or at < since:
                path.unlink(missing_ok=True)


def _link(source: Path, target: Path) -> None:
    """A hard link, since finished parts never change; a copy where the two places are on different disks."""
    target.unlink(missing_ok=True)
    try:
        os.link(source, target)
    except FileNotFoundError:
        raise
    except OSError:
        shutil.copyfile(source, target)
