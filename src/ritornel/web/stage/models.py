"""Shows that are played to other devices."""

from typing import Any

from django.conf import settings
from django.db import models
from django.utils import timezone

from ritornel.web.config.link_secrets import hash_code, new_nonce, typed_code_of
from ritornel.web.people.services import access_of_each
from ritornel.web.shows.services import Show

LASTS_S = 24 * 60 * 60


class Run(models.Model):
    """A run that other devices may follow by its `house_code` and control by its `remote_code`: until it is ended, a
    day has passed, or the person who started it may no longer edit the show.
    """

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="live_runs")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    nonce = models.CharField(max_length=40)
    house_hash = models.CharField(max_length=64, unique=True)
    remote_hash = models.CharField(max_length=64, unique=True)
    begun_at = models.DateTimeField(default=timezone.now)
    ended = models.BooleanField(default=False)

    @property
    def house_code(self) -> str:
        """The code that opens the audience's screen."""
        return typed_code_of("house", self.nonce)

    @property
    def remote_code(self) -> str:
        """The code that allows cues."""
        return typed_code_of("remote", self.nonce)

    def save(self, **how: Any) -> None:
        """Gives a new run its codes."""
        self.nonce = self.nonce or new_nonce()
        self.house_hash, self.remote_hash = hash_code(self.house_code), hash_code(self.remote_code)
        super().save(**how)

    @property
    def open(self) -> bool:
        """Whether its addresses are still valid."""
        return self.pk in open_runs([self])


def open_runs(runs: list[Run]) -> set[int]:
    """Which of the runs are still open, by number; two queries for any number of them."""
    young = [run for run in runs if not run.ended and (timezone.now() - run.begun_at).total_seconds() < LASTS_S]
    access = access_of_each([(run.show_id, run.person_id) for run in young])
    return {
        run.pk for run in young if (own := access.get((run.show_id, run.person_id))) is not None and own.may("edit")
    }
