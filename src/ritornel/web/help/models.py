"""First shows, which teach by doing."""

from django.db import models

from ritornel.web.shows.services import Show


class FirstShow(models.Model):
    """Marks a show as somebody's first one. After leaving, it shows no more hints until the person returns."""

    show = models.OneToOneField(Show, on_delete=models.CASCADE, related_name="first")
    left_at = models.DateTimeField(null=True)
