from django.apps import AppConfig


class ReleasesConfig(AppConfig):
    name = "ritornel.web.releases"
    label = "releases"
    default_auto_field = "django.db.models.BigAutoField"
