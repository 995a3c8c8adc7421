"""The addresses of a show's media for browsers.

Those of derived files contain the renderer's version, so that browsers may keep them for ever.
"""

from django.urls import reverse

from ritornel.core.document.show import Asset
from ritornel.core.render.version import RENDERER


def browser_address(show_id: str, asset: Asset, rate_pct: int = 100) -> str:
    """For a heavy clip its lighter copy, for a sound at another speed that sound."""
    if rate_pct != 100:
        return reverse("media-tempo", args=[show_id, asset.id, RENDERER, rate_pct])
    return (
        reverse("media-light", args=[show_id, asset.id, RENDERER])
        if asset.heavy
        else reverse("media", args=[show_id, asset.id])
    )


def derived_address(show_id: str, asset: Asset) -> str:
    """The base address of an asset's thumbnail, filmstrip and waveform."""
    return f"{reverse('media', args=[show_id, asset.id])}/v{RENDERER}"
