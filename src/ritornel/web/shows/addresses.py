"""Where browsers find the media of a show."""

from django.urls import reverse

from ritornel.core.document.show import Asset


def browser_address(show_id: str, asset: Asset, rate_pct: int = 100) -> str:
    """Of a heavy clip its lighter copy, of a sound at another speed that."""
    if rate_pct != 100:
        return reverse("media-tempo", args=[show_id, asset.id, rate_pct])
    return reverse("media-light" if asset.heavy else "media", args=[show_id, asset.id])
