"""Files with byte ranges, which players need to seek in sound and video (RFC 9110, section 14)."""

import re
from collections.abc import AsyncIterator
from pathlib import Path

from asgiref.sync import sync_to_async
from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase

from ritornel.web.config.policy import FILE

CHUNK = 1_000_000
AT_ONCE = 4_000_000
"""A range is answered with at most so many bytes; the browser asks for the rest when it wants it."""
_ABSURD = re.compile(r"[0-9]{16}", re.ASCII)
_RANGE = re.compile(r"bytes=([0-9]{0,15})-([0-9]{0,15})", re.ASCII)


def _read(path: Path, start: int, length: int) -> bytes:
    with path.open("rb") as source:
        source.seek(start)
        return source.read(length)


async def _chunks(path: Path, size: int) -> AsyncIterator[bytes]:
    for start in range(0, size, CHUNK):
        yield await sync_to_async(_read)(path, start, min(CHUNK, size - start))


def file_reply(
    request: HttpRequest, path: Path, content_type: str, cache: str = "private, max-age=31536000, immutable"
) -> HttpResponseBase:
    """The file, or the requested range of it; 416 for a range outside it, 400 for an impossible one.

    A list of ranges or an unknown unit is answered with the whole file, as the standard allows. Raises Http404 where
    the file is missing.
    """
    asked = request.headers.get("Range", "")
    if _ABSURD.search(asked):
        return HttpResponse(
            "No file is as long as the range that was asked for.", status=400, content_type="text/plain; charset=utf-8"
        )
    if not path.is_file():
        raise Http404("The file is missing.")
    size = path.stat().st_size
    match = _RANGE.fullmatch(asked)
    response: HttpResponseBase
    if match and (match[1] or match[2]):
        start = int(match[1]) if match[1] else max(size - int(match[2]), 0)
        end = min(int(match[2]) if match[1] and match[2] else size - 1, size - 1)
        if start > end:
            response = HttpResponse(status=416, headers={"Content-Range": f"bytes */{size}"})
        else:
            end = min(end, start + AT_ONCE - 1)
            response = HttpResponse(_read(path, start, end - start + 1), status=206, content_type=content_type)
            response.headers["Content-Range"] = f"bytes {start}-{end}/{size}"
    elif size <= AT_ONCE:
        response = HttpResponse(path.read_bytes(), content_type=content_type)
    else:
        response = StreamingHttpResponse(_chunks(path, size), content_type=content_type)
        response.headers["Content-Length"] = str(size)
    response.headers["Accept-Ranges"] = "bytes"
    response.headers["Cache-Control"] = cache
    response.headers["Content-Security-Policy"] = FILE
    return response
