import shutil
from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_delete


class TakesConfig(AppConfig):
    name = "ritornel.web.takes"
    label = "takes"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from ritornel.web.takes.models import Recording

        post_delete.connect(_clear, sender=Recording, dispatch_uid="ritornel.takes.clear")


def _clear(instance: Any, **_: Any) -> None:
    """The files of a recording are removed with it; what was kept of it is on the shelf."""
    from ritornel.web.takes.recording_files import recording_folder

    shutil.rmtree(recording_folder(instance.pk), ignore_errors=True)
