"""The Record page, and the use of recordings: pieces are selected slide by slide, played, and kept as voices and
timing.
"""

from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.document.camera import Placement
from ritornel.core.document.decoding import from_builtins
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.objects import Id
from ritornel.core.document.sections import Section, people_of_section
from ritornel.core.document.show import Asset
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadValue
from ritornel.core.rehearsal.recording import as_recorded
from ritornel.core.rehearsal.selected_takes import RECORDED, Picked, find_clear_places, keep_edit
from ritornel.core.schedule.audience import audience_show
from ritornel.core.schedule.performance import perform
from ritornel.web.config.bounded_input import json_object, whole_number
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.library.services import begin_work, browser_address
from ritornel.web.people.services import assigned_to, person_of
from ritornel.web.shows.services import Show, edit_show, history_labels, media_path, seen_slides, show_for, value_of
from ritornel.web.takes.models import Pick
from ritornel.web.takes.recording import own_section, recording_of
from ritornel.web.takes.recording_files import cut, sound_id
from ritornel.web.takes.sections import Desk, desk_of, section_detail, section_lines


def _assigned(row: Show, desk: Desk) -> dict[str, str]:
    """Who records each section, by its first slide: the person invited to it, and those its slides are given to. Its
    first slide may have changed since the invitation.
    """
    invited = assigned_to(row.id)
    found = {section.slide_ids[0]: people_of_section(section, desk.show, invited) for section in desk.sections}
    return {first: ", ".join(names) for first, names in found.items() if names}


def _state(row: Show, wanted: str | None) -> dict[str, Any]:
    show = value_of(row)
    desk = desk_of(row, show)
    seen = seen_slides(row, show)
    desk = msgspec.structs.replace(
        desk, seen=tuple(section for section in desk.sections if set(section.slide_ids) <= seen)
    )
    section = next(
        (section for section in desk.seen if wanted in section.slide_ids), desk.seen[0] if desk.seen else None
    )
    return {
        "revision": row.revision,
        "history": history_labels(row) if row.access.may("edit") else {"undo": None, "redo": None},
        "may_edit": row.access.may("edit"),
        "may_invite": row.access.may("own"),
        "sections": section_lines(desk, _assigned(row, desk)),
        "section": section_detail(desk, section) if section else None,
    }


@login_required
@require_GET
def record(request: HttpRequest, show_id: str) -> HttpResponse:
    """The page to record a section on; `?section=` names any of its slides."""
    row = show_for(show_id, request, "record")
    start = {"show_id": row.id, "frame": row.frame, **_state(row, request.GET.get("section"))}
    return render(request, "takes/record.html", {"show": row, "way": "record", "start": msgspec.to_builtins(start)})


@login_required
@require_GET
@answer_errors
def state(request: HttpRequest, show_id: str) -> HttpResponse:
    """The page's present data."""
    return json_reply(_state(show_for(show_id, request, "record"), request.GET.get("section")))


def _section(request: HttpRequest, row: Show, show: ShowValue) -> Section:
    """The requested section, if the person may see it. Raises UnknownName for any other."""
    return own_section(row, show, request.GET.get("section", ""))


@login_required
@require_GET
@answer_errors
def section_show(request: HttpRequest, show_id: str) -> HttpResponse:
    """The performance of the section while it is recorded."""
    row = show_for(show_id, request, "record")
    show = value_of(row)
    staged = perform(as_recorded(show, _section(request, row, show)))
    return json_reply(
        audience_show(staged, staged.media(lambda asset, rate_pct: browser_address(show_id, asset, rate_pct)))
    )


@login_required
@require_GET
@answer_errors
def camera_places(request: HttpRequest, show_id: str) -> HttpResponse:
    """For each slide of the section where the camera's picture steps aside for text, its box in px."""
    row = show_for(show_id, request, "record")
    show = value_of(row)
    placement = from_builtins(json_object(request.GET.get("placement", "{}"), "The camera"), Placement, "The camera")
    return json_reply({"boxes": find_clear_places(show, placement, _section(request, row, show).slide_ids)})


def _picked(desk: Desk, slide_ids: tuple[str, ...]) -> dict[str, Picked]:
    """The selected pieces of these slides, cut now where they were not yet."""
    names = {slide.id: slide.name or "Slide" for slide in desk.show.slides}
    return {
        slide: cut(entry.row, piece, names[slide])
        for slide, (entry, piece) in desk.picks.items()
        if slide in slide_ids and piece.lasts_ms
    }


def _lone(request: HttpRequest, row: Show, desk: Desk) -> dict[str, Picked]:
    """The one requested piece.

    Raises Http404 where there is none, or the person may not see its slide.
    """
    recording = recording_of(row.pk, request.GET["take"], request)
    number = whole_number(request.GET.get("piece", ""), most=10_000)
    pieces = next((entry.pieces for entry in desk.recordings if entry.row.pk == recording.pk), ())
    piece = next((one for one in pieces if one.number == number and one.lasts_ms), None)
    slide = desk.show.slide(piece.slide_id) if piece else None
    if piece is None or slide is None or slide.id not in seen_slides(row, desk.show):
        raise Http404("There is no such recording.")
    return {slide.id: cut(recording, piece, slide.name or "Slide")}


