"""Rows of shows. A slide's whole value is one validated JSON document on its row."""

import functools
import secrets

from django.conf import settings
from django.contrib.auth.models import User
from django.db import models

from ritornel.web.jobs.job import Job
from ritornel.web.people.services import Access
from ritornel.web.shows.removal import Removable

new_id = functools.partial(secrets.token_hex, 8)
"""A random id of 16 characters, for rows and for things inside documents."""


class Show(Removable):
    """A show's settings and its revision, which counts all changes.

    `folder` is its owner's folder in the list of shows.
    """

    id = models.CharField(primary_key=True, max_length=40, default=new_id)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="shows")
    title = models.CharField(max_length=200)
    frame = models.JSONField(default=dict)
    default_hold_ms = models.IntegerField(default=2000)
    end = models.CharField(max_length=10, default="hold")
    runs = models.CharField(max_length=20, default="self-running")
    holds_by_cue = models.JSONField(default=dict)
    music = models.JSONField(default=list)
    theme = models.JSONField(default=dict)
    furniture = models.JSONField(default=dict)
    marks = models.JSONField(default=list)
    habits = models.JSONField(default=dict)
    voices_live = models.BooleanField(default=False)
    follows_take = models.CharField(max_length=200, blank=True, default="")
    language = models.CharField(max_length=35, default="en")
    notes_as_captions = models.BooleanField(default=False)
    folder = models.CharField(max_length=60, blank=True, default="")
    revision = models.IntegerField(default=0)
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)
    access: Access = Access("own")
    """What the person who asked for this row is to the show: set where it is asked for, and so is who that is."""
    asked_by: User | None = None

    KIND = "show"
    TITLE = "Shows"
    OWNERS = True

    class Meta:
        ordering = ["-changed_at"]

    def __str__(self) -> str:
        return self.title


class Slide(models.Model):
    """A slide: its place and its document."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="slides")
    slide_id = models.CharField(max_length=40)
    position = models.IntegerField()
    body = models.BinaryField()

    class Meta:
        ordering = ["position"]
        constraints = [models.UniqueConstraint(fields=["show", "slide_id"], name="one_slide_an_id")]
        indexes = [models.Index(fields=["show", "position"])]


class Asset(models.Model):
    """An entry of a show's shelf. The bytes lie in storage under their hash and belong to whoever may open the show."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="assets")
    asset_id = models.CharField(max_length=40)
    position = models.IntegerField()
    sha256 = models.CharField(max_length=64, db_index=True)
    body = models.BinaryField()

    class Meta:
        ordering = ["position"]
        constraints = [models.UniqueConstraint(fields=["show", "asset_id"], name="one_asset_an_id")]


class Edit(models.Model):
    """A step of a show's history: a change, or the undoing or redoing of one, with its inverse.

    All steps together are the show's log, from `first_revision` to `revision` without gaps. Everybody undoes their own
    steps. An undone step stays in the log, marked `undone`; it can be made again until its maker changes something
    else, which marks it `dropped`. Edits of one `batch` are one step: five hundred pictures added together are undone
    together. `overruled` names the people whose simultaneous values this step replaced. A step marked `kept` stands for
    all older ones of a day (thinning.py); it cannot be undone.
    """

    class Kind(models.TextChoices):
        EDIT = "edit"
        UNDO = "undo"
        REDO = "redo"
        KEPT = "kept"

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="edits")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    kind = models.CharField(max_length=4, choices=Kind.choices, default=Kind.EDIT)
    of = models.ForeignKey("self", on_delete=models.CASCADE, null=True, related_name="returns")
    label = models.CharField(max_length=300)
    changes = models.BinaryField()
    inverse = models.BinaryField()
    undone = models.BooleanField(default=False)
    dropped = models.BooleanField(default=False)
    batch = models.CharField(max_length=40, default="")
    first_revision = models.IntegerField(default=0)
    revision = models.IntegerField(default=0)
    overruled = models.JSONField(default=list)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
        indexes = [
            models.Index(fields=["show", "undone", "id"]),
            models.Index(fields=["show", "revision"]),
        ]


class NamedPoint(models.Model):
    """A state of a show that somebody named, so that people can return to it."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="points")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    revision = models.IntegerField()
    name = models.CharField(max_length=120)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-revision", "-id"]


class ForgottenSlide(models.Model):
    """A removed slide that is also gone from the bin: `revision` is the last one that had it. A slide that comes back
    and is removed again is in the bin again. The history still shows it where it was.
    """

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="forgotten_slides")
    slide_id = models.CharField(max_length=64)
    revision = models.IntegerField()

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["show", "slide_id", "revision"], name="a_slide_is_forgotten_once")
        ]


class ReceivedEdit(models.Model):
    """An edit with this id, chosen by its page, was made: a page without an answer may send it again."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="received_edits")
    edit_id = models.CharField(max_length=40)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["show", "edit_id"], name="an_edit_is_made_once")]
        indexes = [models.Index(fields=["at"])]


class Reading(Job):
    """A file that the worker reads to make a show from it."""

    class Kind(models.TextChoices):
        ARCHIVE = "archive"
        PDF = "pdf"
        PRESENTATION = "presentation"

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="readings")
    kind = models.CharField(max_length=12, choices=Kind.choices, default=Kind.PDF)
    name = models.CharField(max_length=120)
    # What it would become and what would be lost, where somebody has to be asked before it becomes anything.
    plan = models.JSONField(null=True)
    notices = models.JSONField(default=list)
    show = models.ForeignKey(Show, on_delete=models.SET_NULL, null=True)
