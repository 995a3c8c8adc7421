"""Shows that are being played to other devices."""

import secrets

from django.conf import settings
from django.db import models
from django.utils import timezone

from ritornel.web.shows.models import Show

ALPHABET = "abcdefghjkmnpqrstuvwxyz23456789"
CODE_LENGTH = 12
"""Twelve of 31 signs, none of which is easily taken for another: 59 bits, for an address that lives at most a day and can be typed."""
LASTS_S = 24 * 60 * 60


def new_code() -> str:
    """A code that nobody guesses."""
    return "".join(secrets.choice(ALPHABET) for _ in range(CODE_LENGTH))


class Run(models.Model):
    """A run that other devices may follow by its `house_code`, and step through by its `remote_code`, until it is ended or a day has passed."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="live_runs")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    house_code = models.CharField(max_length=20, unique=True, default=new_code)
    remote_code = models.CharField(max_length=20, unique=True, default=new_code)
    begun_at = models.DateTimeField(default=timezone.now)
    ended = models.BooleanField(default=False)

    @property
    def open(self) -> bool:
        """Whether its addresses still lead anywhere."""
        return not self.ended and (timezone.now() - self.begun_at).total_seconds() < LASTS_S
