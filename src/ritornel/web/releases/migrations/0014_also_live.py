"""Editions and films that were asked for keep going on by themselves where they did; their shows say so now."""

import json
from typing import Any

from django.db import migrations


def mark_documents(apps: Any, _: Any) -> None:
    for name in ("Edition", "FilmJob"):
        for row in apps.get_model("releases", name).objects.only("document").iterator(chunk_size=50):
            if not bytes(row.document):
                continue
            show = json.loads(bytes(row.document))
            if show.get("runs") != "on cue":
                continue
            for slide in show.get("slides", []):
                if slide.get("advance", {"rule": "after"}).get("rule") in ("after", "voice"):
                    slide["also_live"] = True
            row.document = json.dumps(show, separators=(",", ":"), ensure_ascii=False).encode()
            row.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("releases", "0013_leases"), ("shows", "0010_also_live")]

    operations = [migrations.RunPython(mark_documents, migrations.RunPython.noop)]
