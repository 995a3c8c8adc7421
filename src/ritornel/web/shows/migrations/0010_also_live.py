"""Slides of shows that run on cue went on by themselves where they had a time or a voice. Now a slide says so; what is there goes on behaving as it did,
and so does what undo brings back."""

import json
from typing import Any

from django.db import migrations


def marked(value: Any) -> Any:
    """The value with every slide in it that goes on by itself saying so."""
    if isinstance(value, list):
        return [marked(entry) for entry in value]
    if not isinstance(value, dict):
        return value
    value = {name: marked(entry) for name, entry in value.items()}
    # A slide is what has an order of builds; JSON leaves out nothing that a slide has.
    if "order" in value and "objects" in value:
        if value.get("advance", {"rule": "after"}).get("rule") in ("after", "voice"):
            value["also_live"] = True
    return value


def encoded(value: Any) -> bytes:
    return json.dumps(value, separators=(",", ":"), ensure_ascii=False).encode()


def mark_slides(apps: Any, _: Any) -> None:
    cued = list(apps.get_model("shows", "Show").objects.filter(runs="on cue").values_list("pk", flat=True))
    for row in apps.get_model("shows", "Slide").objects.filter(show_id__in=cued).iterator(chunk_size=500):
        row.body = encoded(marked(json.loads(bytes(row.body))))
        row.save(update_fields=["body"])
    for row in apps.get_model("shows", "Edit").objects.filter(show_id__in=cued).iterator(chunk_size=200):
        row.changes, row.inverse = (encoded(marked(json.loads(bytes(body)))) for body in (row.changes, row.inverse))
        row.save(update_fields=["changes", "inverse"])


class Migration(migrations.Migration):
    dependencies = [("shows", "0009_received_edits")]

    operations = [migrations.RunPython(mark_slides, migrations.RunPython.noop)]
