"""The Release page: editions, who may see them, and films."""

import re
from typing import Any

import msgspec
from django.contrib.auth.decorators import login_required
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from ritornel.core.checks import Finding
from ritornel.core.document.decoding import to_builtins, to_json
from ritornel.core.errors import BadValue
from ritornel.core.formats.exports import exports_of
from ritornel.core.render.encoding import FilmOrder
from ritornel.core.render.film import check_order
from ritornel.web.config.bounded_input import rate_of
from ritornel.web.config.byte_ranges import file_reply
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.editor.services import ask_for_looks, style_stamp, thumb_address
from ritornel.web.people.services import mail_goes_out, person_of
from ritornel.web.releases.filming import State, film_path
from ritornel.web.releases.findings import findings_of
from ritornel.web.releases.guests import guest_lines
from ritornel.web.releases.handing_in import handed_lines, recipient_names, section_owners
from ritornel.web.releases.models import Edition, FilmJob, Release
from ritornel.web.releases.tasks import film
from ritornel.web.shows.services import fault_of, owned_show, value_of
from ritornel.web.takes.services import takes_of, timed_by


def _film_line(job: FilmJob) -> dict[str, Any]:
    address = [job.show_id, job.id]
    return {
        "id": job.id,
        "name": job.title,
        "state": job.seen_state,
        "resumes": job.resumes,
        "kind": job.kind,
        "style": job.style,
        "timing": job.timing,
        "size": f"{job.width_px} × {job.height_px}",
        "rate": job.rate,
        "done": job.done,
        "total": job.total,
        "slide": job.slide,
        "left_s": job.left_s,
        "message": job.seen_message,
        "size_bytes": job.size_bytes,
        "cancel_wanted": job.cancel_wanted,
        "file": reverse("film-file", args=address),
    }


def _edition_line(edition: Edition) -> dict[str, Any]:
    return {
        "number": edition.number,
        "at": edition.at,
        "length_ms": edition.length_ms,
        "slides": edition.slide_count,
        "opened": edition.opened,
    }


def state_of(request: HttpRequest, show_id: str) -> dict[str, Any]:
    """What the Release page shows."""
    row = owned_show(show_id, request)
    show = value_of(row)
    release = Release.objects.filter(show=row).first()
    editions = list(release.editions.defer("document")) if release else []
    return {
        "show_id": row.id,
        "title": row.title,
        "revision": row.revision,
        "address": request.build_absolute_uri(reverse("watch", args=[release.address])) if release else None,
        "withdrawn": release.withdrawn if release else False,
        "starts_itself": release.starts_itself if release else True,
        "starts_silent": release.starts_silent if release else False,
        "loops": release.loops if release else row.end == "loop",
        "frame": to_builtins(show.frame),
        "audience": release.audience if release else "",
        "domain": release.domain if release else "",
        "guests": guest_lines(request, release),
        "mail": mail_goes_out(),
        "editions": [_edition_line(edition) for edition in editions],
        "exports": [
            {"address": export.address, "words": export.words, "about": export.about} for export in exports_of(show)
        ],
        "takes": takes_of(row),
        "films": [_film_line(job) for job in row.films.defer("document")],
        "handed": handed_lines(row),
        "people": recipient_names(row, show),
        "section_owners": section_owners(row, show),
    }


@login_required
@require_GET
def release(request: HttpRequest, show_id: str) -> HttpResponse:
    """The page."""
    row = owned_show(show_id, request)
    return render(
        request,
        "releases/release.html",
        {"show": row, "way": "release", "start": msgspec.to_builtins(state_of(request, show_id))},
    )


