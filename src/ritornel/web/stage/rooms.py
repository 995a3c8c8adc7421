"""Messages between the devices of a run: whoever listens in a room hears what is said in it, in order.

A room keeps only what somebody who comes later has to know: the latest message of each lasting kind. Who is too slow to take everything in is
told that instead of what was missed; nobody waits for anybody. All of it lives in the one server process.
"""

import asyncio
from collections.abc import AsyncIterator

QUEUE = 64
"""How many messages may wait for a listener before they are replaced by the latest."""
SILENT_S = 10
"""A sign of life is sent after so long, so that a line that was cut is noticed."""
STILL_HERE = ": still here\n\n"


class Room:
    """One run's messages, each a line of JSON."""

    def __init__(self) -> None:
        self._latest: dict[str, str] = {}
        self._listeners: set[asyncio.Queue[str]] = set()

    @property
    def listeners(self) -> int:
        return len(self._listeners)

    def say(self, kind: str, message: str, lasting: bool) -> None:
        """Tells everybody who listens. A lasting message is told to those who come later too, until the next of its kind."""
        if lasting:
            self._latest[kind] = message
        for queue in self._listeners:
            if queue.full():
                while not queue.empty():
                    queue.get_nowait()
                for latest in self._latest.values():
                    queue.put_nowait(latest)
                if lasting:
                    continue
            queue.put_nowait(message)

    async def heard(self) -> AsyncIterator[str]:
        """What is said from now on, after what has to be known, as server-sent events."""
        queue: asyncio.Queue[str] = asyncio.Queue(QUEUE)
        for latest in self._latest.values():
            queue.put_nowait(latest)
        self._listeners.add(queue)
        try:
            yield STILL_HERE
            while True:
                try:
                    message = await asyncio.wait_for(queue.get(), SILENT_S)
                except TimeoutError:
                    yield STILL_HERE
                    continue
                yield f"data: {message}\n\n"
        finally:
            self._listeners.discard(queue)


class Rooms:
    """All rooms, by the number of their run."""

    def __init__(self) -> None:
        self._rooms: dict[int, Room] = {}

    def room(self, run: int) -> Room:
        """The run's room; it is there from the first time that somebody asks."""
        return self._rooms.setdefault(run, Room())

    def close(self, run: int) -> None:
        """Forgets what was said in a run that has ended."""
        self._rooms.pop(run, None)
