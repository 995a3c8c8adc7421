"""Who has a show open now, on which slide and with which selection, so that two people at one show see each other.

All of it lives in the one server process. A window is present while its stream is open.
"""

import threading
from typing import Annotated

import msgspec
from django.apps import apps
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_POST

from ritornel.core.document.decoding import from_builtins
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.services import show_for
from ritornel.web.streams.services import Listener, touch_streams

MOST_WINDOWS = 200
"""So many windows of one show are told of."""
Id = Annotated[str, msgspec.Meta(max_length=40)]


class Here(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What a window says about itself; `gone` when it closes."""

    window: Annotated[str, msgspec.Meta(min_length=8, max_length=40)]
    slide_id: Id = ""
    picked: Annotated[tuple[Id, ...], msgspec.Meta(max_length=200)] = ()
    gone: bool = False


class Somebody(msgspec.Struct, frozen=True):
    """A person at a show."""

    window: str
    person: int
    name: str
    slide_id: str
    picked: tuple[str, ...]


class Presence:
    """Who is at which show. Any thread may use it."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._shows: dict[str, dict[str, tuple[Somebody, Listener]]] = {}

    def open(self, show_id: str, somebody: Somebody, listener: Listener) -> None:
        """Notes a window whose stream has opened. A window that reconnects keeps its place."""
        with self._lock:
            windows = self._shows.setdefault(show_id, {})
            before = windows.get(somebody.window)
            if len(windows) < MOST_WINDOWS or before:
                windows[somebody.window] = (
                    before[0] if before and before[0].person == somebody.person else somebody,
                    listener,
                )
        touch_streams()

    def tell(self, show_id: str, somebody: Somebody) -> None:
        """Notes where a person is. Only the person whose stream is open can say so for a window."""
        with self._lock:
            windows = self._shows.get(show_id, {})
            before = windows.get(somebody.window)
            if before is None or before[0].person != somebody.person:
                return
            windows[somebody.window] = (somebody, before[1])
        touch_streams()

    def close(self, show_id: str, window: str, listener: Listener | None = None) -> None:
        """Removes a window; with a listener, only where that is its open stream."""
        with self._lock:
            windows = self._shows.get(show_id, {})
            found = windows.get(window)
            if found is None or (listener is not None and found[1] is not listener):
                return
            del windows[window]
            if not windows:
                del self._shows[show_id]
        touch_streams()

    def at(self, show_id: str) -> tuple[Somebody, ...]:
        """The people at a show."""
        with self._lock:
            return tuple(somebody for somebody, _ in self._shows.get(show_id, {}).values())


def presence() -> Presence:
    """The one instance of the server."""
    found: Presence = apps.get_app_config("shows").presence  # type: ignore[attr-defined]
    return found


def people_at(show_id: str) -> list[tuple[int, str]]:
    """Who has the show open now, by id and name, each once."""
    return list({one.person: one.name for one in presence().at(show_id)}.items())


@login_required
@require_POST
@answer_errors
def here(request: HttpRequest, show_id: str) -> HttpResponse:
    """Notes where a window is."""
    show_for(show_id, request, "edit")
    told = from_builtins(body_of(request), Here, "Where you are")
    person = person_of(request)
    known = {one.window: one.person for one in presence().at(show_id)}
    if told.gone:
        if known.get(told.window) == person.pk:
            presence().close(show_id, told.window)
    else:
        presence().tell(show_id, Somebody(told.window, person.pk, called(person), told.slide_id, told.picked))
    return json_reply({})
