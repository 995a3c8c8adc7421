"""Editions move out of the database into folders of static files."""

from pathlib import Path
from typing import Any

import msgspec
from django.conf import settings
from django.db import migrations, models


def _files_of(show: Any) -> dict[str, Path]:
    """Where all media of a show should lie, by the names they were served under."""
    from ritornel.web.releases.browser_media import clips_of, served_name
    from ritornel.web.shows.services import media_path
    from ritornel.web.library.services import light_path
    from ritornel.web.library.services import tempo_path

    assets = {asset.id: asset for asset in show.assets}
    paths = {served_name(asset): light_path(asset.sha256) if asset.heavy else media_path(asset.sha256) for asset in show.assets}
    sped = {(assets[clip.asset_id], clip.rate_pct) for clip in clips_of(show) if clip.rate_pct != 100 and clip.asset_id in assets}
    return paths | {served_name(asset, rate_pct): tempo_path(asset.sha256, rate_pct) for asset, rate_pct in sped}


def lay_out(apps: Any, _: Any) -> None:
    """Each edition as it is, with the media it was made with."""
    from ritornel.core.document.decoding import from_json
    from ritornel.core.document.show import Show
    from ritornel.web.releases.folders import CALM, FIRST, PERFORMANCE, put_beside, put_in_place, write_words
    from ritornel.web.shows.models import new_id

    for edition in apps.get_model("releases", "Edition").objects.select_related("release").iterator(chunk_size=1):
        performance = bytes(edition.performance)
        paths = _files_of(from_json(bytes(edition.document), Show, "The edition"))
        folder = Path(settings.VAR) / "editions" / f".{new_id()}"
        folder.mkdir(parents=True)
        for name, words in ((PERFORMANCE, performance), (CALM, bytes(edition.calm) or performance)):
            show = msgspec.json.decode(words)
            # They were addresses of this server: /s/ADDRESS/NUMBER/NAME.
            show["media"] = {key: place.rpartition("/")[2] for key, place in show["media"].items()}
            write_words(folder, name, msgspec.json.encode(show))
            for served in show["media"].values():
                if served in paths and paths[served].is_file() and not (folder / served).exists():
                    put_beside(paths[served], folder / served)
        (folder / FIRST).write_bytes(bytes(edition.first))
        put_in_place(folder, edition.release.address, edition.number)
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
