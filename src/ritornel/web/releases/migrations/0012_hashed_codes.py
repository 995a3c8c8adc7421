"""Codes of guests are kept as hashes. Links that are out still work; they cannot be shown again."""

import hashlib
import hmac
from typing import Any

from django.conf import settings
from django.db import migrations, models


def hash_codes(apps: Any, _: Any) -> None:
    for guest in apps.get_model("releases", "Guest").objects.iterator():
        words = f"ritornel hash of a code\0{guest.code}".encode()
        guest.code_hash = hmac.digest(settings.SECRET_KEY.encode(), words, hashlib.sha256).hex()
        guest.save(update_fields=["code_hash"])


class Migration(migrations.Migration):
    dependencies = [("releases", "0011_editions_without_notes")]

    operations = [
        migrations.AddField("guest", "nonce", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("guest", "code_hash", models.CharField(max_length=64, null=True)),
        migrations.RunPython(hash_codes, migrations.RunPython.noop),
        migrations.RemoveField("guest", "code"),
        migrations.AlterField("guest", "nonce", models.CharField(blank=True, max_length=40)),
        migrations.AlterField("guest", "code_hash", models.CharField(max_length=64, unique=True)),
    ]
