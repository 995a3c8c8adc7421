from typing import Any

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import pre_delete


class OperationsConfig(AppConfig):
    name = "ritornel.web.operations"
    label = "operations"

    def ready(self) -> None:
        from ritornel.web.shows.services import Show, media_forgotten

        pre_delete.connect(_free, sender=Show, dispatch_uid="ritornel.operations.free")
        media_forgotten.connect(_forget, dispatch_uid="ritornel.operations.forget")


def _free(instance: Any, **_: Any) -> None:
    """The worker frees the media of a removed show once the removal is committed."""
    from ritornel.web.operations.tasks import free
    from ritornel.web.operations.tidying import hashes_of

    hashes = sorted(hashes_of(instance))
    if hashes:
        transaction.on_commit(lambda: free(hashes))


def _forget(show: Any, sha256: str, **_: Any) -> int:
    """Frees the medium of an entry that was removed for good; returns the number of freed bytes."""
    from ritornel.web.operations.tidying import free_media

    return free_media([sha256], but_log_of=show.pk).bytes
