"""Answers as JSON, and errors as sentences."""

import functools
import re
from collections.abc import Callable
from typing import Any

import msgspec
from django.core.exceptions import ObjectDoesNotExist
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase

from ritornel.core.errors import BadValue, DiskFull, RitornelError
from ritornel.web.config.bounded_input import json_object
from ritornel.web.config.rate_limits import TooOften

_EDIT_ID = re.compile(r"[A-Za-z0-9_-]{8,40}", re.ASCII)
View = Callable[..., HttpResponseBase]


class Conflict(RitornelError):
    """The request does not fit the present state: somebody else was faster."""

    def more(self) -> dict[str, Any]:
        """Further fields of the answer, beside the message."""
        return {"stale": True}


class AlreadyDone(RitornelError):
    """The same request was sent twice, and was already done; `revision` is its result."""

    def __init__(self, message: str, revision: int) -> None:
        super().__init__(message)
        self.revision = revision


def json_reply(value: Any, status: int = 200) -> HttpResponse:
    """The value as JSON; it may contain structs anywhere."""
    return HttpResponse(msgspec.json.encode(value), status=status, content_type="application/json")


def answer_errors(view: View) -> View:
    """Turns errors for the presenter into {"error": sentence, "field": path}.

    The status is 200 for a request that was already done, 409 for a conflict, 429 for one that came too often, else
    400.
    """

    @functools.wraps(view)
    def wrapped(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
        try:
            return view(request, *args, **kwargs)
        except AlreadyDone as error:
            return json_reply({"again": True, "revision": error.revision})
        except Conflict as error:
            return json_reply({"error": str(error), **error.more()}, 409)
        except ObjectDoesNotExist as error:
            raise Http404("It is no longer there.") from error
        except DiskFull:
            # Told by the middleware, as everywhere.
            raise
        except TooOften as error:
            reply = json_reply({"error": str(error)}, 429)
            reply.headers["Retry-After"] = str(error.wait_s)
            return reply
        except RitornelError as error:
            return json_reply({"error": str(error), "field": error.field if isinstance(error, BadValue) else ""}, 400)

    return wrapped


def edit_id_of(request: HttpRequest) -> str:
    """The page's id for the edit it sends; an edit with an id is made once, however often it is sent. Empty where it
    has none.
    """
    found = request.headers.get("X-Edit-Id", "")
    return found if _EDIT_ID.fullmatch(found) else ""


def body_of(request: HttpRequest, optional: bool = False) -> dict[str, Any]:
    """The JSON object of the request; with `optional`, an empty one for a request without a body.

    Raises BadValue for anything else.
    """
    if optional and request.META.get("CONTENT_LENGTH") in ("", "0", None):
        return {}
    if request.content_type != "application/json":
        raise BadValue("The request is not JSON.")
    return json_object(request.body)
