from typing import TYPE_CHECKING

from django.apps import AppConfig

if TYPE_CHECKING:
    from ritornel.web.streams.hub import Hub


class StreamsConfig(AppConfig):
    name = "ritornel.web.streams"
    label = "streams"
    hub: "Hub"

    def ready(self) -> None:
        from ritornel.web.streams.hub import Hub

        self.hub = Hub()
