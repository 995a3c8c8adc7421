from django.apps import AppConfig


class ShowsConfig(AppConfig):
    name = "ritornel.web.shows"
    label = "shows"
    default_auto_field = "django.db.models.BigAutoField"
