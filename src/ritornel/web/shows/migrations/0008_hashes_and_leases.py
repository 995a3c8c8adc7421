"""Assets are found by their hash, and lengths that no medium has are cut; readings are held by leases."""

import json
from typing import Any

from django.db import migrations, models

LONGEST_MS = 24 * 60 * 60 * 1000
LARGEST_PX = 100_000


def fill_hashes(apps: Any, _: Any) -> None:
    assets = apps.get_model("shows", "Asset")
    for row in assets.objects.iterator(chunk_size=500):
        body = json.loads(bytes(row.body))
        row.sha256 = body["sha256"]
        bounded = {
            **body, **{name: max(0, min(body.get(name, 0), most)) for name, most in (("lasts_ms", LONGEST_MS), ("width_px", LARGEST_PX), ("height_px", LARGEST_PX))}
        }
        if bounded != {"lasts_ms": 0, "width_px": 0, "height_px": 0, **body}:
            row.body = json.dumps(bounded, separators=(",", ":"), ensure_ascii=False).encode()
        row.save(update_fields=["sha256", "body"])


class Migration(migrations.Migration):
    dependencies = [("shows", "0007_archives_read")]

    operations = [
        migrations.AddField("asset", "sha256", models.CharField(max_length=64, default="", db_index=True)),
        migrations.RunPython(fill_hashes, migrations.RunPython.noop),
        migrations.AlterField("asset", "sha256", models.CharField(max_length=64, db_index=True)),
        migrations.RemoveField("reading", "heard_at"),
        migrations.AddField("reading", "holder", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("reading", "boot", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("reading", "leased_until_s", models.FloatField(default=0.0)),
        migrations.AddField("reading", "resumed", models.IntegerField(default=0)),
    ]
