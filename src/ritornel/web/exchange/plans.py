"""What a file of another format would become, shown before anything is made."""

from collections.abc import Sequence
from typing import Any

from ritornel.core.document.show import Show
from ritornel.core.formats.opendocument.names import Loss


def loss_lines(losses: Sequence[Loss]) -> list[dict[str, Any]]:
    """The losses, by slide: {"slide" (0: the whole show), "words"}."""
    return [{"slide": loss.slide, "words": loss.words} for loss in losses]


def plan_of(show: Show, losses: Sequence[Loss]) -> dict[str, Any]:
    """The show that a file would become: {"title", "slides", "media", "losses": [{"slide" (0: the whole show),
    "words"}]}.
    """
    return {"title": show.title, "slides": len(show.slides), "media": len(show.assets), "losses": loss_lines(losses)}
