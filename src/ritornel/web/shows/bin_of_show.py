"""The bin of one show: its removed slides, entries of the shelf, takes, films and editions."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.contrib.auth.models import User
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.wording import megabytes_text
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.people.services import called
from ritornel.web.shows.models import Show
from ritornel.web.shows.persistence import value_of
from ritornel.web.shows.removal import Removable, media_forgotten, removable_kinds
from ritornel.web.shows.removed_parts import RemovedPart, removed_parts
from ritornel.web.shows.services import media_path, show_for

LISTED = 60
"""So many of a kind are listed at most, those removed last."""
_PARTS = {"slide": "Slides", "entry": "From the shelf"}


def _about(name: str, person: User | None, at: datetime, size: int = 0) -> dict[str, Any]:
    return {
        "name": name,
        "who": called(person) if person else "somebody",
        "at": at,
        "until": at + timedelta(days=settings.BIN_DAYS),
        "size": megabytes_text(size) if size else "",
    }


def _part_line(row: Show, part: RemovedPart) -> dict[str, Any]:
    back = reverse("return-to", args=[row.pk, part.revision])
    about = _about(part.name, part.person, part.at)
    if part.kind == "slide":
        picture = reverse("point-picture", args=[row.pk, part.revision, part.id])
        gone = reverse("forget-slide", args=[row.pk, part.id])
        return {**about, "back": back, "field": "slide", "id": part.id, "picture": picture, "gone": gone}
    path = media_path(part.sha256)
    about = _about(part.name, part.person, part.at, path.stat().st_size)
    gone = reverse("forget-entry", args=[row.pk, part.id])
    return {**about, "back": back, "field": "asset", "id": part.id, "gone": gone}


def _row_line(row: Show, entry: Removable) -> dict[str, Any]:
    assert entry.removed_at is not None
    address = [row.pk, entry.KIND, entry.pk]
    return {
        **_about(entry.bin_name, entry.removed_by, entry.removed_at, entry.freed_bytes()),
        "back": reverse("bring-entry-back", args=address),
        "gone": reverse("remove-entry", args=address),
    }


def _kinds(row: Show) -> Iterator[type[Removable]]:
    """The kinds of rows of a show that the person may restore."""
    return (kind for kind in removable_kinds() if kind is not Show and (row.access.may("own") or not kind.OWNERS))


def _forgettable(row: Show) -> Iterator[RemovedPart]:
    """The slides, and the entries whose media still exist: an entry removed for good has none."""
    return (
        part for part in removed_parts(row, value_of(row)) if part.kind == "slide" or media_path(part.sha256).is_file()
    )


@login_required
@require_GET
@answer_errors
def show_bin(request: HttpRequest, show_id: str) -> HttpResponse:
    """What was removed from a show, kind by kind: who did it, and how long it stays."""
    row = show_for(show_id, request)
    parts = tuple(_forgettable(row))
    groups = [
        {"title": title, "lines": [_part_line(row, part) for part in parts if part.kind == kind][:LISTED]}
        for kind, title in _PARTS.items()
    ]
    for kind in _kinds(row):
        found = kind.in_bin().filter(**{kind.SHOW: row.pk}).select_related("removed_by", kind.SHOW)[:LISTED]
        groups.append({"title": kind.TITLE, "lines": [_row_line(row, entry) for entry in found]})
    groups = [group for group in groups if group["lines"]]
    return render(
        request, "shows/show_bin.html", {"show": row, "way": "history", "groups": groups, "days": settings.BIN_DAYS}
    )


def _entry(row: Show, word: str, entry_id: str) -> Removable:
    """A row in the show's bin. Raises Http404."""
    kind = next((kind for kind in _kinds(row) if word == kind.KIND), None)
    if kind is None or not (kind._meta.pk.get_internal_type() == "CharField" or entry_id.isdecimal()):
        raise Http404("There is no such thing in the bin.")
    entry = kind.in_bin().filter(**{kind.SHOW: row.pk}, pk=entry_id).first()
    if entry is None:
        raise Http404("There is no such thing in the bin.")
    return entry


@login_required
@require_POST
def bring_entry_back(request: HttpRequest, show_id: str, kind: str, entry_id: str) -> HttpResponse:
    """Restores a row from the bin. A page that asks in JSON gets JSON."""
    entry = _entry(show_for(show_id, request), kind, entry_id)
    entry.bring_back()
    if request.content_type == "application/json":
        return json_reply({"back": True})
    messages.info(request, f"{entry.bin_name} is back.")
    return redirect("show-bin", show_id)


@login_required
@require_POST
def remove_entry(request: HttpRequest, show_id: str, kind: str, entry_id: str) -> HttpResponse:
    """Removes a row for good; the page asks first. Answers how much room that frees."""
    entry = _entry(show_for(show_id, request), kind, entry_id)
    name, size = entry.bin_name, entry.freed_bytes()
    entry.delete()
    _tell_gone(request, name, size)
    return redirect("show-bin", show_id)


@login_required
@require_POST
def forget_entry(request: HttpRequest, show_id: str, asset_id: str) -> HttpResponse:
    """Removes the medium of an entry of the shelf for good, unless something else uses it. A step of the history that
    had it shows it as missing from then on.
    """
    row = show_for(show_id, request)
    part = next((part for part in _forgettable(row) if (part.kind, part.id) == ("entry", asset_id)), None)
    if part is None:
        raise Http404("There is no such thing in the bin.")
    size = sum(int(freed or 0) for _, freed in media_forgotten.send(Show, show=row, sha256=part.sha256))
    if size:
        _tell_gone(request, part.name, size)
    else:
        messages.info(request, f"“{part.name}” stays: another show, a film or an edition holds it too.")
    return redirect("show-bin", show_id)


@login_required
@require_POST
def forget_slide(request: HttpRequest, show_id: str, slide_id: str) -> HttpResponse:
    """Removes a slide from the bin for good. The history still shows the show as it was."""
    row = show_for(show_id, request)
    part = next((part for part in _forgettable(row) if (part.kind, part.id) == ("slide", slide_id)), None)
    if part is None:
        # A second press finds it gone, as it was to be.
        if not row.forgotten_slides.filter(slide_id=slide_id).exists():
            raise Http404("There is no such thing in the bin.")
        return redirect("show-bin", show_id)
    row.forgotten_slides.get_or_create(slide_id=part.id, revision=part.revision)
    messages.info(request, f"{part.name} is gone for good. The history still shows what the show was before.")
    return redirect("show-bin", show_id)


def _tell_gone(request: HttpRequest, name: str, size: int) -> None:
    freed = f" {megabytes_text(size)} are free again." if size else ""
    messages.info(request, f"{name} is gone for good.{freed}")


def shows_with_bins(person: User) -> list[tuple[Show, int]]:
    """The person's own shows with removed rows, with their number; one query for each kind."""
    counts: dict[str, int] = {}
    for kind in removable_kinds():
        if kind is not Show:
            found = kind.in_bin().filter(**{f"{kind.SHOW}__owner": person})
            for show_id in found.values_list(f"{kind.SHOW}__pk", flat=True):
                counts[show_id] = counts.get(show_id, 0) + 1
    rows = Show.objects.filter(pk__in=counts).order_by("title")
    return [(row, counts[row.pk]) for row in rows]
