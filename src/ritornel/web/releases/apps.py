from typing import Any

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import post_delete


class ReleasesConfig(AppConfig):
    name = "ritornel.web.releases"
    label = "releases"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from ritornel.web.releases.models import Release
        from ritornel.web.releases.release_feed import ReleaseFeed
        from ritornel.web.streams.services import register_feed

        register_feed(ReleaseFeed())
        post_delete.connect(_clear, sender=Release, dispatch_uid="ritornel.releases.clear")


def _clear(instance: Any, **_: Any) -> None:
    """What the editions of a release were served from goes with it, once it is certain that it goes."""
    from ritornel.web.releases.folders import clear

    transaction.on_commit(lambda: clear(instance.address))
