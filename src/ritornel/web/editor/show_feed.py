"""What those who edit a show are told while it is open: its revision whenever it changes, and who else is at it."""

import json
from collections.abc import Collection, Iterator
from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_GET

from ritornel.web.editor.presence import Presence, Somebody
from ritornel.web.people.services import access_of_each, called, person_of
from ritornel.web.shows.services import Show, show_for
from ritornel.web.streams.services import Feed, Listener, stream_reply

Key = tuple[str, int]
"""A show and a person."""


class ShowState(msgspec.Struct, frozen=True):
    """What is told of a show."""

    revision: int
    people: tuple[Somebody, ...]


class ShowFeed(Feed):
    """One stream a window of Compose."""

    name = "show"

    def __init__(self, presence: Presence) -> None:
        self._presence = presence

    def look(self, keys: Collection[Key]) -> dict[Key, ShowState]:
        """The shows that their readers may still edit."""
        shows = dict(Show.objects.filter(pk__in={show_id for show_id, _ in keys}).values_list("pk", "revision"))
        access = access_of_each(keys)
        people = {show_id: self._presence.at(show_id) for show_id in shows}
        return {
            key: ShowState(shows[key[0]], people[key[0]])
            for key in keys
            if key[0] in shows and key in access and access[key].may("edit")
        }

    def messages(self, before: ShowState | None, now: ShowState) -> Iterator[str]:
        """The revision and the people, each when it changed."""
        if before is None or before.revision != now.revision:
            yield f"event: revision\ndata: {json.dumps(now.revision)}\n\n"
        if before is None or before.people != now.people:
            yield f"event: people\ndata: {msgspec.json.encode(now.people).decode()}\n\n"

    def joined(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A window is there as soon as its stream is open."""
        if about.get("window"):
            self._presence.open(key[0], Somebody(about["window"], key[1], about["name"], "", ()), listener)

    def left(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A window whose stream has closed is gone, unless it has opened another one."""
        if about.get("window"):
            self._presence.close(key[0], about["window"], listener)


@login_required
@require_GET
def events(request: HttpRequest, show_id: str) -> HttpResponse:
    """Server-sent events of a show; `?window=` names the window that listens, so that others see it."""
    row, person = show_for(show_id, request), person_of(request)
    window = request.GET.get("window", "")[:40]
    about: dict[str, Any] = {"window": window, "name": called(person)} if window else {}
    return stream_reply(request, ShowFeed.name, (row.pk, person.pk), {"person": person.pk}, **about)
