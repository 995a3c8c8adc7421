"""What other apps may use of streams."""

from django.apps import apps

from ritornel.web.streams.hub import OVER, Feed, Hub
from ritornel.web.streams.listener import Listener
from ritornel.web.streams.server import stream_reply

__all__ = ["OVER", "Feed", "Listener", "register_feed", "stream_reply", "touch_streams"]


def _hub() -> Hub:
    found: Hub = apps.get_app_config("streams").hub  # type: ignore[attr-defined]
    return found


def register_feed(feed: Feed) -> None:
    """Registers a feed; called once, when its app is ready."""
    _hub().register(feed)


def touch_streams() -> None:
    """Notes that a streamed state outside the database has changed."""
    _hub().touch()
