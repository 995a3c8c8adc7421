"""One open stream: the messages that wait to be sent."""

import asyncio
import contextlib
from collections import deque
from collections.abc import Callable, Iterable

WAITING = 64
"""How many messages may wait for a slow reader before they are replaced by what has to be known now."""


class Listener:
    """Belongs to the event loop in which it was made. Other threads may push to it and end it."""

    def __init__(self, catch_up: Callable[[], Iterable[str]] = tuple) -> None:
        """`catch_up` gives what a reader who missed messages has to know instead."""
        self.catch_up = catch_up
        self._loop = asyncio.get_running_loop()
        self._waiting: deque[str] = deque()
        self._changed = asyncio.Event()
        self._ended = False

    def push(self, message: str) -> None:
        """Adds a message. A full queue is replaced by what the reader needs now, which may include the
        newest message.
        """
        self._call(self._push, message)

    def end(self) -> None:
        """Ends the stream once the waiting messages are sent."""
        self._call(self._end)

    def _call(self, work: Callable[..., None], *given: str) -> None:
        # A loop that is closed has no readers any more.
        with contextlib.suppress(RuntimeError):
            self._loop.call_soon_threadsafe(work, *given)

    def _push(self, message: str) -> None:
        if len(self._waiting) >= WAITING:
            known = list(self.catch_up())
            self._waiting = deque(known if message in known else [*known, message])
        else:
            self._waiting.append(message)
        self._changed.set()

    def _end(self) -> None:
        self._ended = True
        self._changed.set()

    async def take(self) -> str | None:
        """All waiting messages, as one text; waits until there is one. None when the stream has ended."""
        while not self._waiting:
            if self._ended:
                return None
            self._changed.clear()
            await self._changed.wait()
        text = "".join(self._waiting)
        self._waiting.clear()
        return text
