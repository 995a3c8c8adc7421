"""The changes between two revisions of a show, and the slides whose stage looks different."""

from collections import OrderedDict
from datetime import datetime
from functools import cache, lru_cache
from threading import Lock
from typing import Any

import msgspec

from ritornel.core.document.show import Show as ShowValue
from ritornel.web.editor.score import changed_score, whole_score
from ritornel.web.shows.services import Show, read_show, state_of_revision

Step = tuple[str, datetime, int, int]
"""A show's id, when it was made, and the revisions before and after a step."""

MOST_SCORES = 256


class StepScores:
    """The changes of the last steps on the score, computed once for the person who made the step and for all others."""

    def __init__(self) -> None:
        self._scores: OrderedDict[Step, dict[str, Any]] = OrderedDict()
        self._lock = Lock()

    def of_step(self, row: Show, revisions: tuple[int, int], before: ShowValue, after: ShowValue) -> dict[str, Any]:
        """The difference between the states of a show at two revisions. Nobody may change the value."""
        key = (row.pk, row.created_at, *revisions)
        with self._lock:
            found = self._scores.get(key)
        if found is None:
            found = changed_score(before, after)
            with self._lock:
                self._scores[key] = found
                while len(self._scores) > MOST_SCORES:
                    self._scores.popitem(last=False)
        return found


@cache
def step_scores() -> StepScores:
    """The one instance of this process."""
    return StepScores()


BESIDE = 2
"""So many slides before and after one are looked at for what the stage says of it: what is carried, and guides."""


class Changes(msgspec.Struct, frozen=True):
    """The difference between an earlier state of a show (None where the log does not reach back) and its state at a
    revision; the same for everybody who asks.
    """

    revision: int
    then: ShowValue | None
    now: ShowValue
    score: dict[str, Any]
    stages: frozenset[str]
    """The slides of which the stage may show anything else now."""


def changes_since(row: Show, since: int) -> Changes:
    """The changes from a revision to the row's.

    Where the show has moved on, up to its newest revision. Raises Show.DoesNotExist.
    """
    return _changes(row.pk, row.created_at, since, row.revision)


@lru_cache(maxsize=64)
def _changes(show_id: str, _made_at: datetime, since: int, _revision: int) -> Changes:
    # When the show was made is part of the key: one that is made again under its id has the same revisions.
    row, now = read_show(show_id)
    then = state_of_revision(row, now, since)
    if then is None:
        return Changes(row.revision, None, now, whole_score(now), frozenset(slide.id for slide in now.slides))
    found = step_scores().of_step(row, (since, row.revision), then, now)
    return Changes(row.revision, then, now, found, frozenset(stages_differing(then, now)))


def _of_all(show: ShowValue) -> tuple[Any, ...]:
    """What the stage shows of every slide."""
    return show.default_hold_ms, show.holds_by_cue, show.frame, show.theme, show.furniture, show.assets


def _near(show: ShowValue, numbers: dict[str, int], at: int) -> tuple[Any, ...]:
    """What the stage shows of the slide at a place besides that: the slide, its number, its neighbours."""
    slides = show.slides[max(at - BESIDE, 0) : at + BESIDE + 1]
    return (numbers[show.slides[at].id], *map(id, slides))


def stages_differing(before: ShowValue, after: ShowValue) -> list[str]:
    """The slides of the later state whose stage may look different from the earlier state."""
    if _of_all(before) != _of_all(after):
        return [slide.id for slide in after.slides]
    nears = []
    for show in (before, after):
        numbers = show.numbers
        nears.append({slide.id: _near(show, numbers, at) for at, slide in enumerate(show.slides)})
    known, now = nears
    return [slide_id for slide_id, near in now.items() if known.get(slide_id) != near]
