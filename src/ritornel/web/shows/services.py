"""What other apps may ask of shows."""

from django.http import Http404, HttpRequest

from ritornel.core.document.show import Show as ShowValue
from ritornel.core.document.show import Slide
from ritornel.web.people.services import person_of
from ritornel.web.shows.addresses import browser_address
from ritornel.web.shows.derived import light_path, tempo_path
from ritornel.web.shows.editing import Edited, edit_show, history_labels, redo, undo
from ritornel.web.shows.models import Show, new_id
from ritornel.web.shows.rows import create_rows, value_of
from ritornel.web.shows.storage import keep_media, media_path

__all__ = [
    "Edited",
    "Show",
    "browser_address",
    "create_rows",
    "edit_show",
    "history_labels",
    "keep_media",
    "light_path",
    "media_path",
    "new_id",
    "owned_show",
    "redo",
    "slide_of",
    "tempo_path",
    "undo",
    "value_of",
]


def slide_of(show: ShowValue, slide_id: str) -> Slide:
    """The slide of the show. Raises Http404 for one that is not there."""
    found = show.slide(slide_id)
    if found is None:
        raise Http404("There is no such slide.")
    return found


def owned_show(show_id: str, request: HttpRequest) -> Show:
    """The show, if it is the asking person's own. Raises Http404 for any other, so nobody learns which shows exist."""
    try:
        return Show.objects.get(pk=show_id, owner=person_of(request))
    except Show.DoesNotExist as error:
        raise Http404("There is no such show.") from error
