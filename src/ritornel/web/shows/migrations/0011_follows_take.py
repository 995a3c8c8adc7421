from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("shows", "0010_also_live")]

    operations = [
        migrations.AddField(model_name="show", name="follows_take", field=models.CharField(blank=True, default="", max_length=200)),
    ]
