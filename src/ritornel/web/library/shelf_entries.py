"""Entries of the shelf for the page."""

from typing import Any

from django.urls import reverse

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.show import Asset, Show
from ritornel.web.library.media_addresses import browser_address, derived_address
from ritornel.web.shows.services import fault_of


def shelf_line(show: Show, asset: Asset) -> dict[str, Any]:
    """An entry of the shelf with its address, the address for browsers, and that of its thumbnail."""
    return shelf_line_at(show.id, asset)


def shelf_line_at(show_id: str, asset: Asset) -> dict[str, Any]:
    """The same, of an entry of the show with this id."""
    derived = derived_address(show_id, asset)
    about = {
        "address": reverse("media", args=[show_id, asset.id]),
        "shown": browser_address(show_id, asset),
        "derived": derived,
        "kind": asset.kind,
        "small": f"{derived}/small" if asset.width_px else None,
        "fault": fault_of(asset),
    }
    return {**to_builtins(asset), **about}
