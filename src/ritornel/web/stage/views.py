"""Playing a show in the browser."""

from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import builtins_of, perform
from ritornel.web.config.replies import json_reply, telling_errors
from ritornel.web.library.services import browser_address
from ritornel.web.shows.services import show_for, value_of
from ritornel.web.stage.lectern import inks


@login_required
@require_GET
def play(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show over the full window. `?from=` names the slide to begin at, `?mode=` how it runs."""
    row = show_for(show_id, request, "watch")
    return render(request, "stage/play.html", {"show": row, "start": {"may_edit": row.access.may("edit"), **inks()}})


@login_required
@require_GET
@telling_errors
def performance(request: HttpRequest, show_id: str) -> HttpResponse:
    """Everything the browser's painter needs, as it is now; with notes and names for those who may edit the show, and
    for nobody else.
    """
    row = show_for(show_id, request, "watch")
    staged = perform(value_of(row))
    media = staged.media(lambda asset, rate_pct: browser_address(show_id, asset, rate_pct))
    given = builtins_of if row.access.may("edit") else audience_show
    return json_reply({"runs": row.runs, "revision": row.revision, **given(staged, media)})
