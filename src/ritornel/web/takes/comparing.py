"""Takes side by side, and a timing taken from them for all slides or some."""

from typing import Annotated, Any, Literal

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins, from_json
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.compare import apply_timing, compare_takes, median_timing, timing_for
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.rehearsal.take import TakeTiming, timing_of
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import LONGEST_MS, clock_text
from ritornel.web.config.bounded_input import whole_number
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Show, edit_show, history_labels, show_for, value_of
from ritornel.web.takes.models import Take

MOST_NUMBER = 10**9
MOST = 8
"""How many takes are seen side by side."""


class Wanted(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The wanted timing: that of take number `source`, or the median of `takes`.

    It is for `slides`, or for all; fitted to a target, or unchanged. `way` says whether the show's own holds are
    written or the show follows it. With `try` the answer only says what would happen.
    """

    source: int | None
    takes: tuple[int, ...] = ()
    slides: tuple[str, ...] | None = None
    target_ms: Annotated[int, msgspec.Meta(ge=1, le=LONGEST_MS)] | None = None
    way: Literal["own holds", "followed take"] = msgspec.field(default="own holds", name="as")
    trying: bool = msgspec.field(default=False, name="try")


def _chosen(row: Show, numbers: tuple[int, ...]) -> list[Take]:
    """These takes, or the newest, in the order they were made. Raises BadValue for an unknown one."""
    found = (
        list(row.takes.filter(number__in=numbers).order_by("number"))
        if numbers
        else list(row.takes.order_by("-number")[:MOST])[::-1]
    )
    if len(found) < len(set(numbers)):
        raise BadValue("One of these takes is no longer there. Nothing was changed.", "takes")
    return found


def _timing(take: Take) -> TakeTiming:
    return timing_of(from_json(bytes(take.body), TakeValue, "The take"))


@login_required
@require_GET
@answer_errors
def compare(request: HttpRequest, show_id: str) -> HttpResponse:
    """The takes `?takes=1,3`, or the newest, slide by slide."""
    row = show_for(show_id, request)
    words = request.GET.get("takes", "")[:200].split(",")
    numbers = tuple(number for word in words if (number := whole_number(word.strip(), most=MOST_NUMBER)) is not None)
    takes = _chosen(row, numbers)
    show = value_of(row)
    lines = compare_takes(show, compile_show(show), [_timing(take) for take in takes])
    about = [
        {
            "number": take.number,
            "name": take.name,
            "length_ms": from_json(bytes(take.body), TakeValue, "The take").ended_ms,
        }
        for take in takes
    ]
    return json_reply({"takes": about, "slides": lines, "length_ms": compile_show(show).length_ms})


@login_required
@require_POST
@answer_errors
def take_timing(request: HttpRequest, show_id: str) -> HttpResponse:
    """Takes a timing into the show as one edit, or says what would happen."""
    row = show_for(show_id, request)
    wanted = from_builtins(body_of(request), Wanted, "The timing")
    takes = _chosen(row, wanted.takes if wanted.source is None else (wanted.source,))
    if not takes:
        raise BadValue("There is no take yet whose timing could be used.", "source")
    show = value_of(row)
    timing = median_timing([_timing(take) for take in takes]) if wanted.source is None else _timing(takes[0])
    if wanted.slides is not None:
        timing = timing_for(show, timing, wanted.slides)
    name = f"take {wanted.source}" if wanted.source is not None else f"the median of {len(takes)} takes"
    outcome = apply_timing(show, timing, name, wanted.target_ms, follows=wanted.way == "followed take")
    notices = list(outcome.notices)
    if wanted.target_ms is not None and outcome.reached_ms != wanted.target_ms:
        target, nearest = clock_text(wanted.target_ms), clock_text(outcome.reached_ms)
        notices.append(
            f"{target} cannot be met: what moves, clips and voices take their time. The nearest is {nearest}."
        )
    told: dict[str, Any] = {
        "timed_ms": outcome.timed_ms,
        "reached_ms": outcome.reached_ms,
        "gives": outcome.gives,
        "notices": notices,
        "name": name,
    }
    if not wanted.trying:
        edit_show(show_id, person_of(request), outcome.edit)
        told["history"] = history_labels(show_for(show_id, request))
    return json_reply(told)
