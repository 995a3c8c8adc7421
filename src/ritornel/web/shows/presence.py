"""Who is at a show just now, on which slide and with what picked: so that two people at one show see each other. All of it lives in the one server
process and is forgotten when they leave."""

import time
from typing import Annotated

import msgspec
from django.apps import apps
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_POST

from ritornel.core.document.decoding import from_builtins
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.replies import body_of, json_reply, telling_errors
from ritornel.web.shows.services import show_for

SILENT_S = 25
"""Who is there says so every ten seconds; who has not for so long has left."""
Id = Annotated[str, msgspec.Meta(max_length=40)]


class Here(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What a window tells of itself; `gone` when it is closed."""

    window: Annotated[str, msgspec.Meta(min_length=8, max_length=40)]
    slide_id: Id = ""
    picked: Annotated[tuple[Id, ...], msgspec.Meta(max_length=200)] = ()
    gone: bool = False


class Somebody(msgspec.Struct, frozen=True):
    """Somebody at a show."""

    window: str
    person: int
    name: str
    slide_id: str
    picked: tuple[str, ...]


class Presence:
    """Who is at which show."""

    def __init__(self) -> None:
        self._shows: dict[str, dict[str, tuple[Somebody, float]]] = {}

    def tell(self, show_id: str, somebody: Somebody, now_s: float) -> None:
        """Notes where somebody is."""
        self._shows.setdefault(show_id, {})[somebody.window] = (somebody, now_s)

    def leave(self, show_id: str, window: str) -> None:
        """Forgets a window."""
        self._shows.get(show_id, {}).pop(window, None)

    def at(self, show_id: str, now_s: float) -> tuple[Somebody, ...]:
        """Who is there, those who have not been heard of lately left out."""
        return tuple(somebody for somebody, at_s in list(self._shows.get(show_id, {}).values()) if now_s - at_s < SILENT_S)


def presence() -> Presence:
    """The server's own."""
    found: Presence = apps.get_app_config("shows").presence  # type: ignore[attr-defined]
    return found


@login_required
@require_POST
@telling_errors
def here(request: HttpRequest, show_id: str) -> HttpResponse:
    """Says where a window is."""
    show_for(show_id, request, "edit")
    told = from_builtins(body_of(request), Here, "Where you are")
    person = person_of(request)
    if told.gone:
        presence().leave(show_id, told.window)
    else:
        presence().tell(show_id, Somebody(told.window, person.pk, called(person), told.slide_id, told.picked), time.monotonic())
    return json_reply({})
