"""Codes are kept as hashes, and addresses are proven by a letter alone.

Links that are out still open their invitations. They prove nothing: whoever invited was shown them.
"""

import hashlib
import hmac
import secrets
from typing import Any

import django.db.models.deletion
import django.utils.timezone
from django.conf import settings
from django.db import migrations, models


def keyed(purpose: str, words: str) -> bytes:
    return hmac.digest(settings.SECRET_KEY.encode(), f"ritornel {purpose}\0{words}".encode(), hashlib.sha256)


def hash_codes(apps: Any, _: Any) -> None:
    for entry in apps.get_model("people", "Invitation").objects.iterator():
        entry.nonce = secrets.token_hex(16)
        entry.link_hash = keyed("hash of a code", keyed("code of invitation link", entry.nonce)[:24].hex()).hex()
        entry.mail_hash = keyed("hash of a code", entry.code).hex()
        entry.save(update_fields=["nonce", "link_hash", "mail_hash"])


class Migration(migrations.Migration):
    dependencies = [("people", "0001_invitations")]

    operations = [
        migrations.CreateModel(
            name="ProvenAddress",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("address", models.EmailField(max_length=254, unique=True)),
                ("at", models.DateTimeField(default=django.utils.timezone.now)),
                (
                    "person",
                    models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="proven_addresses", to=settings.AUTH_USER_MODEL),
                ),
            ],
        ),
        migrations.AddField("invitation", "nonce", models.CharField(default="", max_length=40)),
        migrations.AddField("invitation", "link_hash", models.CharField(max_length=64, null=True)),
        migrations.AddField("invitation", "mail_hash", models.CharField(max_length=64, null=True)),
        migrations.AddField("invitation", "mail_proves", models.BooleanField(default=False)),
        migrations.RunPython(hash_codes, migrations.RunPython.noop),
        migrations.RemoveField("invitation", "code"),
        migrations.AlterField("invitation", "nonce", models.CharField(max_length=40)),
        migrations.AlterField("invitation", "link_hash", models.CharField(max_length=64, unique=True)),
        migrations.AlterField("invitation", "mail_hash", models.CharField(max_length=64, unique=True)),
    ]
