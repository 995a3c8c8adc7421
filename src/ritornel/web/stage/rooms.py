"""Messages between the devices of a run: whoever listens in a room hears what is said in it, in order.

A room keeps only what somebody who comes later has to know: the latest message of each lasting kind. Who is too slow to
take everything in is told that instead of what was missed; nobody waits for anybody. All of it lives in the one server
process.
"""

import threading
from collections.abc import Collection, Iterator

from ritornel.web.stage.models import Run, open_runs
from ritornel.web.streams.services import Feed, Listener

Key = tuple[int]
"""The number of a run."""


class Room:
    """One run's messages, each a line of JSON. Any thread may say something."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._latest: dict[str, str] = {}
        self._listeners: set[Listener] = set()

    @property
    def listeners(self) -> int:
        return len(self._listeners)

    def latest(self) -> list[str]:
        """What somebody who comes now has to know, as server-sent events."""
        with self._lock:
            return list(self._latest.values())

    def enter(self, listener: Listener) -> None:
        """Somebody listens from now on, and is told what has to be known."""
        with self._lock:
            listener.catch_up = self.latest
            for message in self._latest.values():
                listener.push(message)
            self._listeners.add(listener)

    def leave(self, listener: Listener) -> None:
        """Somebody listens no more."""
        with self._lock:
            self._listeners.discard(listener)

    def say(self, kind: str, message: str, lasting: bool) -> None:
        """Tells everybody who listens.

        A lasting message is told to those who come later too, until the next of its kind.
        """
        event = f"data: {message}\n\n"
        with self._lock:
            if lasting:
                self._latest[kind] = event
            for listener in self._listeners:
                listener.push(event)


class Rooms:
    """All rooms, by the number of their run."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._rooms: dict[int, Room] = {}

    def room(self, run: int) -> Room:
        """The run's room; it is there from the first time that somebody asks."""
        with self._lock:
            return self._rooms.setdefault(run, Room())

    def leave(self, run: int, listener: Listener) -> None:
        """Somebody listens no more in a run, also in one that has ended."""
        with self._lock:
            room = self._rooms.get(run)
        if room is not None:
            room.leave(listener)

    def close(self, run: int) -> None:
        """Forgets what was said in a run that has ended."""
        with self._lock:
            self._rooms.pop(run, None)


class RunFeed(Feed):
    """What the devices of a run hear: what is said in its room, and when it is over."""

    name = "run"

    def __init__(self, rooms: Rooms) -> None:
        self._rooms = rooms

    def look(self, keys: Collection[Key]) -> dict[Key, bool]:
        """The runs that still lead anywhere."""
        still = open_runs(list(Run.objects.filter(pk__in=[number for (number,) in keys])))
        return {(number,): True for (number,) in keys if number in still}

    def messages(self, before: bool | None, now: bool) -> Iterator[str]:
        """Nothing: what is told is said in the room."""
        return iter(())

    def joined(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A device comes into the room."""
        self._rooms.room(key[0]).enter(listener)

    def left(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A device leaves the room."""
        self._rooms.leave(key[0], listener)
