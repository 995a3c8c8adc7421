"""People of a show besides its owner, and what they say about it."""

import secrets
from datetime import timedelta
from typing import Literal

from django.conf import settings
from django.db import models
from django.utils import timezone

LASTS = timedelta(days=14)
"""How long the link of an invitation waits to be opened."""
State = Literal["sent", "accepted", "expired", "withdrawn"]


def new_code() -> str:
    """The secret of a link: 192 bits."""
    return secrets.token_urlsafe(24)


class Invitation(models.Model):
    """Somebody invited to a show by e-mail address. The link belongs to one person: who accepts it has to be them. Access lasts until it is withdrawn."""

    show = models.ForeignKey("shows.Show", on_delete=models.CASCADE, related_name="invitations")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    address = models.EmailField()
    name = models.CharField(max_length=120, blank=True)
    role = models.CharField(max_length=10)
    section = models.CharField(max_length=40, blank=True)
    code = models.CharField(max_length=60, unique=True, default=new_code)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="invitations")
    sent_at = models.DateTimeField(default=timezone.now)
    accepted_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["show", "address"], name="one_invitation_an_address")]
        indexes = [models.Index(fields=["person", "show"])]

    @property
    def state(self) -> State:
        """How it stands."""
        if self.withdrawn_at is not None:
            return "withdrawn"
        if self.accepted_at is not None:
            return "accepted"
        return "expired" if timezone.now() - self.sent_at > LASTS else "sent"

    @property
    def expires_at(self) -> object:
        """When the link leads nowhere any more, if nobody opens it."""
        return self.sent_at + LASTS

    @property
    def called(self) -> str:
        """Their name, or where there is none their address."""
        return self.name or self.address


class Comment(models.Model):
    """Something said about a slide or an object on it, or in answer to that."""

    show = models.ForeignKey("shows.Show", on_delete=models.CASCADE, related_name="comments")
    slide_id = models.CharField(max_length=40)
    object_id = models.CharField(max_length=40, blank=True)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    answers = models.ForeignKey("self", on_delete=models.CASCADE, null=True, related_name="given")
    text = models.TextField(max_length=4000)
    at = models.DateTimeField(auto_now_add=True)
    closed_at = models.DateTimeField(null=True)
    closed_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True, related_name="+")

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["show", "slide_id"])]
