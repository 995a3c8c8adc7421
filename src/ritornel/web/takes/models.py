"""Takes of a show: rehearsed runs, and recordings."""

from pathlib import Path
from typing import cast

from django.conf import settings
from django.db import models
from django.utils import timezone

from ritornel.core.document.decoding import from_json
from ritornel.core.rehearsal.recording import Progress
from ritornel.core.rehearsal.take import Take as TakeValue
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.shows.services import Removable, Show, new_id

SILENT_S = 6
"""A recording sends something every second; one that has not for so long was interrupted."""


class Take(Removable):
    """One saved run. `body` is a core Take as JSON."""

    KIND = "take"
    TITLE = "Takes of rehearsals"

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

    @property
    def bin_name(self) -> str:
        return f"Take {self.number}, {clock_text(from_json(bytes(self.body), TakeValue, 'The take').ended_ms)}"


class Recording(Removable):
    """A take with a voice, of the slides of one section.

    `body` is a core Take; its sound and pictures are in a folder of their own. One window, the `writer`, writes it;
    `placement` is the core Placement of the camera.
    """

    KIND = "recording"
    TITLE = "Recorded takes"

    id = models.CharField(primary_key=True, max_length=40, default=new_id)
    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="recordings")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    number = models.IntegerField()
    slide_ids = models.JSONField(default=list)
    body = models.BinaryField()
    placement = models.JSONField(default=dict)
    writer = models.CharField(max_length=40, default="")
    state = models.CharField(max_length=12, default="recording")
    begun_at = models.DateTimeField(auto_now_add=True)
    heard_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["begun_at"]
        indexes = [models.Index(fields=["show", "begun_at"])]

    @property
    def bin_name(self) -> str:
        """Its number, and how long it is."""
        return f"Recorded take {self.number}, {clock_text(from_json(bytes(self.body), TakeValue, 'The take').ended_ms)}"

    def freed_bytes(self) -> int:
        """What its sound and pictures take."""
        folder = Path(settings.VAR) / "recordings" / self.pk
        return sum(path.stat().st_size for path in folder.rglob("*") if path.is_file())

    @property
    def progress(self) -> Progress:
        """Whether it is being recorded, was paused or ended, or stopped without an end."""
        if self.state == "recording" and (timezone.now() - self.heard_at).total_seconds() > SILENT_S:
            return "interrupted"
        return cast(Progress, self.state)


class Pick(models.Model):
    """The selected piece of a slide, and its recording."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="picks")
    slide_id = models.CharField(max_length=40)
    recording = models.ForeignKey(Recording, on_delete=models.CASCADE, related_name="picks")
    piece = models.IntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["show", "slide_id"], name="one_pick_a_slide")]
