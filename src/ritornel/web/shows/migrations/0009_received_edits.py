"""Edits can be sent twice and are made once."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("shows", "0008_hashes_and_leases")]

    operations = [
        migrations.CreateModel(
            name="ReceivedEdit",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("edit_id", models.CharField(max_length=40)),
                ("at", models.DateTimeField(auto_now_add=True)),
                (
                    "show",
                    models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="received_edits", to="shows.show"),
                ),
            ],
            options={
                "indexes": [models.Index(fields=["at"], name="shows_recei_at_d44736_idx")],
                "constraints": [models.UniqueConstraint(fields=("show", "edit_id"), name="an_edit_is_made_once")],
            },
        ),
    ]
