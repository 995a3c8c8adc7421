"""The list of shows."""

from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.db.models import Count, Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.editor.services import style_stamp, thumb_address
from ritornel.web.people.services import WHERE, WORDS, called, person_of, shows_open_to
from ritornel.web.shows.models import Show
from ritornel.web.shows.persistence import value_with
from ritornel.web.shows.services import owned_show, seen_slides


@login_required
@require_GET
def show_list(request: HttpRequest) -> HttpResponse:
    """The person's shows and those they were let into. Lengths need every slide, so all slides come in one query."""
    entries = []
    person = person_of(request)
    others = shows_open_to(person)
    rows = (
        Show.objects.filter(Q(owner=person) | Q(pk__in=others))
        .select_related("owner")
        .annotate(count=Count("slides"))
        .prefetch_related("slides", "assets")
    )
    for row in rows:
        show = value_with(row, [entry.body for entry in row.slides.all()], [entry.body for entry in row.assets.all()])
        row.access = others.get(row.pk, row.access)
        seen = seen_slides(row, show)
        first = next((slide for slide in show.slides if not slide.skipped and slide.id in seen), None)
        entries.append(
            {
                "row": row,
                "count": len(show.slides),
                "length": clock_text(compile_show(show).length_ms).split(".")[0],
                "thumb": thumb_address(show, first, style_stamp(show), 1) if first else None,
                "open": reverse(WHERE[row.access.role], args=[row.pk]),
                "asked": WORDS.get(row.access.role, ""),
                "owner": called(row.owner),
            }
        )
    return render(request, "shows/list.html", {"entries": entries})


@login_required
@require_POST
def remove_show(request: HttpRequest, show_id: str) -> HttpResponse:
    """Removes a show for good, with its takes and releases; the page asks first."""
    row = owned_show(show_id, request)
    title = row.title
    row.delete()
    messages.info(request, f"“{title}” was removed.")
    return redirect("shows")
