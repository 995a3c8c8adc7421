from django.apps import AppConfig


class StageConfig(AppConfig):
    name = "ritornel.web.stage"
    label = "stage"
    default_auto_field = "django.db.models.BigAutoField"
