"""Everybody who may come to a show, and one of everything that an address can name."""

from typing import Any
from unittest import mock

from django.contrib.auth.models import User
from django.core import signing
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from ritornel.core.document.decoding import to_json
from ritornel.core.document.themes import THEMES
from ritornel.core.rehearsal.take import Take
from ritornel.starters import STARTERS
from ritornel.web.help.models import FirstShow
from ritornel.web.library.browser_copies import make_light
from ritornel.web.library.thumbnails import make_strip, make_thumbnail
from ritornel.web.library.waveforms import make_wave
from ritornel.web.people.models import Comment, Invitation, ProvenAddress
from ritornel.web.releases import filming
from ritornel.web.releases.models import FilmJob, Guest, HandIn, Release
from ritornel.web.shows.blank import blank_show
from ritornel.web.shows.models import Reading, Show
from ritornel.web.shows.services import create_rows, value_of
from ritornel.web.stage.models import Run
from tests.footage import footage
from tests.web.test_recording import RecordingWebTest

ACTS = {"editor": "edit", "recorder": "record", "commenter": "comment", "watcher": "watch", "withdrawn": "edit"}
MEMBERS = ("owner", "editor", "recorder", "commenter", "watcher")
SIGNED_IN = (*MEMBERS, "withdrawn", "other")
ROLES = (*SIGNED_IN, "guest", "shut out", "stranger")
"""`withdrawn` was an editor and started a run; a `guest` is let into the release by a link, and so was who is `shut
out`.
"""


