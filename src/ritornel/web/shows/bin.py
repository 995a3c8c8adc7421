"""The bin: removed shows stay there for a time, and can be restored or removed for good."""

from collections.abc import Iterable
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.wording import count_text, megabytes_text
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.bin_of_show import shows_with_bins
from ritornel.web.shows.models import Asset, Show
from ritornel.web.shows.services import media_path, owned_show


def freed_bytes(rows: Iterable[Show]) -> dict[str, int]:
    """The size of the media that no other show uses, by show; in one query for all of them."""
    ids = [row.pk for row in rows]
    wanted = Asset.objects.filter(show__in=ids).values("sha256")
    holders: dict[str, set[str]] = {}
    for sha256, show_id in Asset.objects.filter(sha256__in=wanted).values_list("sha256", "show_id"):
        holders.setdefault(sha256, set()).add(show_id)
    freed = dict.fromkeys(ids, 0)
    for sha256, shows in holders.items():
        if len(shows) == 1 and (path := media_path(sha256)).is_file():
            freed[next(iter(shows))] += path.stat().st_size
    return freed


def _in_bin(show_id: str, request: HttpRequest) -> Show:
    """The person's own show in the bin. Raises Http404 for any other."""
    row = Show.in_bin().filter(pk=show_id, owner=person_of(request)).first()
    if row is None:
        raise Http404("There is no such show in the bin.")
    return row


@login_required
@require_POST
def remove_show(request: HttpRequest, show_id: str) -> HttpResponse:
    """Puts a show into the bin, with its takes and releases: nobody can open it any more."""
    row = owned_show(show_id, request)
    row.put_into_bin(person_of(request))
    messages.info(
        request, f"“{row.title}” lies in the bin for {count_text(settings.BIN_DAYS, 'day')}.", extra_tags="bin"
    )
    return redirect("shows")


@login_required
@require_GET
def bin_page(request: HttpRequest) -> HttpResponse:
    """What the person removed: who did it, how long it stays, and how much room its removal would free."""
    entries: list[dict[str, Any]] = []
    rows = list(Show.in_bin().filter(owner=person_of(request)).select_related("removed_by"))
    sizes = freed_bytes(rows)
    for row in rows:
        assert row.removed_at is not None
        entries.append(
            {
                "row": row,
                "who": called(row.removed_by) if row.removed_by else "somebody",
                "until": row.removed_at + timedelta(days=settings.BIN_DAYS),
                "size": megabytes_text(sizes[row.pk]) if sizes[row.pk] else "",
            }
        )
    about = {"entries": entries, "others": shows_with_bins(person_of(request)), "days": settings.BIN_DAYS}
    return render(request, "shows/bin.html", about)


@login_required
@require_POST
def bring_show_back(request: HttpRequest, show_id: str) -> HttpResponse:
    """Restores a show from the bin, with its takes and releases."""
    row = _in_bin(show_id, request)
    row.bring_back()
    messages.info(request, f"“{row.title}” is back, as it was.")
    return redirect("shows")


@login_required
@require_POST
def remove_for_good(request: HttpRequest, show_id: str) -> HttpResponse:
    """Removes a show with its takes and releases; the page asks first. Answers how much room that frees."""
    row = _in_bin(show_id, request)
    title, size = row.title, freed_bytes([row])[row.pk]
    row.delete()
    messages.info(request, f"“{title}” is gone for good. {megabytes_text(size)} are free again.")
    return redirect("bin")
