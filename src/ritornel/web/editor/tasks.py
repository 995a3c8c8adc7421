"""The worker's measurements of a whole show: its loudness, and the contrast and flashes of its frames."""

from pathlib import Path

from ritornel.web.editor.frame_analysis import look
from ritornel.web.editor.loudness import measure
from ritornel.web.jobs.derived_files import ask_once, derived_path, take_up
from ritornel.web.jobs.queue import small_jobs
from ritornel.web.shows.services import Show, value_of


@small_jobs.task()  # type: ignore[untyped-decorator]
def hearing(show_id: str) -> None:
    """Measures the loudness of a show."""
    row = Show.objects.filter(pk=show_id).first()
    if row is not None:
        measure(value_of(row))


@small_jobs.task()  # type: ignore[untyped-decorator]
def looking(show_id: str) -> None:
    """Analyses the slides of a show; one worker at a time, since results are kept slide by slide."""
    row = Show.objects.filter(pk=show_id).first()
    if row is not None:
        with take_up(_looks_of(show_id)) as mine:
            if mine:
                look(value_of(row))


def _looks_of(show_id: str) -> Path:
    return derived_path("frames of shows", show_id)


def ask_for_looks(show_id: str) -> None:
    """Queues the analysis of a show's slides, once however often it is asked for."""
    ask_once(_looks_of(show_id), lambda: looking(show_id))
