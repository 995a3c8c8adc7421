"""Slides and shelves of recently used shows in this process.

Ten people at a show of 500 slides ask for the same revision ten times after each edit. A written revision never
changes, so it stays correct; a show that is made again under the same id has another creation time.
"""

from collections import OrderedDict
from datetime import datetime
from functools import cache
from threading import Lock

from ritornel.core.document.show import Asset, Slide

Key = tuple[str, datetime, int]
"""A show's id, when it was made, and its revision."""
Parts = tuple[tuple[Slide, ...], tuple[Asset, ...]]

MOST_SLIDES = 20_000
"""So many slides are kept in all, of about 10 kB each where no two revisions share them."""


class RecentShows:
    """The most recently used shows, up to a number of slides."""

    def __init__(self, most_slides: int = MOST_SLIDES) -> None:
        self._most, self._held = most_slides, 0
        self._parts: OrderedDict[Key, Parts] = OrderedDict()
        self._lock = Lock()

    def get(self, key: Key) -> Parts | None:
        """The kept value of a revision."""
        with self._lock:
            found = self._parts.get(key)
            if found is not None:
                self._parts.move_to_end(key)
            return found

    def put(self, key: Key, parts: Parts) -> None:
        """Keeps a written revision, and drops the least recently used ones."""
        with self._lock:
            if key in self._parts:
                return
            self._parts[key] = parts
            self._held += len(parts[0]) + 1
            while self._held > self._most:
                _, dropped = self._parts.popitem(last=False)
                self._held -= len(dropped[0]) + 1


@cache
def recent_shows() -> RecentShows:
    """The one instance of this process."""
    return RecentShows()