@login_required
@require_GET
@answer_errors
def checks(request: HttpRequest, show_id: str) -> HttpResponse:
    """The readiness check: each finding with its place, its reason and its fix; findings that are set aside have the
    reason for that.
    """
    row = owned_show(show_id, request)
    show = value_of(row)
    style, numbers = style_stamp(show), show.numbers
    slides = {slide.id: slide for slide in show.slides}
    aside = dict(row.set_aside.values_list("finding", "reason"))
    faults = {asset.id: fault for asset in show.assets if (fault := fault_of(asset)) is not None}

    def line(finding: Finding) -> dict[str, Any]:
        slide = slides.get(finding.slide_id or "")
        thumb = thumb_address(show, slide, style, numbers[slide.id]) if slide else None
        asset = show.asset(finding.asset_id) if finding.asset_id else None
        return {
            **to_builtins(finding),
            "thumb": thumb,
            "aside": aside.get(finding.id),
            "asset_name": asset.name if asset else None,
        }

    findings, left = findings_of(show, faults)
    if left and request.GET.get("ask"):
        ask_for_looks(row.pk)
    return json_reply({"revision": row.revision, "findings": [line(finding) for finding in findings], "looking": left})


@login_required
@require_POST
@answer_errors
def set_aside(request: HttpRequest, show_id: str) -> HttpResponse:
    """Sets a finding aside: {"finding": id, "reason": words}; without a reason it comes back."""
    row = owned_show(show_id, request)
    body = body_of(request)
    finding = str(body.get("finding", ""))[:200]
    if "reason" not in body:
        row.set_aside.filter(finding=finding).delete()
        return json_reply({"aside": None})
    reason = str(body["reason"]).strip()
    if not reason:
        raise BadValue("Say in a few words why it may stay as it is. Nothing was set aside.", "reason")
    if len(reason) > 300:
        raise BadValue(f"The reason has {len(reason)} characters; at most 300 can be kept.", "reason")
    show = value_of(row)
    if finding not in {entry.id for entry in findings_of(show)[0]} and not finding.startswith("missing:"):
        raise BadValue("That finding is no longer there.", "finding")
    row.set_aside.update_or_create(finding=finding, defaults={"reason": reason, "person": person_of(request)})
    return json_reply({"aside": reason})


@login_required
@require_POST
@answer_errors
def change_settings(request: HttpRequest, show_id: str) -> HttpResponse:
    """Withdraws or reopens a release, and sets how a visit begins and ends, and who may see it: any of withdrawn,
    starts_itself, starts_silent, loops; audience, domain.
    """
    row = owned_show(show_id, request)
    body = body_of(request)
    body |= audience_in(body)
    known = {"withdrawn", "starts_itself", "starts_silent", "loops"}
    if set(body) - known - {"audience", "domain"} or not all(
        isinstance(value, bool) for name, value in body.items() if name in known
    ):
        raise BadValue(f"A release can be set: {', '.join(sorted(known))}; each is on or off.")
    if not Release.objects.filter(show=row).update(**body):
        raise BadValue("There is no edition yet. Make one first.")
    return json_reply(state_of(request, show_id))


def audience_in(body: dict[str, Any]) -> dict[str, Any]:
    """Who may see a release, checked. Raises BadValue for an unknown audience, or an invalid mail domain."""
    if "audience" not in body:
        return {}
    audience, domain = body["audience"], str(body.get("domain", "")).strip().lower().removeprefix("@")
    if audience not in Release.AUDIENCES:
        raise BadValue(f"A release is for {', '.join(Release.AUDIENCES)}, not “{audience}”.", "audience")
    if audience == "domain" and not re.fullmatch(r"[a-z0-9-]+(\.[a-z0-9-]+)+", domain):
        raise BadValue(f"“{domain}” is no mail domain; one is orlmere.town, say. Nothing was changed.", "domain")
    return {"audience": audience, "domain": domain[:120] if audience == "domain" else ""}


