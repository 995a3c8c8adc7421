"""Comments on slides and objects, with answers, open or closed."""

from typing import Annotated, Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.decoding import from_builtins
from ritornel.core.errors import BadValue
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.editor.services import style_stamp, thumb_address
from ritornel.web.people.models import Comment
from ritornel.web.people.services import called, person_of
from ritornel.web.shows.services import Show, seen_slides, show_for, value_of


class Said(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A comment on a slide, on one of its objects, or an answer to a comment."""

    text: Annotated[str, msgspec.Meta(max_length=4000)]
    slide_id: Annotated[str, msgspec.Meta(max_length=40)] = ""
    object_id: Annotated[str, msgspec.Meta(max_length=40)] = ""
    answers: int | None = None


def _line(entry: Comment, names: dict[str, str]) -> dict[str, Any]:
    return {
        "id": entry.pk,
        "slide_id": entry.slide_id,
        "object_id": entry.object_id,
        "object": names.get(entry.object_id, "something that is gone") if entry.object_id else "",
        "who": called(entry.person),
        "text": entry.text,
        "at": entry.at,
        "closed_by": called(entry.closed_by) if entry.closed_at else None,
        "answers": [
            {"who": called(answer.person), "text": answer.text, "at": answer.at} for answer in entry.given.all()
        ],
    }


def _state(row: Show) -> dict[str, Any]:
    show = value_of(row)
    seen = seen_slides(row, show)
    style, numbers = style_stamp(show), show.numbers
    names = {item.id: item.name for slide in show.slides for item in slide.objects}
    entries = (
        Comment.objects.filter(show=row, answers=None)
        .select_related("person", "closed_by")
        .prefetch_related("given__person")
    )
    by_slide: dict[str, list[dict[str, Any]]] = {}
    for entry in entries:
        by_slide.setdefault(entry.slide_id, []).append(_line(entry, names))
    known = {slide.id for slide in show.slides}
    return {
        "show_id": row.pk,
        "may_edit": row.access.may("edit"),
        "slides": [
            {
                "id": slide.id,
                "number": numbers[slide.id],
                "name": slide.name or "Untitled",
                "thumb": thumb_address(show, slide, style, numbers[slide.id]),
                "objects": [{"id": item.id, "name": item.name} for item in slide.objects],
                "comments": by_slide.get(slide.id, []),
            }
            for slide in show.slides
            if slide.id in seen
        ],
        # What was said of slides that are gone is not lost with them.
        "gone": [line for slide_id, lines in by_slide.items() if slide_id not in known for line in lines]
        if row.access.may("watch")
        else [],
    }


@login_required
@require_GET
def comments(request: HttpRequest, show_id: str) -> HttpResponse:
    """The show slide by slide, with its comments."""
    row = show_for(show_id, request, "comment")
    return render(
        request, "people/comments.html", {"show": row, "way": "comments", "start": msgspec.to_builtins(_state(row))}
    )


@login_required
@require_POST
@answer_errors
def say(request: HttpRequest, show_id: str) -> HttpResponse:
    """Adds a comment to a slide or an object, or answers one."""
    row = show_for(show_id, request, "comment")
    said = from_builtins(body_of(request), Said, "The comment")
    if not said.text.strip():
        raise BadValue("A comment needs words. Nothing was said.", "text")
    first = _comment(row, said.answers) if said.answers is not None else None
    slide_id, object_id = (first.slide_id, first.object_id) if first else (said.slide_id, said.object_id)
    show = value_of(row)
    slide = show.slide(slide_id)
    if first is None and (
        slide is None or slide_id not in seen_slides(row, show) or (object_id and slide.object(object_id) is None)
    ):
        raise BadValue(
            "The slide or object is no longer there. Nothing was said; your words are still in the field.", "slide_id"
        )
    Comment.objects.create(
        show=row,
        slide_id=slide_id,
        object_id=object_id,
        person=person_of(request),
        answers=first,
        text=said.text.strip(),
    )
    if first is not None and first.closed_at is not None:
        # Who answers a closed comment opens it again: else nobody would see the answer.
        Comment.objects.filter(pk=first.pk).update(closed_at=None, closed_by=None)
    return json_reply(_state(row))


def _comment(row: Show, number: int) -> Comment:
    entry = Comment.objects.filter(show=row, pk=number, answers=None).first()
    if entry is None or not (row.access.may("watch") or entry.slide_id in seen_slides(row, value_of(row))):
        raise Http404("There is no such comment.")
    return entry


@login_required
@require_POST
@answer_errors
def close(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Closes a comment; with {"open": true} opens it again."""
    row = show_for(show_id, request, "comment")
    entry = _comment(row, number)
    again = bool(body_of(request).get("open"))
    entry.closed_at, entry.closed_by = (None, None) if again else (timezone.now(), person_of(request))
    entry.save(update_fields=["closed_at", "closed_by"])
    return json_reply(_state(row))


@login_required
@require_GET
def state(request: HttpRequest, show_id: str) -> HttpResponse:
    """The present comments."""
    return json_reply(_state(show_for(show_id, request, "comment")))
