"""Streams opened on the whole ASGI application, as a browser opens them."""

import asyncio
from http.cookies import SimpleCookie
from typing import Any

from asgiref.sync import sync_to_async
from django.core.asgi import get_asgi_application
from django.test import Client

from ritornel.web.streams.hub import STILL_HERE
from ritornel.web.streams.server import StreamServer


class Stream:
    """One open request and what came of it."""

    def __init__(self, application: Any, path: str, cookies: SimpleCookie, address: str, method: str) -> None:
        self.status = 0
        self.headers: dict[str, str] = {}
        self._came: asyncio.Queue[bytes | None] = asyncio.Queue()
        self._gone = asyncio.Event()
        self._answered = asyncio.Event()
        self._asked = False
        where, _, query = path.partition("?")
        header = "; ".join(f"{name}={morsel.value}" for name, morsel in cookies.items())
        scope = {
            "type": "http",
            "method": method,
            "path": where,
            "raw_path": where.encode(),
            "query_string": query.encode(),
            "root_path": "",
            "headers": [(b"host", b"testserver"), (b"cookie", header.encode())],
            "client": (address, 1),
            "server": ("testserver", 80),
            "scheme": "http",
            "asgi": {"version": "3.0"},
            "http_version": "1.1",
        }
        self.task = asyncio.get_running_loop().create_task(application(scope, self._receive, self._send))

    async def _receive(self) -> Any:
        if not self._asked:
            self._asked = True
            return {"type": "http.request", "body": b"", "more_body": False}
        await self._gone.wait()
        return {"type": "http.disconnect"}

    async def _send(self, message: Any) -> None:
        if message["type"] == "http.response.start":
            self.status = message["status"]
            self.headers = {name.decode().lower(): value.decode() for name, value in message["headers"]}
            self._answered.set()
            return
        if message.get("body"):
            await self._came.put(message["body"])
        if not message.get("more_body"):
            await self._came.put(None)

    async def opened(self) -> "Stream":
        await asyncio.wait_for(self._answered.wait(), 20)
        return self

    async def read(self, within_s: float = 10) -> str:
        """The next that came; signs of life are left out. Empty when the stream has ended."""
        async with asyncio.timeout(within_s):
            while True:
                part = await self._came.get()
                if part is None:
                    return ""
                text = part.decode().replace(STILL_HERE, "")
                if text:
                    return text

    async def close(self) -> None:
        self._gone.set()
        await asyncio.wait_for(self.task, 10)


class Streams:
    """An application of its own, with its own counts of what is open."""

    def __init__(self) -> None:
        self.application = StreamServer(get_asgi_application())
        self._open: list[Stream] = []

    async def open(self, client: Client, path: str, address: str = "127.0.0.1", method: str = "GET") -> Stream:
        stream = Stream(self.application, path, client.cookies, address, method)
        self._open.append(stream)
        return await stream.opened()

    async def close(self) -> None:
        for stream in self._open:
            await stream.close()


def signed_in(person: Any) -> Any:
    """A browser of that person's, from asynchronous code."""

    def make() -> Client:
        client = Client()
        client.force_login(person)
        return client

    return sync_to_async(make)()
