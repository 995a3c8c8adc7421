"""Films are held by leases."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("releases", "0012_hashed_codes")]

    operations = [
        migrations.RemoveField("filmjob", "heard_at"),
        migrations.AlterField("filmjob", "rate", models.CharField(default="30", max_length=24)),
        migrations.AddField("filmjob", "holder", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("filmjob", "boot", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("filmjob", "leased_until_s", models.FloatField(default=0.0)),
    ]
