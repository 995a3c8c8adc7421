"""Pages of shows: the list, composing, and archives out."""

import msgspec
from django.conf import settings
from django.contrib import messages
from django.contrib.auth.decorators import login_required
from django.db.models import Count, Q
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.layouts import LAYOUTS
from ritornel.core.document.objects import ADDRESS_PATTERN
from ritornel.core.document.themes import THEMES
from ritornel.core.errors import RitornelError
from ritornel.core.formats.archive import write_archive
from ritornel.core.layout.faces import FAMILIES
from ritornel.core.motion.catalogue import effect_forms, transition_forms
from ritornel.core.motion.easing import PACES
from ritornel.core.schedule.show_schedule import compile_show
from ritornel.core.time.milliseconds import clock_text
from ritornel.sounds import LIBRARY
from ritornel.web.people.roles import WHERE, WORDS
from ritornel.web.people.services import called, open_comments, person_of, shared_with, shows_open_to
from ritornel.web.shows.models import Show
from ritornel.web.shows.naming import file_title
from ritornel.web.shows.rows import value_with
from ritornel.web.shows.saving import saved_reply
from ritornel.web.shows.score import slide_detail, style_stamp, thumb_address, whole_score
from ritornel.web.shows.services import history_labels, media_path, owned_show, seen_slides, show_for, value_of


@login_required
@require_GET
def show_list(request: HttpRequest) -> HttpResponse:
    """The person's shows and those they were let into. Lengths need every slide, so all slides come in one query."""
    entries = []
    person = person_of(request)
    others = shows_open_to(person)
    rows = Show.objects.filter(Q(owner=person) | Q(pk__in=others)).select_related("owner").annotate(count=Count("slides")).prefetch_related("slides", "assets")
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


@login_required
@require_GET
def compose(request: HttpRequest, show_id: str) -> HttpResponse:
    """The place where a show is made. `?slide=` opens a slide."""
    row = show_for(show_id, request)
    show = value_of(row)
    wanted = show.slide(request.GET.get("slide", "")) or (show.slides[0] if show.slides else None)
    start = {
        "revision": row.revision,
        "history": history_labels(row),
        **whole_score(show),
        "show_id": row.id,
        "viewing": slide_detail(show, wanted) if wanted else None,
        "effects": effect_forms(),
        "library": [{"name": sound.name, "title": sound.title} for sound in LIBRARY],
        "transitions": transition_forms(),
        "paces": {name: list(curve) for name, curve in PACES.items()},
        "families": list(FAMILIES),
        "layouts": [to_builtins(layout) for layout in LAYOUTS.values()],
        "themes": {name: to_builtins(theme) for name, theme in THEMES.items()},
        "limits": {"file_bytes": settings.MEDIA_LIMITS.file_bytes, "address_pattern": ADDRESS_PATTERN},
        "shared": row.access.role != "own" or shared_with(row.pk),
    }
    page = {"show": row, "way": "compose", "comments": open_comments(row.pk), "start": msgspec.to_builtins(start)}
    return render(request, "shows/compose.html", page)


@login_required
@require_GET
def export_show(request: HttpRequest, show_id: str) -> HttpResponseBase:
    """The show as an archive."""
    row = show_for(show_id, request)
    try:
        return saved_reply(lambda out: write_archive(value_of(row), out, media_path), f"{file_title(row.title)}.ritornel", "application/zip")
    except RitornelError as error:
        messages.error(request, str(error))
        return redirect("shows")
