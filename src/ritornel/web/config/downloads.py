"""Generated downloads: written to disk and sent in pieces, so that a show of any size takes little memory."""

import tempfile
from collections.abc import AsyncIterator, Callable
from typing import IO

from asgiref.sync import sync_to_async
from django.http import HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.utils.http import content_disposition_header

from ritornel.web.config.byte_ranges import AT_ONCE, CHUNK


async def _pieces(made: IO[bytes]) -> AsyncIterator[bytes]:
    with made:
        while piece := await sync_to_async(made.read)(CHUNK):
            yield piece


def saved_reply(write: Callable[[IO[bytes]], object], name: str, content_type: str) -> HttpResponseBase:
    """A download with what `write` writes, under a file name. Raises what `write` raises."""
    made = tempfile.TemporaryFile()  # noqa: SIM115 (closed when it is sent)
    try:
        write(made)
        size = made.tell()
        made.seek(0)
    except BaseException:
        made.close()
        raise
    response: HttpResponseBase
    if size <= AT_ONCE:
        with made:
            response = HttpResponse(made.read(), content_type=content_type)
    else:
        response = StreamingHttpResponse(_pieces(made), content_type=content_type)
    response.headers["Content-Length"] = str(size)
    response.headers["Content-Disposition"] = content_disposition_header(True, name) or "attachment"
    return response
