"""Codes of runs are kept as hashes. Runs live for a day at most: those that are open while this runs are ended."""

from typing import Any

from django.db import migrations, models


def end_all(apps: Any, _: Any) -> None:
    apps.get_model("stage", "Run").objects.all().delete()


class Migration(migrations.Migration):
    dependencies = [("stage", "0001_runs")]

    operations = [
        migrations.RunPython(end_all, migrations.RunPython.noop),
        migrations.RemoveField("run", "house_code"),
        migrations.RemoveField("run", "remote_code"),
        migrations.AddField("run", "nonce", models.CharField(max_length=40, default="")),
        migrations.AddField("run", "house_hash", models.CharField(max_length=64, unique=True, default="")),
        migrations.AddField("run", "remote_hash", models.CharField(max_length=64, unique=True, default="")),
        migrations.AlterField("run", "nonce", models.CharField(max_length=40)),
        migrations.AlterField("run", "house_hash", models.CharField(max_length=64, unique=True)),
        migrations.AlterField("run", "remote_hash", models.CharField(max_length=64, unique=True)),
    ]
