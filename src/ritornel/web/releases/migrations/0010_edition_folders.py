"""Editions move out of the database into folders of static files. What lay where is written down here as it was then."""

import gzip
import os
import re
import secrets
import shutil
from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings
from django.core.files.storage import storages
from django.db import migrations, models

_NAME = re.compile(r"(?P<sha256>[0-9a-f]{64})(?:-(?P<made>light|[0-9]+))?\.[a-z0-9]+")


def _source(name: str) -> Path | None:
    """Where the medium lies that was served under a name; None where it is not there."""
    found = _NAME.fullmatch(name)
    if found is None:
        return None
    sha256, made = found["sha256"], found["made"]
    if made is None:
        path = Path(storages["default"].path(f"{sha256[:2]}/{sha256}"))
        return path if path.is_file() else None
    kind, file = ("lighter", f"{sha256}.mp4") if made == "light" else ("tempo", name)
    made_files = sorted((Path(settings.VAR) / "derived" / kind).glob(f"v*/{sha256[:2]}/{file}"))
    return made_files[-1] if made_files else None


def _put_beside(source: Path, target: Path) -> None:
    try:
        os.link(source, target)
    except OSError:
        shutil.copyfile(source, target)


def lay_out(apps: Any, _: Any) -> None:
    """Each edition as it is, with the media it was made with."""
    root = Path(settings.VAR) / "editions"
    for edition in apps.get_model("releases", "Edition").objects.select_related("release").iterator(chunk_size=1):
        performance = bytes(edition.performance)
        folder = root / f".{secrets.token_hex(8)}"
        folder.mkdir(parents=True)
        for name, words in (("performance.json", performance), ("calm.json", bytes(edition.calm) or performance)):
            show = msgspec.json.decode(words)
            # They were addresses of this server: /s/ADDRESS/NUMBER/NAME.
            show["media"] = {key: place.rpartition("/")[2] for key, place in show["media"].items()}
            (folder / name).write_bytes(msgspec.json.encode(show))
            (folder / f"{name}.gz").write_bytes(gzip.compress(msgspec.json.encode(show), 9, mtime=0))
            for served in show["media"].values():
                source = _source(served)
                if source is not None and not (folder / served).exists():
                    _put_beside(source, folder / served)
        (folder / "first.webp").write_bytes(bytes(edition.first))
        place = root / edition.release.address / str(edition.number)
        place.parent.mkdir(exist_ok=True)
        shutil.rmtree(place, ignore_errors=True)
        folder.replace(place)
        edition.title = msgspec.json.decode(performance)["title"]
        edition.save(update_fields=["title"])


class Migration(migrations.Migration):
    dependencies = [("releases", "0009_timing")]

    operations = [
        migrations.AddField(model_name="edition", name="title", field=models.CharField(max_length=200, default="")),
        migrations.RunPython(lay_out),
        migrations.AlterField(model_name="edition", name="title", field=models.CharField(max_length=200)),
        migrations.RemoveField(model_name="edition", name="performance"),
        migrations.RemoveField(model_name="edition", name="calm"),
        migrations.RemoveField(model_name="edition", name="first"),
    ]
