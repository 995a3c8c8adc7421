from django.apps import AppConfig


class PeopleConfig(AppConfig):
    name = "ritornel.web.people"
    label = "people"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from ritornel.web.config.full_disk import keep_sign_in_working

        keep_sign_in_working()
