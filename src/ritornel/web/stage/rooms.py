"""Messages between the devices of a run: everybody who listens in a room gets its messages, in order.

A room keeps only what a later listener needs: the latest message of each lasting kind. A listener that is too slow gets
these instead of the messages it missed; nobody waits for anybody. All of it lives in the one server process.
"""

import threading
from collections.abc import Collection, Iterator

from ritornel.web.stage.models import Run, open_runs
from ritornel.web.streams.services import Feed, Listener

Key = tuple[int]
"""The number of a run."""


class Room:
    """One run's messages, each a line of JSON. Any thread may send one."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._latest: dict[str, str] = {}
        self._listeners: set[Listener] = set()

    @property
    def listeners(self) -> int:
        return len(self._listeners)

    def latest(self) -> list[str]:
        """What a new listener needs, as server-sent events."""
        with self._lock:
            return list(self._latest.values())

    def enter(self, listener: Listener) -> None:
        """Adds a listener, and sends it what it needs."""
        with self._lock:
            listener.catch_up = self.latest
            for message in self._latest.values():
                listener.push(message)
            self._listeners.add(listener)

    def leave(self, listener: Listener) -> None:
        """Removes a listener."""
        with self._lock:
            self._listeners.discard(listener)

    def say(self, kind: str, message: str, lasting: bool) -> None:
        """Sends a message to all listeners.

        Later listeners also get a lasting message, until the next of its kind.
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
        """The run's room; it is made at the first request."""
        with self._lock:
            return self._rooms.setdefault(run, Room())

    def leave(self, run: int, listener: Listener) -> None:
        """Removes a listener of a run, also of one that has ended."""
        with self._lock:
            room = self._rooms.get(run)
        if room is not None:
            room.leave(listener)

    def close(self, run: int) -> None:
        """Removes the messages of a run that has ended."""
        with self._lock:
            self._rooms.pop(run, None)


class RunFeed(Feed):
    """The stream of a run's devices: the messages of its room, and its end."""

    name = "run"

    def __init__(self, rooms: Rooms) -> None:
        self._rooms = rooms

    def look(self, keys: Collection[Key]) -> dict[Key, bool]:
        """The runs that are still open."""
        still = open_runs(list(Run.objects.filter(pk__in=[number for (number,) in keys])))
        return {(number,): True for (number,) in keys if number in still}

    def messages(self, before: bool | None, now: bool) -> Iterator[str]:
        """Nothing: messages come through the room."""
        return iter(())

    def joined(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A device enters the room."""
        self._rooms.room(key[0]).enter(listener)

    def left(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A device leaves the room."""
        self._rooms.leave(key[0], listener)
