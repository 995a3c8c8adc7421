"""All open streams of this process, and the one watcher that reads the database for all of them.

A stream follows a key of a feed: a show with a person, a release with a guest, a run. Each feed answers for all its
keys at once, so a thousand streams cost one read, and none at all while nothing was written to the database.
"""

import asyncio
import logging
import threading
from collections.abc import Collection, Hashable, Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from django.db import DatabaseError, connection

from ritornel.web.streams.listener import Listener

log = logging.getLogger(__name__)

LOOK_S = 0.25
"""How often the watcher asks whether anything was written. Who loses access hears nothing more after that time."""
ALL_AGAIN_S = 15.0
"""What changes with the clock alone, as a run that is a day old, is found after so long.

Every stream then also gets a sign of life.
"""
STILL_HERE = ": still here\n\n"
OVER = "event: over\ndata: null\n\n"

Key = Hashable


class Feed:
    """What a kind of stream sends. Feeds keep no state about their readers."""

    name: str

    def look(self, keys: Collection[Any]) -> dict[Any, Any]:
        """The state of each key; a key that is left out has ended.

        Called in the watcher's thread; its number of queries does not grow with the keys, except for what has changed.
        """
        raise NotImplementedError

    def messages(self, before: Any, now: Any) -> Iterator[str]:
        """The messages for a change of a key's state; `before` is None for a new reader."""
        raise NotImplementedError

    def joined(self, key: Any, listener: Listener, about: dict[str, str]) -> None:
        """Called when a stream opens. `about` is what the view said of it."""

    def left(self, key: Any, listener: Listener, about: dict[str, str]) -> None:
        """Called when a stream closes."""


def written_since(known: int | None) -> tuple[bool, int | None]:
    """Whether another connection wrote to the database since its version was `known`, and the present version.

    It reads no table.
    """
    if connection.vendor != "sqlite":
        return True, None
    with connection.cursor() as cursor:
        version = int(cursor.execute("PRAGMA data_version").fetchone()[0])
    return version != known, version


def _reconnect() -> None:
    """Makes the next read open another connection: the calling thread has one of its own."""
    connection.close()


class Hub:
    """The open streams, by feed and key."""

    def __init__(self) -> None:
        self._feeds: dict[str, Feed] = {}
        self._listeners: dict[str, dict[Key, set[Listener]]] = {}
        self._states: dict[str, dict[Key, Any]] = {}
        self._touched = threading.Event()
        self._version: int | None = None
        self._watcher: asyncio.Task[None] | None = None
        self._thread = ThreadPoolExecutor(1, "streams")

    def register(self, feed: Feed) -> None:
        """Registers a feed by its name."""
        self._feeds[feed.name] = feed
        self._listeners[feed.name], self._states[feed.name] = {}, {}

    def feed(self, name: str) -> Feed:
        """The feed of that name. Raises KeyError."""
        return self._feeds[name]

    def touch(self) -> None:
        """Notes that something outside the database changed; the watcher reads at its next turn.

        Any thread may call it.
        """
        self._touched.set()

    def join(self, name: str, key: Key, about: dict[str, str]) -> Listener:
        """Opens a stream; called in the event loop that serves it."""
        feed, states = self._feeds[name], self._states[name]
        listener = Listener(lambda: feed.messages(None, states[key]) if key in states else ())
        feed.joined(key, listener, about)
        self._listeners[name].setdefault(key, set()).add(listener)
        if key in states:
            for message in feed.messages(None, states[key]):
                listener.push(message)
        else:
            self.touch()
        if self._watcher is None or self._watcher.done():
            self._watcher = asyncio.get_running_loop().create_task(self._watch(), name="streams")
        return listener

    def leave(self, name: str, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """Closes a stream."""
        own = self._listeners[name].get(key, set())
        own.discard(listener)
        if not own:
            self._listeners[name].pop(key, None)
            self._states[name].pop(key, None)
        self._feeds[name].left(key, listener, about)

    def _look(self, keys: dict[str, list[Key]], always: bool) -> dict[str, dict[Key, Any]] | None:
        """The state of all keys, or None where nothing was written since the last read."""
        # The connection stays open from look to look: its version of the database counts what others have written
        # since.
        fresh, self._version = written_since(self._version)
        if not (fresh or always):
            return None
        return {name: self._feeds[name].look(own) for name, own in keys.items() if own}

    def _tell(self, name: str, asked: Collection[Key], found: dict[Key, Any]) -> None:
        feed, states = self._feeds[name], self._states[name]
        for key in asked:
            listeners = self._listeners[name].get(key, ())
            if key not in found:
                states.pop(key, None)
                for listener in listeners:
                    listener.push(OVER)
                    listener.end()
            elif listeners and (key not in states or states[key] != found[key]):
                before, states[key] = states.get(key), found[key]
                for message in feed.messages(before, found[key]):
                    for listener in listeners:
                        listener.push(message)

    async def _watch(self) -> None:
        """Reads regularly while anybody listens."""
        loop = asyncio.get_running_loop()
        all_again_at = loop.time() + ALL_AGAIN_S
        while any(self._listeners.values()):
            keys = {name: list(own) for name, own in self._listeners.items()}
            unknown = any(key not in self._states[name] for name, own in keys.items() for key in own)
            due = loop.time() >= all_again_at
            always = self._touched.is_set() or unknown or due
            self._touched.clear()
            try:
                found = await loop.run_in_executor(self._thread, self._look, keys, always)
            except DatabaseError as error:
                # A database that is busy or full for once must not end all streams; the next look finds the same, by
                # another connection.
                log.warning("The streams could not look into the database: %s", error)
                await loop.run_in_executor(self._thread, _reconnect)
                found = None
                self.touch()
            for name, states in (found or {}).items():
                self._tell(name, keys[name], states)
            if due:
                all_again_at = loop.time() + ALL_AGAIN_S
                for own in self._listeners.values():
                    for listeners in own.values():
                        for listener in listeners:
                            listener.push(STILL_HERE)
            await asyncio.sleep(LOOK_S)
