"""Releases: editions, which never change, and the films made from shows."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import models
from django.utils import timezone

from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.file_names import file_title
from ritornel.web.config.link_secrets import code_of, hash_code, new_nonce
from ritornel.web.jobs.job import Job
from ritornel.web.jobs.resuming import MOST_RESUMED
from ritornel.web.shows.services import Removable, Show, new_id

LOST_WORDS = "The worker stopped in the middle of this film. Start it again."
WAITS_WORDS = "The worker stopped in the middle of this film. It goes on from where it was when one is there."


class Release(models.Model):
    """The public place of a show: one address for all its editions.

    `starts_silent`: where a browser requires a press before sound, the show starts in silence, and the first press
    turns the sound on.
    """

    show = models.OneToOneField(Show, on_delete=models.CASCADE, related_name="release")
    address = models.CharField(max_length=40, unique=True, default=new_id)
    withdrawn = models.BooleanField(default=False)
    starts_itself = models.BooleanField(default=True)
    starts_silent = models.BooleanField(default=False)
    loops = models.BooleanField(default=False)
    audience = models.CharField(max_length=10, default="anyone")
    domain = models.CharField(max_length=120, blank=True)

    AUDIENCES = ("anyone", "invited", "domain")
    """Anyone with the address; people with links of their own; everybody who can read mail at a domain."""

    @property
    def newest(self) -> "Edition | None":
        return self.editions.first()


class Guest(models.Model):
    """Somebody who may see a release that is not open to anyone, by a personal link that can be withdrawn.

    Guests from before links could be shown again have no nonce: their link works, and a new invitation replaces it.
    """

    release = models.ForeignKey(Release, on_delete=models.CASCADE, related_name="guests")
    address = models.EmailField()
    nonce = models.CharField(max_length=40, blank=True)
    code_hash = models.CharField(max_length=64, unique=True)
    sent_at = models.DateTimeField(default=timezone.now)
    opened_at = models.DateTimeField(null=True)
    withdrawn_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["release", "address"], name="one_guest_an_address")]

    @property
    def code(self) -> str:
        """The code of their link; empty where it cannot be shown again."""
        return code_of("guest", self.nonce) if self.nonce else ""

    def renew(self) -> None:
        """Makes a new link; the old one becomes invalid."""
        self.nonce = new_nonce()
        self.code_hash = hash_code(self.code)

    def save(self, **how: Any) -> None:
        """Gives a new guest their link."""
        if not self.code_hash:
            self.renew()
        super().save(**how)


class Edition(Removable):
    """A frozen state of a show: `document` is its JSON.

    Strangers are served from a folder of its own (folders.py).
    """

    KIND = "edition"
    TITLE = "Editions"
    SHOW = "release__show"
    OWNERS = True

    release = models.ForeignKey(Release, on_delete=models.CASCADE, related_name="editions")
    number = models.IntegerField()
    document = models.BinaryField()
    title = models.CharField(max_length=200)
    length_ms = models.IntegerField()
    slide_count = models.IntegerField()
    opened = models.IntegerField(default=0)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["release", "number"], name="one_edition_a_number")]

    @property
    def bin_name(self) -> str:
        """Its number, and how long it is."""
        return f"Edition {self.number}, {clock_text(self.length_ms)}"

    def freed_bytes(self) -> int:
        """What lies in its folder and in no other edition's: a medium has a name in each."""
        folder = Path(settings.VAR) / "editions" / self.release.address / str(self.number)
        found = (path.stat() for path in folder.rglob("*") if path.is_file())
        return sum(about.st_size for about in found if about.st_nlink == 1)


class FilmJob(Removable, Job):
    """A film, an animated picture, pages or stills that the worker makes, from the show at the time of the order, under
    a name of its own. `style` is for pages, `timing` is the take that times it, if any, `found` is what an earlier run,
    or an earlier film, had done.
    """

    KINDS = {
        "mp4": "video/mp4",
        "webm": "video/webm",
        "webp": "image/webp",
        "pdf": "application/pdf",
        "zip": "application/zip",
    }
    STYLES = ("slides", "notes", "beats")
    KIND = "film"
    TITLE = "Films, pages and stills"
    OWNERS = True

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="films")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    document = models.BinaryField()
    kind = models.CharField(max_length=4, default="mp4")
    width_px = models.IntegerField(default=1280)
    height_px = models.IntegerField(default=720)
    rate = models.CharField(max_length=24, default="30")
    constant_rate = models.BooleanField(default=False)
    style = models.CharField(max_length=8, default="")
    name = models.CharField(max_length=120, blank=True, default="")
    timing = models.CharField(max_length=80, blank=True, default="")
    slide = models.IntegerField(default=0)
    found = models.IntegerField(default=0)
    size_bytes = models.BigIntegerField(default=0)

    class Meta:
        ordering = ["-asked_at"]

    @property
    def found_done(self) -> int:
        return self.found

    @property
    def bin_name(self) -> str:
        """Under which name it is saved."""
        return self.saved_name

    def freed_bytes(self) -> int:
        """The size of its file."""
        return self.size_bytes

    @property
    def file_name(self) -> str:
        return f"{self.id}.{self.kind}"

    @property
    def saved_name(self) -> str:
        """The name of its file: its show or slide, and which one it is."""
        size = f"{self.width_px}x{self.height_px}"
        about = {"pdf": self.style, "zip": f"stills-{size}"}.get(self.kind, size)
        return f"{file_title(self.title)}-{about}.{self.kind}"

    @property
    def title(self) -> str:
        """Its own name, else the show's title."""
        return self.name or self.show.title

    @property
    def resumes(self) -> bool:
        """Whether it lost its worker and will continue by itself."""
        return self.lost and self.resumed < MOST_RESUMED

    @property
    def seen_state(self) -> str:
        """Its state for people: a job that lost its worker is interrupted, even before the row says so."""
        return self.State.INTERRUPTED if self.lost else self.state

    @property
    def seen_message(self) -> str:
        return WAITS_WORDS if self.resumes else LOST_WORDS if self.lost else self.message


class SetAside(models.Model):
    """A finding of the readiness check that somebody decided to leave as it is, with the reason."""

    show = models.ForeignKey(Show, on_delete=models.CASCADE, related_name="set_aside")
    finding = models.CharField(max_length=200)
    reason = models.CharField(max_length=300)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["show", "finding"], name="a_finding_is_set_aside_once")]


class HandIn(models.Model):
    """A film, pages or the like, handed in to somebody: a file of its own, which stays when the maker's is removed.

    `replaces`: it replaced an earlier one.
    """

    id = models.CharField(primary_key=True, max_length=40, default=new_id)
    sender = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="handed_in")
    recipient = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="received")
    title = models.CharField(max_length=200)
    name = models.CharField(max_length=300)
    kind = models.CharField(max_length=4)
    size_bytes = models.BigIntegerField()
    note = models.CharField(max_length=1000, blank=True)
    at = models.DateTimeField(auto_now_add=True)
    seen_at = models.DateTimeField(null=True)
    show = models.ForeignKey(Show, on_delete=models.SET_NULL, null=True, related_name="hand_ins")
    replaces = models.BooleanField(default=False)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["recipient", "seen_at"])]

    @property
    def file_name(self) -> str:
        return f"handed-in/{self.id}.{self.kind}"
