from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("releases", "0014_also_live")]

    operations = [
        migrations.AddField("release", "starts_silent", models.BooleanField(default=False)),
        migrations.AddField("filmjob", "name", models.CharField(blank=True, default="", max_length=120)),
    ]
