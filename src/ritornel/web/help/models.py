"""First shows: those that teach by doing."""

from django.db import models

from ritornel.web.shows.services import Show


class FirstShow(models.Model):
    """That a show is somebody's first one. Whoever leaves it is told nothing more in it, until they come back."""

    show = models.OneToOneField(Show, on_delete=models.CASCADE, related_name="first")
    left_at = models.DateTimeField(null=True)