@login_required
@require_GET
@answer_errors
def as_picked(request: HttpRequest, show_id: str) -> HttpResponse:
    """The section, or with `?section=all` the whole show, as it would be with the selected pieces; with `?take=` and
    `&piece=` that piece's slide with the piece.
    """
    row = show_for(show_id, request, "record")
    show = value_of(row)
    desk = desk_of(row, show)
    whole = request.GET.get("section") == "all" and row.access.may("watch")
    if "take" in request.GET:
        picks = _lone(request, row, desk)
        slide_ids = tuple(picks)
    else:
        slide_ids = tuple(slide.id for slide in show.slides) if whole else _section(request, row, show).slide_ids
        picks = _picked(desk, slide_ids)
    kept = apply_edit(show, keep_edit(show, picks, "what is picked")).show
    if not whole:
        kept = msgspec.structs.replace(
            kept, slides=tuple(slide for slide in kept.slides if slide.id in slide_ids), end="hold"
        )

    def address(asset: Asset, rate_pct: int) -> str:
        return (
            reverse("recorded-media", args=[show_id, asset.id])
            if asset.id.startswith(RECORDED)
            else browser_address(show_id, asset, rate_pct)
        )

    staged = perform(kept)
    return json_reply(audience_show(staged, staged.media(address)))


@login_required
@require_GET
def recorded_media(request: HttpRequest, show_id: str, asset_id: str) -> HttpResponseBase:
    """The sound or picture of a piece that was recorded for the show."""
    row = show_for(show_id, request, "record")
    show = value_of(row)
    asset = show.asset(asset_id) if row.access.may("watch") else None
    if asset is None:
        desk = desk_of(row, show)
        names = {slide.id: slide.name or "Slide" for slide in show.slides}
        seen = seen_slides(row, show)
        all_ = (
            (entry.row, piece)
            for entry in desk.recordings
            for piece in entry.pieces
            if piece.lasts_ms and piece.slide_id in seen
        )
        named = (
            (recording, piece)
            for recording, piece in all_
            if asset_id.removesuffix("-c") == sound_id(recording.id, piece)
        )
        cuts = [cut(recording, piece, names.get(piece.slide_id, "Slide")) for recording, piece in named]
        asset = next(
            (found for one in cuts for found in (one.sound, one.picture) if found is not None and found.id == asset_id),
            None,
        )
    if asset is None:
        raise Http404("There is no such recording.")
    return file_reply(request, media_path(asset.sha256), asset.media_type)


class Choice(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A selected piece for a slide; a recording of None clears the selection."""

    slide_id: Id
    recording: str | None
    piece: int = 0


@login_required
@require_POST
@answer_errors
def pick(request: HttpRequest, show_id: str) -> HttpResponse:
    """Selects a piece for its slide instead of the earlier one, which is answered as `before`, so that the page can
    undo it.
    """
    row = show_for(show_id, request, "record")
    choice = from_builtins(body_of(request), Choice, "The choice")
    if choice.slide_id not in seen_slides(row, value_of(row)):
        raise Http404("There is no such slide.")
    with transaction.atomic():
        old = Pick.objects.filter(show=row, slide_id=choice.slide_id).first()
        before = Choice(choice.slide_id, old.recording_id if old else None, old.piece if old else 0)
        if choice.recording is None:
            Pick.objects.filter(show=row, slide_id=choice.slide_id).delete()
        else:
            recording = recording_of(show_id, choice.recording, request)
            pieces = next(
                entry.pieces for entry in desk_of(row, value_of(row)).recordings if entry.row.pk == recording.pk
            )
            if choice.piece >= len(pieces) or pieces[choice.piece].slide_id != choice.slide_id:
                raise BadValue("This take has no such piece for this slide. Nothing was changed.", "piece")
            Pick.objects.update_or_create(
                show=row, slide_id=choice.slide_id, defaults={"recording": recording, "piece": choice.piece}
            )
    return json_reply({"before": before})


@login_required
@require_POST
@answer_errors
def keep(request: HttpRequest, show_id: str) -> HttpResponse:
    """Makes the selected pieces of a section its voices and timing, as one edit."""
    row = show_for(show_id, request, "record")
    show = value_of(row)
    section = _section(request, row, show)
    desk = desk_of(row, show)
    picks = _picked(desk, section.slide_ids)
    recorded = [asset for one in picks.values() for asset in (one.sound, one.picture) if asset is not None]
    edit = keep_edit(show, picks, f"what was recorded of {section.name or 'the show'}")
    edited = edit_show(show_id, person_of(request), edit, act="record", stored=recorded)
    for asset in recorded:
        begin_work(asset)
    left = len(section.slide_ids) - len(picks)
    notices = list(edited.notices)
    if left:
        notices.append(
            "1 slide has nothing recorded and stays as it is."
            if left == 1
            else f"{left} slides have nothing recorded and stay as they are."
        )
    return json_reply(
        {
            "label": edited.label,
            "notices": notices,
            **_state(show_for(show_id, request, "record"), section.slide_ids[0]),
        }
    )
