"""What the worker does for the house as a whole."""

import logging
import time
from pathlib import Path

from django.conf import settings

from ritornel.web.jobs.queue import small_jobs
from ritornel.web.operations.tidying import DAY_S, free_media, tidy

log = logging.getLogger(__name__)


def _last() -> Path:
    return Path(settings.VAR) / "tidied"


@small_jobs.task()  # type: ignore[untyped-decorator]
def free(hashes: list[str]) -> None:
    """Frees the media of a removed show."""
    free_media(hashes)


@small_jobs.task()  # type: ignore[untyped-decorator]
def tidy_house() -> None:
    """Tidies, and notes when."""
    _last().touch()
    for entry in tidy():
        if entry.count:
            log.info(entry.text())


def tidy_daily() -> None:
    """Has the house tidied where that was not done for a day; asked every few seconds by the worker."""
    try:
        due = time.time() - _last().stat().st_mtime > DAY_S
    except FileNotFoundError:
        due = True
    if due:
        _last().touch()
        tidy_house()
