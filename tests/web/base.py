"""People and shows for tests of the web application, with media in a folder of their own."""

import json
import shutil
import tempfile
from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings
from django.contrib.auth.models import User
from django.test import TestCase, override_settings

from ritornel.demo.orlmere import media, orlmere
from ritornel.web.config.rate_limits import limiter
from ritornel.web.jobs.leases import LEASE_S, boot_id, new_token, now_s
from ritornel.web.shows.services import Show, create_rows, keep_media

QUICK_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
"""Accounts are made and opened in many tests; how passwords are kept is Django's to test."""


def held() -> dict[str, Any]:
    """The fields of a job that somebody works on."""
    return {"holder": new_token(), "boot": boot_id(), "leased_until_s": now_s() + LEASE_S}


def lost() -> dict[str, Any]:
    """The fields of a job whose holder is gone."""
    return {**held(), "leased_until_s": now_s() - 1}


class WebTest(TestCase):
    """Ines owns the demo show `clock`; Odo is somebody else."""

    def setUp(self) -> None:
        # What one test did often must not slow down another.
        limiter.cache_clear()
        folder = Path(tempfile.mkdtemp(prefix="ritornel-media-"))
        self.addCleanup(shutil.rmtree, folder, ignore_errors=True)
        storages = {
            name: {**entry, "OPTIONS": {**entry.get("OPTIONS", {})}} for name, entry in settings.STORAGES.items()
        }
        for name in ("default", "films"):
            storages[name]["OPTIONS"]["location"] = folder / name
        override = override_settings(STORAGES=storages, VAR=folder, PASSWORD_HASHERS=QUICK_HASHERS)
        override.enable()
        self.addCleanup(override.disable)
        self.var = folder
        self.ines = User.objects.create(username="ines")
        self.odo = User.objects.create(username="odo")
        for asset, data in media().values():
            keep_media(asset.sha256, data)
        self.row = Show(id="clock", owner=self.ines)
        create_rows(self.row, msgspec.structs.replace(orlmere(), id="clock"))
        self.client.force_login(self.ines)

    def post(self, path: str, body: Any = None) -> Any:
        return self.client.post(path, json.dumps(body or {}), content_type="application/json")

    def edit(self, edit: dict[str, Any], revision: int | None = None) -> Any:
        if revision is None:
            revision = Show.objects.get(pk="clock").revision
        return self.post("/shows/clock/edit", {"revision": revision, "edit": edit, "viewing": "esc-s"})

    def score(self) -> dict[str, Any]:
        return self.client.get("/shows/clock/score.json").json()  # type: ignore[no-any-return]
