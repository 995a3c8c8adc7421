from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "ritornel.web.people"
    label = "people"
    default_auto_field = "django.db.models.BigAutoField"