@login_required
@require_http_methods(["GET", "POST"])
@answer_errors
def films(request: HttpRequest, show_id: str) -> HttpResponse:
    """GET: the state of the films.

    POST: orders one: its name, kind, width_px, height_px, rate, constant_rate, and the number of the take that times
    it.
    """
    row = owned_show(show_id, request)
    if request.method == "POST":
        body = body_of(request)
        kind = str(body.get("kind", "mp4"))
        if kind not in FilmJob.KINDS:
            raise BadValue(f"A film or its like is {', '.join(FilmJob.KINDS)}, not “{kind}”.", "kind")
        style = str(body.get("style", "slides"))
        if style not in FilmJob.STYLES:
            raise BadValue(f"Pages have {', '.join(FilmJob.STYLES)}, not “{style}”.", "style")
        rate, width, height = rate_of(body.get("rate", "30")), body.get("width_px", 1280), body.get("height_px", 720)
        if not all(isinstance(side, int) and not isinstance(side, bool) for side in (width, height)):
            raise BadValue("The film's size and rate must be numbers.", "width_px")
        check_order(FilmOrder(width, height, rate))
        take = body.get("take")
        if take is not None and not (isinstance(take, int) and 0 < take < 10**9):
            raise BadValue("A take is named by its number.", "take")
        show, timing = timed_by(row, take) if take is not None else (value_of(row), "")
        job = FilmJob.objects.create(
            show=row,
            person=person_of(request),
            document=to_json(show),
            kind=kind,
            width_px=width,
            height_px=height,
            rate=str(rate),
            constant_rate=bool(body.get("constant_rate", False)),
            style=style,
            name=" ".join(str(body.get("name", "")).split())[:120],
            timing=timing,
        )
        film(job.id)
    return json_reply(state_of(request, show_id))


def _job(request: HttpRequest, show_id: str, job_id: str) -> FilmJob:
    job = FilmJob.objects.filter(pk=job_id, show=owned_show(show_id, request)).first()
    if job is None:
        raise Http404("There is no such film.")
    return job


@login_required
@require_POST
def cancel_film(request: HttpRequest, show_id: str, job_id: str) -> HttpResponse:
    """Cancels a film that waits or is being made; the worker notices within a quarter of a second."""
    job = _job(request, show_id, job_id)
    FilmJob.objects.filter(pk=job.pk).update(cancel_wanted=True)
    FilmJob.objects.filter(pk=job.pk, state=State.WAITING).update(state=State.CANCELLED)
    return json_reply(state_of(request, show_id))


@login_required
@require_POST
def film_again(request: HttpRequest, show_id: str, job_id: str) -> HttpResponse:
    """Restarts a film that failed, was cancelled or interrupted."""
    job = _job(request, show_id, job_id)
    stopped = [State.FAILED, State.CANCELLED, State.INTERRUPTED]
    mine = FilmJob.objects.filter(pk=job.pk)
    mine = mine.filter(state=State.RUNNING, holder=job.holder) if job.lost else mine.filter(state__in=stopped)
    if mine.update(state=State.WAITING, cancel_wanted=False, resumed=0, message="", holder=""):
        film(job.pk)
    return json_reply(state_of(request, show_id))


@login_required
@require_POST
def remove_film(request: HttpRequest, show_id: str, job_id: str) -> HttpResponse:
    """Puts a film that is not being made into the bin; one without a file is removed at once."""
    job = _job(request, show_id, job_id)
    kept = job.seen_state == State.READY
    if kept:
        job.put_into_bin(person_of(request))
    elif job.seen_state not in (State.RUNNING, State.WAITING):
        job.delete()
    return json_reply({**state_of(request, show_id), "in_bin": job.pk if kept else ""})


@login_required
@require_GET
def film_file(request: HttpRequest, show_id: str, job_id: str) -> HttpResponseBase:
    """The film as a download, under a name that says what it is."""
    job = _job(request, show_id, job_id)
    if job.state != State.READY:
        raise Http404("This film is not ready.")
    response = file_reply(request, film_path(job), FilmJob.KINDS[job.kind])
    response.headers["Content-Disposition"] = f'attachment; filename="{job.saved_name}"'
    return response
