"""Holding a job during the work: a thread renews the lease, and the work learns when it is cancelled or has lost the
job.
"""

import contextlib
import threading
import time
from collections.abc import Callable
from typing import Any

from django.db import DatabaseError, connection

from ritornel.core.errors import Cancelled, RitornelError
from ritornel.web.jobs.job import Job
from ritornel.web.jobs.leases import RENEW_S

TELL_EVERY_S = 0.25


class LeaseLost(RitornelError):
    """Another process has this job now."""


class Holder:
    """The holder of a job, from claiming it to its end. As a context manager it renews the lease."""

    def __init__(self, kind: type[Job], job_id: str, token: str, on_lost: Callable[[], None] = lambda: None) -> None:
        """`on_lost` is called, in the thread that renews, when the lease is lost."""
        self._kind, self._job_id, self._token, self._on_lost = kind, job_id, token, on_lost
        self._over, self._lost = threading.Event(), threading.Event()
        self._told_s = 0.0
        self._thread = threading.Thread(target=self._renew_always, daemon=True, name="lease")

    def __enter__(self) -> "Holder":
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._over.set()
        self._thread.join()

    def _renew_always(self) -> None:
        """Renews also while sound is decoded or a file is closed, when no progress is reported."""
        while not self._over.wait(RENEW_S):
            # A database that is busy for once must not silence the job for good; the next second says it.
            with contextlib.suppress(DatabaseError):
                if not self._kind.renew(self._job_id, self._token):
                    self._lost.set()
                    self._on_lost()
                    break
        connection.close()

    def report(self, done: int, total: int, **more: Any) -> None:
        """Notes the progress, four times a second at most.

        Raises Cancelled where the work is not wanted any more, and LeaseLost.
        """
        now = time.monotonic()
        if now - self._told_s < TELL_EVERY_S and done < total:
            return
        self._told_s = now
        if self._lost.is_set() or not self._kind.renew(self._job_id, self._token, done=done, total=total, **more):
            raise LeaseLost("Somebody else works on this now.")
        if (
            self._kind._default_manager.filter(pk=self._job_id).values_list("cancel_wanted", flat=True).first()
            is not False
        ):
            raise Cancelled("It was cancelled.")

    def finish(self, **outcome: Any) -> bool:
        """Notes the result of the job; False, with nothing changed, where this holder has lost it."""
        return self._kind.finish(self._job_id, self._token, **outcome)
