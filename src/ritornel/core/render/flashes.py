"""Flashes, counted in rendered frames by WCAG 2.2, success criterion 2.3.1
(https://www.w3.org/TR/WCAG22/#three-flashes-or-below-threshold): a flash is a pair of opposing changes of relative
luminance by a tenth or more, the darker of the two below 0.8, over a large enough part of what is seen.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from ritornel.core.schedule.measurements import Flashes

CHANGE, DARKER = 0.1, 0.8
AREA = 0.028
"""The part of the frame from which on it counts: a quarter of 341 × 256 px of a screen of 1024 × 768, the criterion's
own measure.
"""
KEPT = 24
"""So many of each pixel's changes are kept: twelve flashes are as bad as more."""
SECOND_MS = 1000.0

_CODES = np.arange(256) / 255
LINEAR = np.where(_CODES <= 0.04045, _CODES / 12.92, ((_CODES + 0.055) / 1.055) ** 2.4).astype(np.float32)
RED, GREEN, BLUE = (LINEAR * np.float32(weight) for weight in (0.2126, 0.7152, 0.0722))


def luminance_of(pixels: NDArray[np.uint8]) -> NDArray[np.float32]:
    """Relative luminance 0..1 of RGB pixels of shape (..., 3)."""
    # Codes cannot be outside the tables: not looking whether they are makes it three times as quick.
    red, green, blue = (table.take(pixels[..., at], mode="clip") for at, table in enumerate((RED, GREEN, BLUE)))
    return np.asarray(red + green + blue, dtype=np.float32)


BLOCK = 4
"""Pixels to a side that are judged together: letters and teeth that move across the frame are a fine pattern, which the
criterion excepts.
"""


def in_blocks(luminance: NDArray[np.float32]) -> NDArray[np.float32]:
    """The mean of each block of 4 × 4 of a frame, or of each of several (n, rows, columns); incomplete blocks at the
    right and below are left out.
    """
    rows, columns = luminance.shape[-2] // BLOCK, luminance.shape[-1] // BLOCK
    lines = luminance[..., : rows * BLOCK, : columns * BLOCK].reshape(
        *luminance.shape[:-2], rows, BLOCK, columns * BLOCK
    )
    summed = lines.sum(axis=-2)
    # A product with a vector is six times as quick as a mean over so short an axis.
    return np.asarray(
        summed.reshape(*summed.shape[:-1], columns, BLOCK) @ np.full(BLOCK, 1 / BLOCK**2, dtype=np.float32),
        dtype=np.float32,
    )


class FlashMeter:
    """Takes frames in order and finds their worst second.

    Each pixel's changes are counted separately: what moves across the frame changes many pixels once, and does not
    flash.
    """

    def __init__(self) -> None:
        self._high: NDArray[np.float32] | None = None
        self._low: NDArray[np.float32] | None = None
        self._way: NDArray[np.int8] | None = None
        self._times: NDArray[np.float32] | None = None
        self._worst = Flashes()

    def take_all(self, frames: NDArray[np.uint8], times_ms: Sequence[float]) -> None:
        """Takes frames of RGB (n, rows, columns, 3), and the instant when each begins."""
        for blocks, at_ms in zip(in_blocks(luminance_of(frames)), times_ms, strict=True):
            self.take(blocks, at_ms)

    def take(self, luminance: NDArray[np.float32], at_ms: float) -> None:
        """Takes the frame that begins at `at_ms`."""
        if self._high is None or self._low is None or self._way is None or self._times is None:
            self._high, self._low, self._way = (
                luminance.copy(),
                luminance.copy(),
                np.zeros(luminance.shape, dtype=np.int8),
            )
            self._times = np.full((KEPT, *luminance.shape), -np.inf, dtype=np.float32)
            return
        np.maximum(self._high, luminance, out=self._high)
        np.minimum(self._low, luminance, out=self._low)
        up = (luminance - self._low >= CHANGE) & (self._low < DARKER) & (self._way != 1)
        down = (self._high - luminance >= CHANGE) & (luminance < DARKER) & (self._way != -1) & ~up
        changed = up | down
        if not changed.any():
            return
        self._way[up], self._way[down] = 1, -1
        self._high[changed] = self._low[changed] = luminance[changed]
        self._times[1:, changed] = self._times[:-1, changed]
        self._times[0, changed] = at_ms
        self._judge(at_ms)

    def _judge(self, at_ms: float) -> None:
        """Compares the second up to now with the worst before: the number of flashes that enough pixels had in it."""
        assert self._times is not None
        flashes = (at_ms - self._times < SECOND_MS).sum(axis=0) // 2
        most = 0
        while (flashes > most).mean() >= AREA:
            most += 1
        if most > self._worst.most:
            self._worst = Flashes(most, max(at_ms - SECOND_MS, 0.0))

    def worst(self) -> Flashes:
        """The worst second of all frames."""
        return self._worst
