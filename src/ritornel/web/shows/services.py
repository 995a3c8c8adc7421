"""What other apps may use of shows."""

from django.http import Http404, HttpRequest

from ritornel.core.document.show import Show as ShowValue
from ritornel.core.document.show import Slide
from ritornel.core.rehearsal.recording import recordable_sections
from ritornel.web.people.services import Act, access_of, person_of
from ritornel.web.shows.editing import Edited, GoneMeanwhile, bring_back, edit_show, redo, undo, would_be
from ritornel.web.shows.history import (
    history_labels,
    overruled_since,
    people_involved,
    state_of_revision,
    step_texts,
    steps_with_states,
)
from ritornel.web.shows.models import Reading, Show, new_id
from ritornel.web.shows.other_shelves import entries_elsewhere
from ritornel.web.shows.persistence import asset_of_row, create_rows, read_show, value_of
from ritornel.web.shows.removal import Removable, media_forgotten, removable_kinds
from ritornel.web.shows.removed_parts import removed_parts
from ritornel.web.shows.storage import fault_of, keep_media, keep_media_file, media_path
from ritornel.web.shows.thinning import thin_history, thinnable_shows

__all__ = [
    "Edited",
    "GoneMeanwhile",
    "Reading",
    "Removable",
    "Show",
    "asset_of_row",
    "bring_back",
    "create_rows",
    "edit_show",
    "entries_elsewhere",
    "fault_of",
    "history_labels",
    "keep_media",
    "keep_media_file",
    "media_forgotten",
    "media_path",
    "new_id",
    "now_and_then",
    "overruled_since",
    "owned_show",
    "people_involved",
    "read_show",
    "redo",
    "removable_kinds",
    "removed_parts",
    "seen_slides",
    "show_for",
    "slide_of",
    "state_of_revision",
    "step_texts",
    "steps_with_states",
    "thin_history",
    "thinnable_shows",
    "undo",
    "value_of",
    "would_be",
]


def now_and_then(row: Show, revision: int) -> tuple[ShowValue, ShowValue]:
    """The present show, and the show at a revision. Raises Http404 where the log does not reach back to it."""
    now = value_of(row)
    then = state_of_revision(row, now, revision)
    if then is None:
        raise Http404("The history does not reach back to this point.")
    return now, then


def slide_of(show: ShowValue, slide_id: str) -> Slide:
    """The slide of the show. Raises Http404 for an unknown one."""
    found = show.slide(slide_id)
    if found is None:
        raise Http404("There is no such slide.")
    return found


def show_for(show_id: str, request: HttpRequest, act: Act = "edit") -> Show:
    """The show, if the person may do this with it; `access` is the person's access to it.

    Raises Http404 for any other, so nobody learns which shows exist.
    """
    row = Show.objects.filter(pk=show_id).first()
    access = access_of(show_id, row.owner_id, person_of(request)) if row is not None else None
    if row is None or access is None or not access.may(act):
        raise Http404("There is no such show.")
    row.access, row.asked_by = access, person_of(request)
    return row


def owned_show(show_id: str, request: HttpRequest) -> Show:
    """The show, if it is the asking person's own. Raises Http404 for any other."""
    return show_for(show_id, request, "own")


def seen_slides(row: Show, show: ShowValue) -> frozenset[str]:
    """The slides that the person may see: all, or those of the one section that they record."""
    if row.access.may("watch") or row.access.may("edit"):
        return frozenset(slide.id for slide in show.slides)
    section = next((section for section in recordable_sections(show) if row.access.section in section.slide_ids), None)
    return frozenset(section.slide_ids) if section else frozenset()
