"""Making editions, and what their maker can do with them."""

from django.contrib.auth.decorators import login_required
from django.db import transaction
from django.db.models import Max
from django.http import Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.views.decorators.http import require_GET, require_POST

from ritornel.core.checks import Finding
from ritornel.core.document.decoding import from_json, to_json
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia, BadValue
from ritornel.core.render.stills import first_picture
from ritornel.core.schedule.performance import perform
from ritornel.web.config.replies import answer_errors, body_of, json_reply
from ritornel.web.library.services import light_path
from ritornel.web.people.services import person_of
from ritornel.web.releases.browser_media import missing_copy, used_media
from ritornel.web.releases.findings import findings_of
from ritornel.web.releases.folders import lay_out_edition, put_in_place
from ritornel.web.releases.models import Edition, Release
from ritornel.web.releases.offline import folder_of
from ritornel.web.releases.views import audience_in, state_of
from ritornel.web.shows.services import Show, media_path, owned_show, value_of

FIRST_PX = 640
"""How wide the picture is that a visitor gets with the page itself."""


def _stoppers(row: Show, show: ShowValue) -> list[Finding]:
    """The findings that would stop the show and are not set aside."""
    aside = set(row.set_aside.values_list("finding", flat=True))
    return [finding for finding in findings_of(show)[0] if finding.severity == "stops" and finding.id not in aside]


@login_required
@require_POST
@answer_errors
def make_edition(request: HttpRequest, show_id: str) -> HttpResponse:
    """Makes the present show the newest edition.

    It is refused while a medium is missing; findings that would stop the show are named and asked about once:
    {"anyway": [ids of findings]} confirms them. The first edition needs an audience: {"audience": "anyone" | "invited"
    | "domain", "domain": mail domain}; so nothing becomes public by accident.
    """
    row = owned_show(show_id, request)
    body = body_of(request, optional=True)
    audience = audience_in(body)
    if not audience and not Release.objects.filter(show=row).exists():
        raise BadValue(
            f"Say first who may see “{row.title}”: anyone with its address, invited people, or everybody at a mail "
            "domain. Nothing was released.",
            "audience",
        )
    show = value_of(row)
    if not show.shown:
        raise BadValue(f"“{show.title}” has no slides to release.")
    staged = perform(show)
    for asset, _ in used_media(staged).values():
        if not media_path(asset.sha256).is_file():
            raise BadMedia(
                f"“{asset.name}” is missing from the shelf, so strangers would see a gap. Replace or remove it first."
            )
        if asset.heavy and not light_path(asset.sha256).is_file():
            raise missing_copy(asset)
    known = body.get("anyway", [])
    left = [finding for finding in _stoppers(row, show) if not isinstance(known, list) or finding.id not in known]
    if left:
        return json_reply(
            {
                "stoppers": [
                    {"id": finding.id, "title": finding.title, "why": finding.why, "number": finding.number}
                    for finding in left
                ]
            }
        )
    first = first_picture(staged, FIRST_PX, media_path)
    old = Release.objects.filter(show=row).first()
    how = (
        {"starts_itself": old.starts_itself, "loops": old.loops}
        if old
        else {"starts_itself": True, "loops": row.end == "loop"}
    )
    # Two people who release at the same moment get an edition each: the second waits in the transaction for the first.
    with lay_out_edition(staged, first, how) as folder, transaction.atomic():
        place, _ = Release.objects.get_or_create(show=row, defaults={"loops": row.end == "loop", **audience})
        number = (Edition.everywhere.filter(release=place).aggregate(last=Max("number"))["last"] or 0) + 1
        place.editions.create(
            number=number,
            title=show.title,
            document=to_json(show),
            length_ms=staged.schedule.length_ms,
            slide_count=len(staged.slides),
        )
        Release.objects.filter(pk=place.pk).update(withdrawn=False)
        row.points.create(person=person_of(request), revision=row.revision, name=f"Edition {number}")
        # Last of all, and before others see the edition: whoever is told of it finds its files.
        put_in_place(folder, place.address, number)
    return json_reply(state_of(request, show_id))


@login_required
@require_POST
@answer_errors
def remove_edition(request: HttpRequest, show_id: str, number: int) -> HttpResponse:
    """Puts an earlier edition into the bin. The newest is what the address shows; to remove it, withdraw
    the release.
    """
    edition = _edition_of(owned_show(show_id, request), number)
    if edition == edition.release.newest:
        raise BadValue(
            f"Edition {number} is the newest: its address shows it. Withdraw the release, or make another edition "
            "first. Nothing was removed.",
            "number",
        )
    edition.put_into_bin(person_of(request))
    return json_reply({**state_of(request, show_id), "in_bin": edition.pk})


def _edition_of(row: Show, number: int) -> Edition:
    """An edition of the show. Raises Http404."""
    edition = Edition.objects.filter(release__show=row, number=number).select_related("release").first()
    if edition is None:
        raise Http404("There is no such edition.")
    return edition


@login_required
@require_GET
@answer_errors
def edition_folder(request: HttpRequest, show_id: str, number: int) -> HttpResponseBase:
    """An edition as static files, in a zip file: any web server, and any disk, can serve them."""
    row = owned_show(show_id, request)
    edition = _edition_of(row, number)
    return folder_of(row, from_json(bytes(edition.document), ShowValue, "The edition"), f"-edition-{number}")
