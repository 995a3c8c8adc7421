"""The largest body of a request, by the kind of its address.

It is checked against the announced length, and again while the body is read, before Django sees any of it. The limit is
1 MB; addresses for uploads allow more, and only for people who are signed in.
"""

import contextlib
from collections.abc import Awaitable, Callable
from typing import Any

import msgspec
from asgiref.sync import sync_to_async
from django.conf import settings
from django.contrib.auth import SESSION_KEY
from django.db import connection
from django.urls import Resolver404, resolve
from django.utils.module_loading import import_string

from ritornel.web.config.full_disk import STATUS as FULL
from ritornel.web.config.full_disk import WORDS as FULL_WORDS
from ritornel.web.config.full_disk import is_full_disk

USUAL_BYTES = 1_000_000
AROUND_BYTES = 200_000
"""What a form adds to the file in it."""

Scope = dict[str, Any]
Receive = Callable[[], Awaitable[Any]]
Send = Callable[[Any], Awaitable[None]]
Application = Callable[[Scope, Receive, Send], Awaitable[None]]


def upload_limits() -> dict[str, int]:
    """The limit of each address, by name, that allows more than usual."""
    file_bytes = settings.MEDIA_LIMITS.file_bytes + AROUND_BYTES
    large = dict.fromkeys(("shelf", "media-again", "from-pdf", "from-presentation"), file_bytes)
    text = dict.fromkeys(
        ("from-outline", "timings-in", "captions-in", "edit", "would", "bring"), 5_000_000 + AROUND_BYTES
    )
    return {
        **large,
        **text,
        "from-archive": settings.ARCHIVE_BYTES + AROUND_BYTES,
        "record-more": 2 * settings.RECORDED_PART_BYTES + AROUND_BYTES,
    }


def _is_signed_in(cookies: str) -> bool:
    """Whether the cookies belong to somebody who is signed in; called in a thread that closes its connection."""
    named = dict(part.strip().partition("=")[::2] for part in cookies.split(";"))
    key = named.get(settings.SESSION_COOKIE_NAME, "")
    if not key:
        return False
    store = import_string(f"{settings.SESSION_ENGINE}.SessionStore")
    try:
        return SESSION_KEY in store(key[:8000])
    finally:
        connection.close()


class TooLarge(Exception):
    """The body is larger than allowed."""


class BodyLimit:
    """An ASGI application in front of another one. It lets no more through than the address allows."""

    def __init__(self, application: Application) -> None:
        self._application = application

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._application(scope, receive, send)
            return
        headers = {name.lower(): value.decode("latin-1") for name, value in scope["headers"]}
        announced = headers.get(b"content-length", "")
        length = int(announced) if announced.isascii() and announced.isdigit() and len(announced) < 16 else None
        chunked = b"transfer-encoding" in headers
        limit = USUAL_BYTES
        if (length is not None and length > USUAL_BYTES) or chunked:
            limit = await self._limit(scope, headers)
        if (announced and length is None) or (length is not None and length > limit):
            await self._refuse(send, limit, headers)
            return
        came = 0
        begun = ended = False

        async def receiving() -> Any:
            nonlocal came, ended
            message = await receive()
            ended = ended or not message.get("more_body")
            if message["type"] == "http.request":
                came += len(message.get("body", b""))
                if came > limit:
                    raise TooLarge
            return message

        async def sending(message: Any) -> None:
            nonlocal begun
            begun = True
            await send(message)

        try:
            await self._application(scope, receiving, sending)
        except TooLarge:
            if not begun:
                await self._refuse(send, limit, headers)
        except OSError as error:
            # Django keeps what is too large for memory in a file, before any view could tell that there is no room for
            # it.
            if begun or not is_full_disk(error):
                raise
            # A browser reads the answer only when it has sent everything.
            with contextlib.suppress(TooLarge):
                while not ended:
                    await receiving()
            await _tell(send, FULL, FULL_WORDS, headers, full=True)

    async def _limit(self, scope: Scope, headers: dict[bytes, str]) -> int:
        """The limit of the address for the person who asks."""
        try:
            name = resolve(scope["path"]).url_name
        except Resolver404:
            return USUAL_BYTES
        wanted = upload_limits().get(name or "", USUAL_BYTES)
        if wanted > USUAL_BYTES and not await sync_to_async(_is_signed_in, thread_sensitive=False)(
            headers.get(b"cookie", "")
        ):
            return USUAL_BYTES
        return wanted

    @staticmethod
    async def _refuse(send: Send, limit: int, headers: dict[bytes, str]) -> None:
        words = f"This is too large: at most {limit / 1e6:.0f} MB can come to this address. Nothing was changed."
        await _tell(send, 413, words, headers)


async def _tell(send: Send, status: int, words: str, headers: dict[bytes, str], **more: Any) -> None:
    plain = (
        "json" not in headers.get(b"accept", "") + headers.get(b"content-type", "") and b"x-csrftoken" not in headers
    )
    body = words.encode() if plain else msgspec.json.encode({"error": words, "field": "", **more})
    kind = b"text/plain; charset=utf-8" if plain else b"application/json"
    about = [
        (b"content-type", kind),
        (b"content-length", str(len(body)).encode()),
        (b"connection", b"close"),
        (b"x-content-type-options", b"nosniff"),
    ]
    await send({"type": "http.response.start", "status": status, "headers": about})
    await send({"type": "http.response.body", "body": body})
