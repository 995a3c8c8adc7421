"""What can be removed lies in the bin first: a time during which it comes back as it was, or goes for good.

A model that has this as its base is in the bin by that alone: its show's bin lists it, and the daily tidying removes
it when the time is over.
"""

from collections.abc import Iterable
from datetime import timedelta
from typing import ClassVar, Self, TypeVar

from django.apps import apps
from django.conf import settings
from django.contrib.auth.models import User
from django.db import models
from django.dispatch import Signal
from django.utils import timezone

media_forgotten = Signal()
"""Sent when an entry of a shelf is removed for good: `show`, the row, and `sha256`, whose bytes its log needs no more.
Who frees storage answers with the number of bytes that are free again.
"""


Kind = TypeVar("Kind", bound=models.Model)


class InUse(models.Manager[Kind]):
    """The rows that do not lie in the bin."""

    def get_queryset(self) -> models.QuerySet[Kind]:
        """Without those in the bin."""
        return super().get_queryset().filter(removed_at=None)


class Removable(models.Model):
    """A row that lies in the bin from `removed_at` on: `objects` leaves it out, so that nobody opens it.

    `KIND` is its word in addresses, `TITLE` the heading over all of its kind, and `SHOW` the field that leads to
    its show. `OWNERS` says that only the show's owner removes one and brings it back.
    """

    KIND: ClassVar[str]
    TITLE: ClassVar[str]
    SHOW: ClassVar[str] = "show"
    OWNERS: ClassVar[bool] = False

    removed_at = models.DateTimeField(null=True, db_index=True)
    removed_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")

    objects = InUse()
    everywhere = models.Manager()

    class Meta:
        abstract = True

    @property
    def bin_name(self) -> str:
        """What it is called in the bin."""
        return str(self)

    def freed_bytes(self) -> int:
        """How much storage is free when it is gone."""
        return 0

    def put_into_bin(self, person: User | None) -> None:
        """Nobody finds it any more, until it is brought back."""
        self.removed_at, self.removed_by = timezone.now(), person
        self.save(update_fields=["removed_at", "removed_by"])

    def bring_back(self) -> None:
        """It is as it was."""
        self.removed_at = self.removed_by = None
        self.save(update_fields=["removed_at", "removed_by"])

    @classmethod
    def in_bin(cls) -> models.QuerySet[Self]:
        """All in the bin, the one removed last first."""
        return cls.everywhere.exclude(removed_at=None).order_by("-removed_at")

    @classmethod
    def overdue(cls) -> models.QuerySet[Self]:
        """Those whose time in the bin is over."""
        return cls.in_bin().filter(removed_at__lt=timezone.now() - timedelta(days=settings.BIN_DAYS))


def removable_kinds() -> Iterable[type[Removable]]:
    """All kinds of rows that can lie in the bin."""
    return (model for model in apps.get_models() if issubclass(model, Removable))
