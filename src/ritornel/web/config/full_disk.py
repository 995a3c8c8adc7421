"""A full disk is reported with a sentence wherever it shows: in the database, in a file, in a session.

People can still sign in and look at their shows.
"""

import sqlite3
from collections.abc import Callable
from typing import Any

import msgspec
from django.contrib.auth.models import User, update_last_login
from django.contrib.auth.signals import user_logged_in
from django.db import DatabaseError, OperationalError, transaction
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render

from ritornel.core.errors import DiskFull
from ritornel.web.config.atomic_files import NO_ROOM

WORDS = "The server's disk is full, so nothing could be kept. Nothing was changed; try again when there is room."
STATUS = 507


def is_full_disk(error: BaseException | None) -> bool:
    """Whether an error, or its cause, means that the disk is full."""
    while error is not None:
        if isinstance(error, DiskFull) or (isinstance(error, OSError) and error.errno in NO_ROOM):
            return True
        if isinstance(error, DatabaseError | sqlite3.Error) and any(
            words in str(error) for words in ("disk is full", "disk I/O error", "No space left")
        ):
            return True
        error = error.__cause__ or error.__context__
    return False


def wants_json(request: HttpRequest) -> bool:
    """Whether a page's script sent the request and expects JSON."""
    asked = request.headers.get("Accept", "") + request.headers.get("Content-Type", "")
    return "application/json" in asked or bool(request.headers.get("X-CSRFToken")) or request.path.endswith(".json")


def full_disk_reply(request: HttpRequest, words: str = WORDS) -> HttpResponse:
    """The answer: 507 (RFC 4918) with the sentence."""
    if wants_json(request):
        return HttpResponse(
            msgspec.json.encode({"error": words, "field": "", "full": True}),
            status=STATUS,
            content_type="application/json",
        )
    return render(request, "full_disk.html", {"words": words}, status=STATUS)


class FullDiskMiddleware:
    """Answers for views that do not handle a full disk themselves."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        return self.get_response(request)

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        """The answer to an exception of a view; None for any exception but a full disk."""
        if not is_full_disk(error):
            return None
        return full_disk_reply(request, str(error) if isinstance(error, DiskFull) else WORDS)


def note_last_login(sender: type[User], user: User, **more: Any) -> None:
    """Django's record of the last sign-in. A full disk must not keep people out."""
    try:
        with transaction.atomic():
            update_last_login(sender, user, **more)
    except OperationalError as error:
        if not is_full_disk(error):
            raise


def keep_sign_in_working() -> None:
    """Replaces Django's handler by the tolerant one; called when the apps are ready."""
    user_logged_in.disconnect(dispatch_uid="update_last_login")
    user_logged_in.connect(note_last_login, dispatch_uid="update_last_login")
