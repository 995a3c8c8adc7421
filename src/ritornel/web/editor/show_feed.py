"""The stream for people who edit a show: its revision whenever it changes, the changes, and who else is there.

Changes are computed and written once for all listeners: ten windows that asked for them would cost ten requests each
for every edit.
"""

import json
from collections.abc import Collection, Iterator
from contextlib import suppress
from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_GET

from ritornel.core.document.decoding import to_json
from ritornel.core.document.show import Show as ShowValue
from ritornel.web.editor.changes import stages_differing, step_scores
from ritornel.web.editor.presence import Presence, Somebody
from ritornel.web.people.services import access_of_each, called, person_of
from ritornel.web.shows.services import Show, people_involved, read_show, show_for, steps_with_states
from ritornel.web.streams.services import Feed, Listener, stream_reply

Key = tuple[str, int]
"""A show and a person."""


class ShowState(msgspec.Struct, frozen=True):
    """The state of a show that is streamed."""

    revision: int
    people: tuple[Somebody, ...]
    since: int
    """The revision that was told before."""
    changes: tuple[str, ...] = ()
    """What each step since then changed, as JSON; none where a window has to ask for that."""


MOST_STEPS = 8
LONGEST_CHANGES = 65_536
"""More steps, or more characters, are asked for by each window, as one answer that is compressed."""


def changes_texts(row: Show, now: ShowValue, since: int) -> tuple[str, ...]:
    """The changes of each step from a revision to the present show, as JSON, for every window; none where they are too
    many or unknown.

    Each step is sent by itself: a window that made one of several needs those before and after it. For the people in
    `ask` this is not enough: the maker of the step, since undo now means another one, and those whose values it
    replaced. `stages` are the slides whose stage looks different now.
    """
    steps = steps_with_states(row, now, since, MOST_STEPS) or ()
    texts = tuple(
        to_json(
            {
                "since": step.first_revision - 1,
                "revision": step.revision,
                **step_scores().of_step(row, (step.first_revision - 1, step.revision), before, after),
                "ask": sorted(people_involved(step)),
                "stages": stages_differing(before, after),
            }
        ).decode()
        for step, before, after in steps
    )
    return texts if sum(map(len, texts)) <= LONGEST_CHANGES else ()


class ShowFeed(Feed):
    """One stream for each window of Compose."""

    name = "show"

    def __init__(self, presence: Presence) -> None:
        self._presence = presence
        self._states: dict[str, ShowState] = {}

    def _state(self, row: Show) -> ShowState:
        known, people = self._states.get(row.pk), self._presence.at(row.pk)
        if known is not None and known.revision == row.revision:
            return msgspec.structs.replace(known, people=people)
        if known is None:
            return ShowState(row.revision, people, since=row.revision)
        row, now = read_show(row.pk)
        return ShowState(row.revision, people, known.revision, changes_texts(row, now, known.revision))

    def look(self, keys: Collection[Key]) -> dict[Key, ShowState]:
        """The shows that their readers may still edit."""
        shows = Show.objects.filter(pk__in={show_id for show_id, _ in keys}).only("pk", "created_at", "revision")
        access = access_of_each(keys)
        states = {}
        for row in shows:
            # A show that is removed for good at this moment is over for all.
            with suppress(Show.DoesNotExist):
                states[row.pk] = self._state(row)
        self._states = states
        return {
            key: self._states[key[0]]
            for key in keys
            if key[0] in self._states and key in access and access[key].may("edit")
        }

    def messages(self, before: ShowState | None, now: ShowState) -> Iterator[str]:
        """The changes, or the revision where a window has to ask for them; the people. Each when it changes."""
        if before is not None and before.revision == now.since < now.revision and now.changes:
            yield from (f"event: changes\ndata: {text}\n\n" for text in now.changes)
        elif before is None or before.revision != now.revision:
            yield f"event: revision\ndata: {json.dumps(now.revision)}\n\n"
        if before is None or before.people != now.people:
            yield f"event: people\ndata: {msgspec.json.encode(now.people).decode()}\n\n"

    def joined(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A window is present as soon as its stream is open."""
        if about.get("window"):
            self._presence.open(key[0], Somebody(about["window"], key[1], about["name"], "", ()), listener)

    def left(self, key: Key, listener: Listener, about: dict[str, str]) -> None:
        """A window whose stream has closed is gone, unless it has opened another one."""
        if about.get("window"):
            self._presence.close(key[0], about["window"], listener)


@login_required
@require_GET
def events(request: HttpRequest, show_id: str) -> HttpResponse:
    """Server-sent events of a show; `?window=` names the listening window, so that others see it."""
    row, person = show_for(show_id, request), person_of(request)
    window = request.GET.get("window", "")[:40]
    about: dict[str, Any] = {"window": window, "name": called(person)} if window else {}
    return stream_reply(request, ShowFeed.name, (row.pk, person.pk), {"person": person.pk}, **about)
