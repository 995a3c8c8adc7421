"""What a fix would do, shown before it is made."""

from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.views.decorators.http import require_GET

from ritornel.core.checks.fix_outcome import preview_fix
from ritornel.core.document.show import Show as ShowValue
from ritornel.core.errors import BadMedia, BadValue
from ritornel.core.render.stills import last_picture
from ritornel.core.schedule.performance import perform
from ritornel.web.config.file_names import data_url
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.releases.findings import findings_of
from ritornel.web.shows.services import media_path, owned_show, value_of

PICTURE_PX = 280


@login_required
@require_GET
@answer_errors
def fix_preview(request: HttpRequest, show_id: str) -> HttpResponse:
    """{"words": how the show's times change, "picture": the slide, where it would look different}. Nothing
    is changed.
    """
    show = value_of(owned_show(show_id, request))
    wanted = request.GET.get("finding", "")
    finding = next(
        (entry for entry in findings_of(show)[0] if entry.id == wanted),
        None,
    )
    if finding is None:
        raise BadValue("That finding is no longer there.", "finding")
    would = preview_fix(show, finding)
    return json_reply(
        {
            "words": would.words,
            "picture": _picture(show, would.show, finding.slide_id),
            "before_ms": would.before_ms,
            "after_ms": would.after_ms,
        }
    )


def _picture(before: ShowValue, after: ShowValue, slide_id: str | None) -> str | None:
    old, new = perform(before), perform(after)
    places = [
        next((index for index, staged in enumerate(entry.slides) if staged.slide.id == slide_id), None)
        for entry in (old, new)
    ]
    if places[0] is None or places[1] is None or old.slides[places[0]].drawing == new.slides[places[1]].drawing:
        return None
    try:
        return data_url("image/webp", last_picture(new, places[1], PICTURE_PX, media_path))
    except BadMedia:
        return None
