"""Long work of the worker for a person, as rows."""

import functools
import secrets
from typing import Any

from django.db import models
from django.utils import timezone

from ritornel.web.jobs.leases import LEASE_S, boot_id, is_alive, new_token, now_s

new_job_id = functools.partial(secrets.token_hex, 8)
"""A random id of 16 characters."""


class Job(models.Model):
    """The progress of some work, whether it is still wanted, and its result.

    While it runs, one process holds its lease: `holder` is that process's token, and only with it can the job be
    renewed or finished.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        RUNNING = "running"
        READY = "ready"
        CANCELLED = "cancelled"
        FAILED = "failed"
        INTERRUPTED = "interrupted"

    id = models.CharField(primary_key=True, max_length=40, default=new_job_id)
    state = models.CharField(max_length=12, choices=State.choices, default=State.WAITING)
    cancel_wanted = models.BooleanField(default=False)
    done = models.IntegerField(default=0)
    total = models.IntegerField(default=0)
    message = models.CharField(max_length=400, default="")
    asked_at = models.DateTimeField(auto_now_add=True)
    started_at = models.DateTimeField(null=True)
    holder = models.CharField(max_length=40, default="", blank=True)
    boot = models.CharField(max_length=40, default="", blank=True)
    leased_until_s = models.FloatField(default=0.0)
    resumed = models.IntegerField(default=0)

    class Meta:
        abstract = True

    @classmethod
    def _rows(cls) -> Any:
        return cls._default_manager

    @classmethod
    def claim(cls, job_id: str) -> str | None:
        """Claims a waiting job; returns the token of its holder, or None where it was cancelled or somebody else has
        it.
        """
        mine, token = cls._rows().filter(pk=job_id, state=cls.State.WAITING), new_token()
        if mine.filter(cancel_wanted=False).update(state=cls.State.RUNNING, started_at=timezone.now(), **_lease(token)):
            return token
        mine.update(state=cls.State.CANCELLED)
        return None

    @classmethod
    def renew(cls, job_id: str, token: str, **progress: Any) -> bool:
        """Renews the lease and notes the progress; False where the holder has lost the job."""
        return bool(
            cls._rows().filter(pk=job_id, holder=token, state=cls.State.RUNNING).update(**progress, **_lease(token))
        )

    @classmethod
    def finish(cls, job_id: str, token: str, **outcome: Any) -> bool:
        """Notes the result; False where the holder has lost the job, which changes nothing."""
        return bool(
            cls._rows()
            .filter(pk=job_id, holder=token, state=cls.State.RUNNING)
            .update(**outcome, holder="", boot="", leased_until_s=0.0)
        )

    @property
    def lost(self) -> bool:
        """Whether it is marked as running but its holder is gone."""
        held = self.boot == boot_id() and self.leased_until_s >= now_s() and is_alive(self.holder)
        return self.state == self.State.RUNNING and not held

    @property
    def found_done(self) -> int:
        """What was already done when this run of it began."""
        return 0

    @property
    def left_s(self) -> float | None:
        """How many seconds are left, judged by the speed of this run; None before that is known."""
        made = self.done - self.found_done
        if self.state != self.State.RUNNING or self.started_at is None or self.total == 0 or made * 50 < self.total:
            return None
        took = (timezone.now() - self.started_at).total_seconds()
        return took * (self.total - self.done) / made


def _lease(token: str) -> dict[str, Any]:
    return {"holder": token, "boot": boot_id(), "leased_until_s": now_s() + LEASE_S}
