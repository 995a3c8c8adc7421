"""A simulated slow line: everything that a page opened with `?line=slow-NAME` loads arrives as over 1.6 Mbit/s with 150
ms of delay, in total.

Makers look at a release through it before strangers do.
"""

import asyncio
import re
import time
from collections.abc import Awaitable, Callable
from typing import Any

DELAY_S = 0.15
BYTES_S = 200_000
"""1.6 Mbit/s."""
PIECE = 16_000
FORGOTTEN_S = 120.0
MOST_LINES = 200
_NAME = re.compile(rb"[?&]line=slow-([a-z0-9]{1,20})(?:&|$)")

Application = Callable[
    [dict[str, Any], Callable[[], Awaitable[Any]], Callable[[Any], Awaitable[None]]], Awaitable[None]
]


def line_of(scope: dict[str, Any]) -> bytes | None:
    """The name of the slow line of a request: its own, or that of the page it comes from."""
    if scope["type"] != "http":
        return None
    own = _NAME.search(b"?" + scope.get("query_string", b""))
    if own is None:
        own = next(
            (found for name, value in scope["headers"] if name == b"referer" and (found := _NAME.search(value))), None
        )
    return own[1] if own else None


class SlowLine:
    """An ASGI application that slows down the answers for such pages."""

    def __init__(self, application: Application) -> None:
        self._application = application
        self._free_at: dict[bytes, float] = {}

    def _until_sent(self, line: bytes, size: int) -> float:
        """The seconds until so many bytes have passed the line, after those already on it."""
        now = time.monotonic()
        if len(self._free_at) >= MOST_LINES:
            self._free_at = {name: at for name, at in self._free_at.items() if at > now - FORGOTTEN_S}
        self._free_at[line] = max(self._free_at.get(line, now), now) + size / BYTES_S
        return self._free_at[line] - now

    async def __call__(
        self, scope: dict[str, Any], receive: Callable[[], Awaitable[Any]], send: Callable[[Any], Awaitable[None]]
    ) -> None:
        line = line_of(scope)
        if line is None:
            await self._application(scope, receive, send)
            return

        async def slowly(message: Any) -> None:
            body = message.get("body", b"") if message["type"] == "http.response.body" else b""
            for start in range(0, len(body), PIECE):
                piece = body[start : start + PIECE]
                await asyncio.sleep(self._until_sent(line, len(piece)))
                await send(
                    {
                        **message,
                        "body": piece,
                        "more_body": start + PIECE < len(body) or message.get("more_body", False),
                    }
                )
            if not body:
                await send(message)

        await asyncio.sleep(DELAY_S)
        await self._application(scope, receive, slowly)
