"""The worker's tasks for recordings."""

import logging

from ritornel.core.document.decoding import from_json
from ritornel.core.errors import RitornelError
from ritornel.core.rehearsal.recording import leaving_cues, pieces_of
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.web.jobs.queue import small_jobs
from ritornel.web.shows.services import value_of
from ritornel.web.takes.models import Recording
from ritornel.web.takes.recording_files import cut

log = logging.getLogger(__name__)


@small_jobs.task()  # type: ignore[untyped-decorator]
def cut_piece(recording_id: str, number: int) -> None:
    """Cuts a piece of a recording in advance, so that keeping it takes no time."""
    recording = Recording.everywhere.select_related("show").filter(pk=recording_id).first()
    if recording is None:
        return
    show = value_of(recording.show)
    pieces = pieces_of(from_json(bytes(recording.body), TakeValue, "The recording"), leaving_cues(show))
    slide = show.slide(pieces[number].slide_id) if number < len(pieces) else None
    if slide is None:
        return
    try:
        cut(recording, pieces[number], slide.name or "Slide")
    except RitornelError as error:
        log.warning("Piece %s of recording %s was not cut: %s", number, recording_id, error)
