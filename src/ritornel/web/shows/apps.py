from typing import TYPE_CHECKING

from django.apps import AppConfig

if TYPE_CHECKING:
    from ritornel.web.editor.services import Presence


class ShowsConfig(AppConfig):
    name = "ritornel.web.shows"
    label = "shows"
    default_auto_field = "django.db.models.BigAutoField"
    presence: "Presence"

    def ready(self) -> None:
        from ritornel.web.editor.services import Presence, ShowFeed
        from ritornel.web.streams.services import register_feed

        self.presence = Presence()
        register_feed(ShowFeed(self.presence))
