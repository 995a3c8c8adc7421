"""The requests of the pages while a show is composed."""

from typing import Annotated, Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.checks.inconsistencies import differences_of
from ritornel.core.document.decoding import from_builtins
from ritornel.core.document.edits import Edit
from ritornel.core.document.layouts import refit_slide
from ritornel.core.document.objects import Id, PictureBackground
from ritornel.core.document.pairing import pair_voices
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.document.show import Slide
from ritornel.core.document.theme import Theme
from ritornel.core.document.themes import THEMES
from ritornel.core.errors import BadMedia, BadValue
from ritornel.core.rehearsal.lengths import fit_to_length, read_through
from ritornel.core.time.milliseconds import LONGEST_MS, clock_text
from ritornel.web.config.bounded_input import whole_number
from ritornel.web.config.replies import answer_errors, body_of, edit_id_of, json_reply
from ritornel.web.editor.changes import changes_since, step_scores
from ritornel.web.editor.score import changed_score, slide_detail, whole_score
from ritornel.web.editor.stage_data import ties
from ritornel.web.library.services import WIDTHS_PX, slide_picture
from ritornel.web.people.services import person_of
from ritornel.web.shows.services import (
    Edited,
    Show,
    edit_show,
    history_labels,
    overruled_since,
    redo,
    seen_slides,
    show_for,
    slide_of,
    undo,
    value_of,
    would_be,
)


@login_required
@require_GET
def score(request: HttpRequest, show_id: str) -> HttpResponse:
    """The whole score with its revision."""
    row = show_for(show_id, request)
    return json_reply({"revision": row.revision, "history": history_labels(row), **whole_score(value_of(row))})


@login_required
@require_GET
@answer_errors
def changes(request: HttpRequest, show_id: str) -> HttpResponse:
    """The changes of others since the revision `?since=`, and which of the person's values they replaced; also the
    slide `?viewing=` where the stage shows it differently now. Where the log does not reach back that far, the answer
    is the whole score, and says so.
    """
    row = show_for(show_id, request)
    since = whole_number(request.GET.get("since", ""), most=10**9)
    if since is None:
        raise BadValue("Changes are asked for since a revision.", "since")
    found = changes_since(row, since)
    reply = {"revision": found.revision, "history": history_labels(row), **found.score, "whole": found.then is None}
    reply["overruled"] = overruled_since(row, person_of(request), since)
    seen = found.now.slide(request.GET.get("viewing", ""))
    if seen is not None and seen.id in found.stages:
        reply["viewing"] = slide_detail(found.now, seen)
    return json_reply(reply)


@login_required
@require_GET
@answer_errors
def slide(request: HttpRequest, show_id: str, slide_id: str) -> HttpResponse:
    """One slide, for the stage."""
    show = value_of(show_for(show_id, request))
    return json_reply(slide_detail(show, slide_of(show, slide_id)))


@login_required
@require_GET
@answer_errors
def slide_ties(request: HttpRequest, show_id: str, slide_id: str) -> HttpResponse:
    """The objects that a carry brings into a slide."""
    show = value_of(show_for(show_id, request))
    return json_reply({"ties": ties(show, slide_of(show, slide_id))})


def reply_to_edit(row: Show, edited: Edited, viewing: str | None) -> HttpResponse:
    """The changes of an edit, and the slide on the stage as it is now."""
    body: dict[str, Any] = {
        "revision": edited.revision,
        "since": edited.since,
        "label": edited.label,
        "notices": edited.notices,
        "overruled": edited.overruled,
        "history": history_labels(row),
        **step_scores().of_step(row, (edited.since, edited.revision), edited.before, edited.after),
    }
    seen = edited.after.slide(viewing) if viewing else None
    if seen is not None:
        body["viewing"] = slide_detail(edited.after, seen)
    return json_reply(body)


@login_required
@require_POST
@answer_errors
def edit(request: HttpRequest, show_id: str) -> HttpResponse:
    """Makes an edit: {"revision": n, "edit": {...}, "viewing": slide id}.

    Answers with the changes since that revision. `bring_back` are ids of things that others removed in the meantime and
    that come back with it.
    """
    body = body_of(request)
    revision = body.get("revision")
    if not isinstance(revision, int):
        raise BadValue("An edit needs the revision it was made on.", "revision")
    value = from_builtins(body.get("edit"), Edit, "The edit")
    back = from_builtins(body.get("bring_back", []), tuple[Id, ...], "What comes back")
    edited = edit_show(
        show_id, person_of(request), value, revision, edit_id=edit_id_of(request), restored=frozenset(back)
    )
    return reply_to_edit(show_for(show_id, request), edited, body.get("viewing"))


@login_required
@require_POST
@answer_errors
def would(request: HttpRequest, show_id: str) -> HttpResponse:
    """The changes that an edit would make, while somebody still drags: {"edit": {...}, "viewing": slide id}. Nothing is
    saved.
    """
    body = body_of(request)
    before = value_of(show_for(show_id, request))
    after = would_be(before, from_builtins(body.get("edit"), Edit, "The edit"), person_of(request))
    seen = after.slide(str(body.get("viewing") or ""))
    return json_reply({**changed_score(before, after), **({"viewing": slide_detail(after, seen)} if seen else {})})


