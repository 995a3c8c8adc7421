"""Playing a show in the browser."""

from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET

from ritornel.core.document.show import Asset
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import builtins_of, perform
from ritornel.web.config.bounded_input import whole_number
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.library.services import browser_address
from ritornel.web.shows.services import now_and_then, show_for, value_of
from ritornel.web.stage.lectern import inks


@login_required
@require_GET
def play(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show over the full window. `?from=` names the first slide, `?mode=` how it runs, `?revision=` a state of the
    history to play.
    """
    row = show_for(show_id, request, "watch")
    return render(request, "stage/play.html", {"show": row, "start": {"may_edit": row.access.may("edit"), **inks()}})


@login_required
@require_GET
@answer_errors
def performance(request: HttpRequest, show_id: str) -> HttpResponse:
    """The present performance for the browser's painter; with notes and names only for people who may edit the show.
    `?revision=` names a state of the history, which only they can play.
    """
    asked = request.GET.get("revision", "")
    row = show_for(show_id, request, "edit" if asked else "watch")
    revision = whole_number(asked, most=10**9)
    now, then = (value_of(row), None) if revision is None else now_and_then(row, revision)
    staged = perform(then or now)

    def address(asset: Asset, rate_pct: int) -> str:
        if now.asset(asset.id) == asset:
            return browser_address(show_id, asset, rate_pct)
        return reverse("point-media", args=[show_id, revision, asset.id, rate_pct])

    media = staged.media(address)
    given = builtins_of if row.access.may("edit") else audience_show
    return json_reply({"runs": row.runs, "revision": row.revision, **given(staged, media)})
