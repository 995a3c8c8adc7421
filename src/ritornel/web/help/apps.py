from django.apps import AppConfig


class HelpConfig(AppConfig):
    name = "ritornel.web.help"
    label = "help"
    default_auto_field = "django.db.models.BigAutoField"
