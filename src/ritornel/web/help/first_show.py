"""The first show: starting it, its progress, leaving it and returning to it."""

from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.first_acts import FIRST_ACTS, done_acts
from ritornel.starters.first_show import first_show
from ritornel.web.config.replies import json_reply
from ritornel.web.help.models import FirstShow
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import Show, create_rows, keep_media, owned_show, value_of


def _known(request: HttpRequest) -> FirstShow | None:
    """The person's newest first show that is not in the bin."""
    found = FirstShow.objects.filter(show__owner=person_of(request), show__removed_at=None)
    return found.order_by("-pk").select_related("show").first()


def first_show_id(request: HttpRequest) -> str:
    """The show that the person would return to; empty where there is none."""
    found = _known(request)
    return found.show_id if found else ""


@login_required
@require_POST
def begin_first_show(request: HttpRequest) -> HttpResponse:
    """Opens the person's first show; makes it where there is none."""
    found = _known(request)
    if found is None:
        row = Show(owner=person_of(request))
        show, data = first_show(row.id)
        for sha256, content in data.items():
            keep_media(sha256, content)
        with transaction.atomic():
            create_rows(row, show)
            found = FirstShow.objects.create(show=row)
    elif found.left_at is not None:
        FirstShow.objects.filter(pk=found.pk).update(left_at=None)
    return redirect("compose", found.show_id)


def _of(show_id: str, request: HttpRequest) -> tuple[Show, FirstShow]:
    row = owned_show(show_id, request)
    found = FirstShow.objects.filter(show=row).first()
    if found is None:
        raise Http404("This is nobody's first show.")
    return row, found


@login_required
@require_GET
def first_show_state(request: HttpRequest, show_id: str) -> HttpResponse:
    """The acts, which of them are done, and whether the person left them."""
    row, found = _of(show_id, request)
    released = Show.objects.filter(pk=row.pk, release__editions__isnull=False).exists()
    done = done_acts(value_of(row), released)
    acts = [{"name": act.name, "title": act.title, "how": act.how, "done": act.name in done} for act in FIRST_ACTS]
    return json_reply({"acts": acts, "left": found.left_at is not None})


@login_required
@require_POST
def leave_first_show(request: HttpRequest, show_id: str) -> HttpResponse:
    """Ends the lesson; the show stays."""
    _, found = _of(show_id, request)
    FirstShow.objects.filter(pk=found.pk).update(left_at=timezone.now())
    return json_reply({"left": True})
