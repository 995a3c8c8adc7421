"""Shows as OpenDocument presentations: the losses are shown before anything is made."""

from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.views.decorators.http import require_GET

from ritornel.core.formats.opendocument.names import MEDIA_TYPE
from ritornel.core.formats.opendocument.writing import opendocument_losses, write_opendocument
from ritornel.web.config.downloads import saved_reply
from ritornel.web.config.file_names import file_title
from ritornel.web.config.replies import answer_errors, json_reply
from ritornel.web.exchange.plans import loss_lines
from ritornel.web.shows.services import media_path, show_for, value_of


@login_required
@require_GET
@answer_errors
def losses_out(request: HttpRequest, show_id: str) -> HttpResponse:
    """The losses of saving the show as a presentation: {"losses": [{"slide", "words"}]}."""
    return json_reply({"losses": loss_lines(opendocument_losses(value_of(show_for(show_id, request))))})


@login_required
@require_GET
@answer_errors
def presentation_out(request: HttpRequest, show_id: str) -> HttpResponseBase:
    """The show as a presentation."""
    show = value_of(show_for(show_id, request))
    return saved_reply(
        lambda out: write_opendocument(show, out, media_path), f"{file_title(show.title)}.odp", MEDIA_TYPE
    )
