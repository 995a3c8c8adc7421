"""The page where a show is composed."""

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.layouts import LAYOUTS
from ritornel.core.document.objects import ADDRESS_PATTERN
from ritornel.core.document.themes import THEMES
from ritornel.core.layout.faces import FAMILIES
from ritornel.core.motion.catalogue import effect_forms, transition_forms
from ritornel.core.motion.easing import PACES
from ritornel.sounds import LIBRARY
from ritornel.web.editor.score import slide_detail, whole_score
from ritornel.web.people.services import names_and_sharing, open_comments, person_of
from ritornel.web.shows.services import history_labels, show_for, value_of


@login_required
@require_GET
def compose(request: HttpRequest, show_id: str) -> HttpResponse:
    """The page Compose. `?slide=` opens a slide."""
    row = show_for(show_id, request)
    show = value_of(row)
    wanted = show.slide(request.GET.get("slide", "")) or (show.slides[0] if show.slides else None)
    owner = person_of(request) if row.access.role == "own" else row.owner
    names, shared = names_and_sharing(row.pk, owner)
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
        "people": names,
        "me": person_of(request).pk,
        "shared": row.access.role != "own" or shared,
    }
    page = {"show": row, "way": "compose", "comments": open_comments(row.pk), "start": start}
    return render(request, "shows/compose.html", page)
