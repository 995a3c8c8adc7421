"""Decoded pictures, kept while they are used."""

from collections.abc import Callable
from pathlib import Path

import skia

from ritornel.core.document.show import Asset
from ritornel.core.errors import BadMedia

MediaPath = Callable[[str], Path]
"""Where a medium lies, by its SHA-256."""


class Pictures:
    """Decoded pictures by their hash.

    With `largest_px` none has a longer side: for painters of thumbnails, which share it. `kept_pixels` lowers the limit
    of what is kept.
    """

    KEPT_PIXELS, MOST_PIXELS = 12_000_000, 60_000_000
    """Decoded pictures that are not being painted are kept up to the first, about 48 MB, and the longest unused go
    first; those of what is being painted up to the second, so that none is decoded again for every frame.
    """

    def __init__(self, media: MediaPath, largest_px: int | None = None, kept_pixels: int | None = None) -> None:
        self._media, self._largest_px, self._kept_pixels = media, largest_px, kept_pixels or self.KEPT_PIXELS
        self._images: dict[str, skia.Image] = {}
        self._wanted: set[str] = set()

    def begin(self) -> None:
        """A new frame begins: what is requested from now on is what is being painted."""
        self._wanted.clear()

    def image(self, asset: Asset | None, asset_id: str) -> skia.Image:
        """The asset's picture. Raises BadMedia where it is missing or cannot be read."""
        if asset is not None and asset.sha256 in self._images:
            self._wanted.add(asset.sha256)
            image = self._images.pop(asset.sha256)
            self._images[asset.sha256] = image
            return image
        path = self._media(asset.sha256) if asset else None
        if asset is None or path is None or not path.is_file():
            raise BadMedia(
                f"The picture “{asset.name if asset else asset_id}” is missing, so its slide cannot be drawn."
            )
        image = skia.Image.MakeFromEncoded(skia.Data.MakeFromFileName(str(path)))
        if image is None:
            raise BadMedia(f"The picture “{asset.name}” cannot be read.")
        image = self._small(image.makeRasterImage())
        self._wanted.add(asset.sha256)
        self._images[asset.sha256] = image
        self._let_go()
        return image

    def _small(self, image: skia.Image) -> skia.Image:
        longest = max(image.width(), image.height())
        if self._largest_px is None or longest <= self._largest_px:
            return image
        scale = self._largest_px / longest
        return image.resize(max(round(image.width() * scale), 1), max(round(image.height() * scale), 1))

    def _let_go(self) -> None:
        """Removes the least recently used pictures, as far as the limits require."""
        pixels = sum(kept.width() * kept.height() for kept in self._images.values())
        for sha256 in list(self._images)[:-1]:
            if pixels <= (self.MOST_PIXELS if sha256 in self._wanted else self._kept_pixels):
                continue
            gone = self._images.pop(sha256)
            pixels -= gone.width() * gone.height()
