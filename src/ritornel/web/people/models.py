"""People of a show besides its owner, their comments, and their proven e-mail addresses."""

from datetime import timedelta
from typing import Any, Literal

from django.conf import settings
from django.db import models
from django.utils import timezone

from ritornel.web.config.link_secrets import code_of, hash_code, new_nonce

LASTS = timedelta(days=14)
"""How long the link of an invitation waits to be opened."""
State = Literal["sent", "accepted", "expired", "withdrawn"]


class ProvenAddress(models.Model):
    """An e-mail address whose mail a person can read: they opened a link that only a mail to it contained.

    Whoever proves it later takes it over; accounts stay as they are.
    """

    address = models.EmailField(unique=True)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="proven_addresses")
    at = models.DateTimeField(default=timezone.now)


class Invitation(models.Model):
    """Somebody invited to a show by e-mail address.

    It belongs to the first person who accepts it. Access lasts until it is withdrawn. It has two links. The inviting
    person sees one of them; it proves nothing about its user. The other stands only in the mail; where that mail was
    really sent (`mail_proves`), its user can read mail at the address.
    """

    show = models.ForeignKey("shows.Show", on_delete=models.CASCADE, related_name="invitations")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    address = models.EmailField()
    name = models.CharField(max_length=120, blank=True)
    role = models.CharField(max_length=10)
    section = models.CharField(max_length=40, blank=True)
    nonce = models.CharField(max_length=40)
    link_hash = models.CharField(max_length=64, unique=True)
    mail_hash = models.CharField(max_length=64, unique=True)
    mail_proves = models.BooleanField(default=False)
    person = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="invitations"
    )
    sent_at = models.DateTimeField(default=timezone.now)
    accepted_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["show", "address"], name="one_invitation_an_address")]
        indexes = [models.Index(fields=["person", "show"])]

    @property
    def link_code(self) -> str:
        """The code of the link that the inviting person sees."""
        return code_of("invitation link", self.nonce)

    @property
    def mail_code(self) -> str:
        """The code of the link in the mail."""
        return code_of("invitation mail", self.nonce)

    def renew(self) -> None:
        """Makes new links; the old ones become invalid."""
        self.nonce = new_nonce()
        self.link_hash, self.mail_hash = hash_code(self.link_code), hash_code(self.mail_code)

    def save(self, **how: Any) -> None:
        """Gives a new invitation its links."""
        if not self.link_hash:
            self.renew()
        super().save(**how)

    @property
    def state(self) -> State:
        """Its state, in a word."""
        if self.withdrawn_at is not None:
            return "withdrawn"
        if self.accepted_at is not None:
            return "accepted"
        return "expired" if timezone.now() - self.sent_at > LASTS else "sent"

    @property
    def expires_at(self) -> object:
        """When the link becomes invalid, if nobody opens it."""
        return self.sent_at + LASTS

    @property
    def called(self) -> str:
        """Their name, or else their address."""
        return self.name or self.address


class Comment(models.Model):
    """A comment on a slide or one of its objects, or an answer to one."""

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