@login_required
@require_POST
@answer_errors
def voice_pairs(request: HttpRequest, show_id: str) -> HttpResponse:
    """Which of the numbered files would become the voice of which slide: {"names": [...]}. Nothing is changed."""
    names = from_builtins(
        body_of(request).get("names", []), tuple[Annotated[str, msgspec.Meta(max_length=300)], ...], "The files"
    )
    return json_reply({"rows": pair_voices(names, value_of(show_for(show_id, request)))})


@login_required
@require_POST
@answer_errors
def lengths(request: HttpRequest, show_id: str) -> HttpResponse:
    """Sets lengths by a rule: {"by": "reading", "slide_ids": [...]}, or {"by": "spreading", "target_ms": n, "from":
    slide id}.
    """
    body = body_of(request)
    show = value_of(show_for(show_id, request))
    notices: tuple[str, ...] = ()
    if body.get("by") == "reading":
        value = read_through(show, from_builtins(body.get("slide_ids", []), tuple[str, ...], "The slides"))
    else:
        target = from_builtins(body.get("target_ms"), Annotated[int, msgspec.Meta(ge=1, le=LONGEST_MS)], "The target")
        first = next((at for at, slide in enumerate(show.slides) if slide.id == body.get("from")), 0)
        value, reached = fit_to_length(show, target, first)
        if reached != target:
            notices = (
                f"{clock_text(target)} cannot be met: what moves takes its time. The nearest is {clock_text(reached)}.",
            )
    edited = edit_show(show_id, person_of(request), value, edit_id=edit_id_of(request))
    edited = msgspec.structs.replace(edited, notices=(*edited.notices, *notices))
    return reply_to_edit(show_for(show_id, request), edited, body.get("viewing"))


def _step(request: HttpRequest, show_id: str, back: bool) -> HttpResponse:
    body = body_of(request)
    viewing, revision = body.get("viewing"), body.get("revision")
    seen = revision if isinstance(revision, int) else None
    edited = (undo if back else redo)(show_id, person_of(request), edit_id_of(request), seen)
    row = show_for(show_id, request)
    if edited is None:
        return json_reply({"error": f"There is nothing to {'undo' if back else 'do again'}."}, 400)
    return reply_to_edit(row, edited, viewing)


@login_required
@require_POST
@answer_errors
def undo_edit(request: HttpRequest, show_id: str) -> HttpResponse:
    """Undoes the last edit."""
    return _step(request, show_id, back=True)


@login_required
@require_POST
@answer_errors
def redo_edit(request: HttpRequest, show_id: str) -> HttpResponse:
    """Makes the last undone edit again."""
    return _step(request, show_id, back=False)


@login_required
@require_GET
@answer_errors
def differences(request: HttpRequest, show_id: str) -> HttpResponse:
    """Slides that differ from the others: the notes in the overview's margin."""
    return json_reply({"notes": differences_of(value_of(show_for(show_id, request)))})


def _picture(show: ShowValue, slide: Slide, width_px: int, number: int) -> bytes:
    """The slide as a PNG. Raises Http404 where a picture is missing."""
    try:
        return slide_picture(show, slide, width_px, number)
    except BadMedia as error:
        raise Http404(str(error)) from error


@login_required
@require_GET
def thumb(request: HttpRequest, show_id: str, slide_id: str, stamp: str) -> HttpResponse:
    """The slide at the end of its last beat; `?size=large` for lists.

    The stamp only makes the address change with the slide.
    """
    width = WIDTHS_PX.get(request.GET.get("size", "small"))
    if width is None:
        raise Http404("There is no such size.")
    row = show_for(show_id, request, "see")
    show = value_of(row)
    found = show.slide(slide_id)
    if found is None or slide_id not in seen_slides(row, show):
        raise Http404("There is no such slide.")
    png = _picture(show, found, width, show.numbers[slide_id])
    response = HttpResponse(png, content_type="image/png")
    response.headers["Cache-Control"] = "private, max-age=31536000, immutable"
    return response


@login_required
@require_GET
@answer_errors
def theme_preview(request: HttpRequest, show_id: str, slide_id: str, theme: str) -> HttpResponse:
    """The slide in a theme that ships."""
    show = value_of(show_for(show_id, request))
    found = show.slide(slide_id)
    if found is None or theme not in THEMES:
        raise Http404("There is no such slide or theme.")
    dressed = refit_slide(found, (show.theme, show.frame), (THEMES[theme], show.frame))
    png = _picture(msgspec.structs.replace(show, theme=THEMES[theme]), dressed, 320, show.numbers[slide_id])
    return HttpResponse(png, content_type="image/png", headers={"Cache-Control": "private, max-age=600"})


@login_required
@require_GET
def themes(request: HttpRequest) -> HttpResponse:
    """The themes of the person's shows, to copy one."""
    rows = Show.objects.filter(owner=person_of(request)).values("id", "title", "theme")
    shows = [{**row, "theme": from_builtins(row["theme"], Theme, "The theme")} for row in rows]
    # A theme with a picture needs that picture's show; it stays there.
    return json_reply(
        {
            "shows": [
                row
                for row in shows
                if not any(isinstance(g, PictureBackground) for g in (row["theme"].ground, row["theme"].opening))
            ]
        }
    )
