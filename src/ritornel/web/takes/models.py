"""Takes of a show."""

from django.conf import settings
from django.db import models

from ritornel.web.shows.models import Show


class Take(models.Model):
    """One run, kept. `body` is a core Take as JSON."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="takes")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    number = models.IntegerField()
    body = models.BinaryField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["show", "number"], name="one_take_a_number")]

    @property
    def name(self) -> str:
        return f"take {self.number}"
