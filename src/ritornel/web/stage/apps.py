from typing import TYPE_CHECKING

from django.apps import AppConfig

if TYPE_CHECKING:
    from ritornel.web.stage.rooms import Rooms


class StageConfig(AppConfig):
    name = "ritornel.web.stage"
    label = "stage"
    default_auto_field = "django.db.models.BigAutoField"
    rooms: "Rooms"

    def ready(self) -> None:
        from ritornel.web.stage.rooms import Rooms, RunFeed
        from ritornel.web.streams.services import register_feed

        self.rooms = Rooms()
        register_feed(RunFeed(self.rooms))
