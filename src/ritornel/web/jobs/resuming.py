"""Jobs that lost their worker, or their place in the queue, continue by themselves."""

import contextlib
import threading
from collections.abc import Callable, Iterable
from typing import Any

from django.db import DatabaseError, connection
from huey import Huey

from ritornel.web.jobs.job import Job

MOST_RESUMED = 2
"""So often a job that lost its worker is taken up again by itself: what stops every worker would go on doing so."""
LOOK_EVERY_S = 2.0


def resume_lost(
    kind: type[Job], enqueue: Callable[[str], object], words: str, clear: Callable[[Any], None] = lambda job: None
) -> None:
    """Queues jobs again whose holder is gone.

    A job that lost three workers becomes interrupted, with these words. `clear` removes what a holder left.
    """
    running: Iterable[Any] = kind._default_manager.filter(state=kind.State.RUNNING)
    for job in running:
        if not job.lost:
            continue
        # Only from the holder that was seen: somebody else may have taken it up meanwhile.
        mine = kind._default_manager.filter(
            pk=job.pk, state=kind.State.RUNNING, holder=job.holder, leased_until_s=job.leased_until_s
        )
        free = {"holder": "", "boot": "", "leased_until_s": 0.0}
        if job.resumed >= MOST_RESUMED:
            mine.update(state=kind.State.INTERRUPTED, message=words, **free)
        elif mine.update(state=kind.State.WAITING, resumed=job.resumed + 1, **free):
            clear(job)
            enqueue(job.pk)


def requeue_waiting(kind: type[Job], queue: Huey, task: Any) -> None:
    """Queues waiting jobs again that are in no queue: the queue was lost, or the server was killed before it queued
    them.
    """
    waiting = set(kind._default_manager.filter(state=kind.State.WAITING).values_list("pk", flat=True))
    queued = (
        {entry.args[0] for entry in queue.pending() if entry.name == task.task_class.__name__ and entry.args}
        if waiting
        else set()
    )
    for job_id in waiting - queued:
        task(job_id)


def look_always(looks: Callable[[], None], over: threading.Event) -> None:
    """Looks for such jobs regularly, in a thread of its own."""
    while True:
        # A database that is busy, or full, for once must not end this; the next look finds the same.
        with contextlib.suppress(DatabaseError, OSError):
            looks()
        if over.wait(LOOK_EVERY_S):
            connection.close()
            return
