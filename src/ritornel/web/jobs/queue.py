"""The queues between server and worker."""

import logging
import sqlite3
from typing import Any

from django.conf import settings
from huey import SqliteHuey

log = logging.getLogger(__name__)


class Queue(SqliteHuey):
    """A queue in a file of its own, so that it never locks the rows that pages read.

    A task that cannot be queued because the disk is full is queued later: its row says that it waits
    (jobs/resuming.py), or it is requested again (jobs/derived_files.py).
    """

    def __init__(self, name: str, file_name: str, fsync: bool) -> None:
        super().__init__(name, filename=str(settings.VAR / file_name), fsync=fsync)

    def enqueue(self, task: Any) -> Any:
        """Queues a task."""
        try:
            return super().enqueue(task)
        except sqlite3.Error as error:
            log.warning("%s could not be queued: %s", task.name, error)
            return None


small_jobs = Queue("ritornel-shelf", "shelf.sqlite3", fsync=False)
"""Short work that somebody waits for. It has its own queue, so that a thumbnail never waits behind a film."""
