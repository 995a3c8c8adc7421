"""Removal in two steps: a removed row first stays in the bin for a time, where it can be restored or removed for good.

A model with this base needs nothing more: its show's bin lists it, and daily tidying removes it when the time is over.
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
    """The rows that are not in the bin."""

    def get_queryset(self) -> models.QuerySet[Kind]:
        """All rows except those in the bin."""
        return super().get_queryset().filter(removed_at=None)


class Removable(models.Model):
    """A row that is in the bin from `removed_at` on: `objects` leaves it out, so that nobody opens it.

    `KIND` is its word in addresses, `TITLE` the heading of its kind, and `SHOW` the field that leads to its show. With
    `OWNERS` only the show's owner removes and restores it.
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
        """Its name in the bin."""
        return str(self)

    def freed_bytes(self) -> int:
        """The room that its removal for good frees."""
        return 0

    def put_into_bin(self, person: User | None) -> None:
        """Hides it from everybody until it is restored."""
        self.removed_at, self.removed_by = timezone.now(), person
        self.save(update_fields=["removed_at", "removed_by"])

    def bring_back(self) -> None:
        """Restores it."""
        self.removed_at = self.removed_by = None
        self.save(update_fields=["removed_at", "removed_by"])

    @classmethod
    def in_bin(cls) -> models.QuerySet[Self]:
        """All rows in the bin, the last removed first."""
        return cls.everywhere.exclude(removed_at=None).order_by("-removed_at")

    @classmethod
    def overdue(cls) -> models.QuerySet[Self]:
        """The rows whose time in the bin is over."""
        return cls.in_bin().filter(removed_at__lt=timezone.now() - timedelta(days=settings.BIN_DAYS))


def removable_kinds() -> Iterable[type[Removable]]:
    """All models whose rows can be in the bin."""
    return (model for model in apps.get_models() if issubclass(model, Removable))
