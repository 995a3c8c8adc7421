from typing import TYPE_CHECKING

from django.apps import AppConfig

if TYPE_CHECKING:
    from ritornel.web.shows.presence import Presence


class ShowsConfig(AppConfig):
    name = "ritornel.web.shows"
    label = "shows"
    default_auto_field = "django.db.models.BigAutoField"
    presence: "Presence"

    def ready(self) -> None:
        from ritornel.web.shows.presence import Presence
        from ritornel.web.shows.show_feed import ShowFeed
        from ritornel.web.streams.services import register_feed

        self.presence = Presence()
        register_feed(ShowFeed(self.presence))
