import shutil
from pathlib import Path
from typing import Any

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import post_delete


class ReleasesConfig(AppConfig):
    name = "ritornel.web.releases"
    label = "releases"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        from ritornel.web.releases.models import Edition, FilmJob, HandIn, Release
        from ritornel.web.releases.release_feed import ReleaseFeed
        from ritornel.web.streams.services import register_feed

        register_feed(ReleaseFeed())
        post_delete.connect(_clear, sender=Release, dispatch_uid="ritornel.releases.clear")
        post_delete.connect(_clear_edition, sender=Edition, dispatch_uid="ritornel.releases.clear_edition")
        post_delete.connect(_clear_film, sender=FilmJob, dispatch_uid="ritornel.releases.clear_film")
        post_delete.connect(_clear_hand_in, sender=HandIn, dispatch_uid="ritornel.releases.clear_hand_in")


def _clear_edition(instance: Any, **_: Any) -> None:
    """The folder of an edition is removed with it."""
    from ritornel.web.releases.folders import edition_place

    place = edition_place(instance.release.address, instance.number)
    transaction.on_commit(lambda: _remove(place))


def _clear_film(instance: Any, **_: Any) -> None:
    """A film's files are removed with its entry. Their paths are computed now: afterwards the entry has no id."""
    from ritornel.web.releases.filming import film_path, parts_path

    paths = film_path(instance), parts_path(instance)
    transaction.on_commit(lambda: _remove(*paths))


def _clear_hand_in(instance: Any, **_: Any) -> None:
    """The file of a hand-in is removed with its entry."""
    from ritornel.web.releases.handing_in import handed_in_path

    path = handed_in_path(instance)
    transaction.on_commit(lambda: _remove(path))


def _remove(*paths: Path) -> None:
    for path in paths:
        if path.is_dir():
            shutil.rmtree(path, ignore_errors=True)
        else:
            path.unlink(missing_ok=True)


def _clear(instance: Any, **_: Any) -> None:
    """The served files of a release's editions are removed once its removal is committed."""
    from ritornel.web.releases.folders import clear

    transaction.on_commit(lambda: clear(instance.address))
