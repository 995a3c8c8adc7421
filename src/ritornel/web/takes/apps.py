from django.apps import AppConfig


class TakesConfig(AppConfig):
    name = "ritornel.web.takes"
    label = "takes"
    default_auto_field = "django.db.models.BigAutoField"
