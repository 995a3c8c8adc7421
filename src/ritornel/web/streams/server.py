"""Streams of server-sent events, served outside Django's request: a view only says which stream it allows.

A request in Django keeps a thread and a database connection until its answer ends, which for a stream is never. So the
view answers with the header `STREAM`; this wrapper lets the request end, and then feeds the stream from the hub.
"""

import asyncio
import json
from collections import Counter
from collections.abc import Awaitable, Callable
from typing import Any

from django.apps import apps
from django.conf import settings
from django.http import HttpRequest, HttpResponse

from ritornel.web.streams.hub import STILL_HERE, Hub

STREAM = "X-Ritornel-Stream"
RETRY_S = 20
"""When somebody who found too many streams open may ask again."""

Scope = dict[str, Any]
Receive = Callable[[], Awaitable[Any]]
Send = Callable[[Any], Awaitable[None]]
Application = Callable[[Scope, Receive, Send], Awaitable[None]]


def stream_reply(
    request: HttpRequest, feed: str, key: tuple[Any, ...], counted: dict[str, Any], **about: str
) -> HttpResponse:
    """Allows the stream of a feed's key.

    `counted` says what limits it besides the client's address: {"person": id} or {"release": id}.
    """
    order = {"feed": feed, "key": key, "counted": counted, "about": about}
    return HttpResponse(
        content_type="text/event-stream",
        headers={STREAM: json.dumps(order), "Cache-Control": "no-store", "X-Accel-Buffering": "no"},
    )


class StreamServer:
    """An ASGI application that serves the streams which another one allows."""

    def __init__(self, application: Application, hub: Hub | None = None) -> None:
        self._application = application
        self._hub = hub
        self._open: Counter[tuple[str, str]] = Counter()

    @property
    def hub(self) -> Hub:
        return self._hub or apps.get_app_config("streams").hub  # type: ignore[attr-defined]

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._application(scope, receive, send)
            return
        allowed: list[Any] = []

        async def sending(message: Any) -> None:
            if message["type"] == "http.response.start":
                order = next(
                    (value for name, value in message["headers"] if name.decode("latin-1").lower() == STREAM.lower()),
                    None,
                )
                if order is not None:
                    allowed.extend((json.loads(order), message))
            if not allowed:
                await send(message)

        await self._application(scope, receive, sending)
        if allowed:
            order, start = allowed
            await self._serve(order, start, scope, receive, send)

    def _full(self, places: list[tuple[str, str]]) -> bool:
        return any(self._open[place] >= settings.MOST_STREAMS[place[0]] for place in places)

    async def _serve(self, order: dict[str, Any], start: Any, scope: Scope, receive: Receive, send: Send) -> None:
        counted = {**order["counted"], "address": (scope.get("client") or ("unknown",))[0], "server": ""}
        places = [(kind, str(value)) for kind, value in counted.items()]
        if self._full(places):
            await self._refuse(send)
            return
        self._open.update(places)
        try:
            await self._stream(order, start, receive, send)
        finally:
            self._open.subtract(places)
            for place in places:
                if self._open[place] <= 0:
                    del self._open[place]

    @staticmethod
    async def _refuse(send: Send) -> None:
        words = f"Too many windows follow this at the same time. Close some, or try again in {RETRY_S} s.".encode()
        headers = [
            (b"content-type", b"text/plain; charset=utf-8"),
            (b"retry-after", str(RETRY_S).encode()),
            (b"cache-control", b"no-store"),
        ]
        await send(
            {
                "type": "http.response.start",
                "status": 503,
                "headers": [*headers, (b"content-length", str(len(words)).encode())],
            }
        )
        await send({"type": "http.response.body", "body": words})

    async def _stream(self, order: dict[str, Any], start: Any, receive: Receive, send: Send) -> None:
        hidden = (STREAM.lower().encode(), b"content-length")
        headers = [(name, value) for name, value in start["headers"] if name.lower() not in hidden]
        await send({"type": "http.response.start", "status": 200, "headers": headers})
        await send({"type": "http.response.body", "body": STILL_HERE.encode(), "more_body": True})
        name, key, about = order["feed"], tuple(order["key"]), order["about"]
        listener = self.hub.join(name, key, about)

        async def watch_reader() -> None:
            while (await receive())["type"] != "http.disconnect":
                pass
            listener.end()

        reader = asyncio.get_running_loop().create_task(watch_reader())
        try:
            while (text := await listener.take()) is not None:
                await send({"type": "http.response.body", "body": text.encode(), "more_body": True})
            await send({"type": "http.response.body", "body": b"", "more_body": False})
        finally:
            reader.cancel()
            self.hub.leave(name, key, listener, about)
