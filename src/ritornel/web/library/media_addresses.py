"""Where browsers find the media of a show.

What is derived from them has the renderer's version in its address, so that browsers may keep it for ever.
"""

from django.urls import reverse

from ritornel.core.document.show import Asset
from ritornel.core.render.version import RENDERER


def browser_address(show_id: str, asset: Asset, rate_pct: int = 100) -> str:
    """Of a heavy clip its lighter copy, of a sound at another speed that."""
    if rate_pct != 100:
        return reverse("media-tempo", args=[show_id, asset.id, RENDERER, rate_pct])
    return (
        reverse("media-light", args=[show_id, asset.id, RENDERER])
        if asset.heavy
        else reverse("media", args=[show_id, asset.id])
    )


def derived_address(show_id: str, asset: Asset) -> str:
    """Below which thumbnail, filmstrip and waveform of an asset lie."""
    return f"{reverse('media', args=[show_id, asset.id])}/v{RENDERER}"
