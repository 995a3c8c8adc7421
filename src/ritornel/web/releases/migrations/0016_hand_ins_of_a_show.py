from django.db import migrations, models
from django.db.models.deletion import SET_NULL


class Migration(migrations.Migration):
    dependencies = [("releases", "0015_silent_start_and_film_name"), ("shows", "0001_initial")]

    operations = [
        migrations.AddField(
            "handin",
            "show",
            models.ForeignKey(null=True, on_delete=SET_NULL, related_name="hand_ins", to="shows.show"),
        ),
        migrations.AddField("handin", "replaces", models.BooleanField(default=False)),
    ]
