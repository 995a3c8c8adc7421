"""Editions move out of the database into folders of static files."""

from typing import Any

import msgspec
from django.db import migrations, models


def lay_out(apps: Any, _: Any) -> None:
    """Each edition as it is, with the media it was made with."""
    from ritornel.core.document.decoding import from_json
    from ritornel.core.document.show import Show
    from ritornel.web.releases.browser_media import files_of
    from ritornel.web.releases.folders import lay_out_old

    for edition in apps.get_model("releases", "Edition").objects.select_related("release").iterator(chunk_size=1):
        performance = bytes(edition.performance)
        paths = files_of(from_json(bytes(edition.document), Show, "The edition"))
        lay_out_old(edition.release.address, edition.number, performance, bytes(edition.calm), bytes(edition.first), paths)
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
