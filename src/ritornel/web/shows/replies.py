"""Answers as JSON, and errors as sentences."""

import functools
import json
from collections.abc import Callable
from typing import Any

import msgspec
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase

from ritornel.core.errors import BadValue, DiskFull, RitornelError
from ritornel.web.config.brakes import TooOften
from ritornel.web.shows.editing import StaleRevision
from ritornel.web.shows.models import Show

View = Callable[..., HttpResponseBase]


def json_reply(value: Any, status: int = 200) -> HttpResponse:
    """The value as JSON; structs are allowed anywhere in it."""
    return HttpResponse(msgspec.json.encode(value), status=status, content_type="application/json")


def telling_errors(view: View) -> View:
    """Turns errors meant for the presenter into {"error": sentence, "field": path}: 409 for a stale revision, 429 for what is done too often, else 400."""

    @functools.wraps(view)
    def wrapped(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
        try:
            return view(request, *args, **kwargs)
        except StaleRevision as error:
            return json_reply({"error": str(error), "stale": True}, 409)
        except Show.DoesNotExist as error:
            raise Http404("There is no such show.") from error
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


def body_of(request: HttpRequest) -> dict[str, Any]:
    """The request's JSON object. Raises BadValue for anything else."""
    try:
        value = json.loads(request.body)
    except ValueError as error:
        raise BadValue("The request is not JSON.") from error
    if not isinstance(value, dict):
        raise BadValue("The request is not a JSON object.")
    return value