class CastTest(RecordingWebTest):
    """Ines owns the show. Each role has a browser in `clients`; `named` has what stands in addresses, by name."""

    def setUp(self) -> None:
        super().setUp()
        patched = mock.patch("ritornel.web.jobs.queue.Queue.enqueue")
        self.addCleanup(patched.stop)
        patched.start()
        self.clients = {role: Client() for role in ROLES}
        self.clients["owner"] = self.client
        self.people = {
            "owner": self.ines,
            "other": self.odo,
            **{role: User.objects.create(username=role) for role in ACTS},
        }
        for role in SIGNED_IN:
            self.clients[role].force_login(self.people[role])
        self.named = {**self._invited(), **self._released(), **self._kept()}

    def _invited(self) -> dict[str, Any]:
        entries = {}
        for role, act in ACTS.items():
            known = {
                "by": self.ines,
                "address": f"{role}@orlmere.example",
                "role": act,
                "section": "esc-s" if role == "recorder" else "",
            }
            entries[role] = Invitation.objects.create(
                show=self.row, person=self.people[role], accepted_at=timezone.now(), **known
            )
        left = Run.objects.create(show=self.row, person=self.people["withdrawn"])
        entries["withdrawn"].withdrawn_at = timezone.now()
        entries["withdrawn"].save()
        run = Run.objects.create(show=self.row, person=self.ines)
        waiting = Invitation.objects.create(show=self.row, by=self.ines, address="new@orlmere.example", role="watch")
        return {
            "invitation": entries["watcher"].pk,
            "link": waiting.link_code,
            "house": run.house_code,
            "remote": run.remote_code,
            "left_house": left.house_code,
            "left_remote": left.remote_code,
            "comment": Comment.objects.create(
                show=self.row, person=self.people["commenter"], slide_id="esc-s", text="Slower?"
            ).pk,
            "address_pk": ProvenAddress.objects.create(address="ines@orlmere.example", person=self.ines).pk,
        }

    def _released(self) -> dict[str, Any]:
        self.post("/shows/clock/editions", {"audience": "anyone"})
        release = Release.objects.get()
        self.post("/shows/clock/release/settings", {"audience": "invited"})
        guests = {
            role: Guest.objects.create(release=release, address=f"{role.split()[0]}@elsewhere.example")
            for role in ("guest", "shut out")
        }
        for role, guest in guests.items():
            self.clients[role].get(f"/s/{release.address}/for/{guest.code}/")
        guests["shut out"].withdrawn_at = timezone.now()
        guests["shut out"].save()
        self.post("/shows/clock/films", {"kind": "pdf", "style": "slides"})
        job = FilmJob.objects.get()
        filming.make_film(job.pk, FilmJob.claim(job.pk) or "")
        failed = FilmJob.objects.create(show=self.row, person=self.ines, document=b"", state="failed")
        waiting = FilmJob.objects.create(show=self.row, person=self.ines, document=b"")
        self.post(f"/shows/clock/films/{job.pk}/hand-in", {"to": "odo"})
        picture = next(
            name
            for name in self.client.get(f"/s/{release.address}/1/performance.json").json()["media"].values()
            if name.endswith(".jpg")
        )
        other = Show(id="bells", owner=self.ines)
        create_rows(other, blank_show("bells", "The bells of Orlmere"))
        domain = Release.objects.create(show=other, audience="domain", domain="orlmere.example")
        return {
            "domain": domain.address,
            "address": release.address,
            "guest": guests["guest"].pk,
            "guest_code": guests["guest"].code,
            "shut_out_code": guests["shut out"].code,
            "film": job.pk,
            "failed_film": failed.pk,
            "waiting_film": waiting.pk,
            "binned": Show.objects.create(owner=self.ines, title="Gone", removed_at=timezone.now()).pk,
            "handed": HandIn.objects.get().pk,
            "picture": picture,
        }

    def _kept(self) -> dict[str, Any]:
        self.client.post("/shows/from-pdf", {"file": SimpleUploadedFile("a.pdf", b"%PDF-1.7 nothing")})
        recording = self.recorded()
        added = self.client.post(
            "/shows/clock/shelf", {"file": SimpleUploadedFile("turns.mp4", footage(12, codec="mpeg4"))}
        ).json()["asset"]
        box = {"x": 0, "y": 0, "width": 64, "height": 48}
        clip = {
            "kind": "clip",
            "id": "turns",
            "name": "Turns",
            "box": box,
            "asset_id": added["id"],
            "rate_pct": 150,
            "out_ms": 200,
        }
        placed = self.edit({"do": "add objects", "slide_id": "esc-s", "objects": [clip], "index": 0})
        self.assertEqual(placed.status_code, 200, placed.content)
        make_strip(added["sha256"], added["lasts_ms"])
        make_light(added["sha256"])
        self.post("/shows/clock/takes", {"events": [], "ended_ms": 5})
        assets = {asset.id: asset for asset in value_of(self.row).assets}
        make_thumbnail(assets["night"].sha256)
        make_thumbnail(assets["works"].sha256)
        make_wave(assets["waltz"].sha256, assets["waltz"].lasts_ms)
        removed = self.client.post(
            "/shows/clock/shelf", {"file": SimpleUploadedFile("gone.mp4", footage(7, codec="mpeg4"))}
        ).json()["asset"]["id"]
        # A copy of the show holds its medium too, so that it is there for everybody who asks.
        self.client.post("/shows/clock/duplicate")
        self.edit({"do": "drop assets", "asset_ids": [removed]})
        self.edit({"do": "add slide", "at": 0, "slide": {"id": "gone-s", "name": "Gone"}})
        self.edit({"do": "remove slides", "slide_ids": ["gone-s"]})
        taken = self.row.takes.create(person=self.ines, number=9, body=to_json(Take((), 5)), removed_at=timezone.now())
        FirstShow.objects.create(show=self.row)
        return {
            "binned_entry": removed,
            "binned_slide": "gone-s",
            "binned_take": taken.pk,
            "reading": Reading.objects.get().pk,
            "recording": recording,
            "recorded": self.client.get("/shows/clock/record/picked.json?section=esc-s").json()["voices"][0][
                "asset_id"
            ],
            "clip": added["id"],
            "thumb": self.score()["slides"]["esc-s"]["thumb"],
            "starter": next(iter(STARTERS)),
            "theme": next(iter(THEMES)),
            "proof": signing.dumps(
                {"person": self.ines.pk, "address": "ines@orlmere.example"}, salt="ritornel proof of an address"
            ),
        }
