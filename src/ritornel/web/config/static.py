"""Static files through WhiteNoise, sent as a whole: the files are small, and under ASGI a file iterator would be read
through a thread.
"""

import gzip
import re
from collections.abc import Awaitable, Callable, Mapping
from functools import lru_cache
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from whitenoise.middleware import WhiteNoiseMiddleware

from ritornel.web.config.shipped_scripts import shipped_script


class StaticFilesMiddleware(WhiteNoiseMiddleware):
    """WhiteNoise's middleware, answering with plain bytes."""

    @staticmethod
    def serve(static_file: Any, request: HttpRequest) -> HttpResponse:
        """The file, its headers and conditions as WhiteNoise has them."""
        reply = static_file.get_response(request.method, request.META)
        body = b""
        if reply.file is not None:
            with reply.file:
                body = reply.file.read()
        response = HttpResponse(body, status=int(reply.status))
        del response.headers["Content-Type"]
        for name, value in reply.headers:
            response.headers[name] = value
        return response


Scope = dict[str, Any]
Receive = Callable[[], Awaitable[Mapping[str, Any]]]
Send = Callable[[Mapping[str, Any]], Awaitable[None]]
Application = Callable[[Scope, Receive, Send], Awaitable[None]]


WORDS = (".js", ".css", ".svg", ".json", ".txt")
"""What shrinks to a quarter on its way to a browser; pictures and fonts are packed already."""


ADDRESS = re.compile(r"/static/(?:(?P<stamp>[0-9a-f]{12})/)?(?P<name>.+)")
KEPT = f"public, max-age={365 * 86_400}, immutable"
"""What is asked for with the stamp of this version never changes."""


@lru_cache(maxsize=512)
def pack_gzip(body: bytes) -> bytes:
    """The bytes by gzip; equal bytes give equal results."""
    return gzip.compress(body, 6, mtime=0)


class StaticFirst:
    """An ASGI application that serves static files itself and passes everything else on.

    Through Django each of a page's sixty modules would wait for a thread, fifteen times as long as reading the file. A
    page that was opened before the program was renewed asks with an old stamp: it gets the present file, without a long
    lifetime.
    """

    def __init__(self, application: Application) -> None:
        self._application = application
        self._files = StaticFilesMiddleware(lambda request: HttpResponse()).files

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        asked = (
            ADDRESS.fullmatch(scope["path"]) if scope["type"] == "http" and scope["method"] in ("GET", "HEAD") else None
        )
        static_file = self._files.get(settings.STATIC_URL + asked["name"]) if asked else None
        if static_file is None:
            await self._application(scope, receive, send)
            return
        conditions = {
            f"HTTP_{name.decode('latin-1').upper().replace('-', '_')}": value.decode("latin-1")
            for name, value in scope["headers"]
        }
        reply = static_file.get_response(scope["method"], conditions)
        body = b""
        if reply.file is not None:
            with reply.file:
                body = reply.file.read()
        kept = asked is not None and asked["stamp"] == settings.STATIC_STAMP
        headers = [(name.lower().encode("latin-1"), value.encode("latin-1")) for name, value in reply.headers]
        if scope["path"].endswith(WORDS) and reply.status == 200 and body:
            if scope["path"].endswith(".js"):
                body = shipped_script(body)
            headers = [(name, value) for name, value in headers if name not in (b"content-length", b"accept-ranges")]
            headers.append((b"vary", b"accept-encoding"))
            if "gzip" in conditions.get("HTTP_ACCEPT_ENCODING", ""):
                body = pack_gzip(body)
                headers.append((b"content-encoding", b"gzip"))
            headers.append((b"content-length", str(len(body)).encode()))
        if kept:
            headers = [(name, value) for name, value in headers if name != b"cache-control"]
            headers.append((b"cache-control", KEPT.encode()))
        headers.append((b"x-content-type-options", b"nosniff"))
        await send({"type": "http.response.start", "status": int(reply.status), "headers": headers})
        await send({"type": "http.response.body", "body": body})
