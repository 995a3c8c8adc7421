"""The worker's tasks for the whole installation."""

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
    """Tidies, and notes the time."""
    _last().touch()
    for entry in tidy():
        if entry.count:
            log.info(entry.text())


def tidy_daily() -> None:
    """Queues tidying where the last one is more than a day ago; the worker calls it every few seconds."""
    try:
        due = time.time() - _last().stat().st_mtime > DAY_S
    except FileNotFoundError:
        due = True
    if due:
        _last().touch()
        tidy_house()
