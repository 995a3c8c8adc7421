"""Dissolves between two still slides: their planes are made once, and blended for each frame."""

from collections.abc import Callable, Hashable, Iterator

import msgspec
import numpy as np
from numpy.typing import NDArray

from ritornel.core.motion.channels import STILL
from ritornel.core.render.frame_types import Blend
from ritornel.core.schedule.performance import FrameState, Layer

Planes = NDArray[np.uint8]
"""A frame in YUV 4:2:0: the rows of Y, then those of U and V."""


def _key(layer: Layer) -> Hashable:
    return layer.index, layer.objects, layer.view, layer.ground_played


def _is_still(frame_state: FrameState) -> bool:
    """Whether the layer is one whole slide on which nothing moves."""
    layers = frame_state.layers
    return len(layers) == 1 and layers[0].values == STILL and layers[0].ground >= 1 and not frame_state.blackness


def two_still_layers(frame_state: FrameState) -> tuple[Layer, Layer] | None:
    """The lower layer and the transparent one above it, where there is nothing else; None for any other frame state."""
    if frame_state.blackness or len(frame_state.layers) != 2:
        return None
    below, above = frame_state.layers
    if (
        below.values != STILL
        or below.ground < 1
        or above.ground < 1
        or msgspec.structs.replace(above.values, opacity=1.0) != STILL
    ):
        return None
    return below, above


def blend_of(frame_state: FrameState) -> Blend | None:
    """What a frame of a dissolve is mixed from; None for any other frame."""
    layers = two_still_layers(frame_state)
    if layers is None:
        return None
    return Blend((_key(layers[0]), _key(layers[1])), round(layers[1].values.opacity * 256))


class Dissolves:
    """Frames of dissolves.

    `make` paints a frame state as planes. The content of a frame never depends on the frame before; the time it takes
    does.
    """

    def __init__(self, make: Callable[[FrameState], Planes]) -> None:
        self._make = make
        # Slides that stand still, as planes: the two of the last dissolve.
        self._still: dict[Hashable, Planes] = {}
        self._before: Hashable = None
        self._mixing: tuple[NDArray[np.uint16], NDArray[np.uint16]] | None = None

    def planes(self, frame_state: FrameState, blend: Blend | None) -> Planes | None:
        """The frame, mixed as `blend_of` says, or the slide at the end of a dissolve; None for any other frame, and
        where something moves.

        The conversion to YUV is linear, so blending after it equals blending before it, up to rounding: the two differ
        by at most one step of 256.
        """
        if blend is None or blend.pictures != self._before:
            # Only from its second frame on is it known that nothing moves.
            self._before, self._mixing = blend and blend.pictures, None
            return self._still.get(_key(frame_state.layers[0])) if blend is None and _is_still(frame_state) else None
        if self._mixing is None:
            self._still = {_key(layer): self._planes_of(layer) for layer in frame_state.layers}
            below, above = (self._still[_key(layer)] for layer in frame_state.layers)
            self._mixing = _for_mixing(below, above)
        return _mix(*self._mixing, blend.share)

    def _planes_of(self, layer: Layer) -> Planes:
        kept = self._still.get(_key(layer))
        return self._make(FrameState((msgspec.structs.replace(layer, values=STILL),))) if kept is None else kept


def _for_mixing(below: Planes, above: Planes) -> tuple[NDArray[np.uint16], NDArray[np.uint16]]:
    """256 times the lower planes and a half, and the difference of the upper ones, modulo 65 536."""
    return below.astype(np.uint16) * 256 + 128, above.astype(np.uint16) - below


def _mix(lower: NDArray[np.uint16], more: NDArray[np.uint16], share: int) -> Planes:
    """The planes with `share` of 256 of the upper ones, rounded half up.

    Each sum lies between 128 and 65 408, so that counting modulo 65 536 is exact: for 10 and 250, 128 of 256 give (10 *
    256 + 128 + 240 * 128) // 256 = 130.
    """
    made = np.empty(lower.shape, dtype=np.uint8)
    for rows in _bands(lower.shape):
        mixed = more[rows] * np.uint16(share)
        mixed += lower[rows]
        mixed >>= np.uint16(8)
        made[rows] = mixed
    return made


def _bands(shape: tuple[int, ...]) -> Iterator[slice]:
    """Groups of rows that fit into a processor's cache, of about 64 kB."""
    high = max(1, 32_768 // shape[1])
    return (slice(first, first + high) for first in range(0, shape[0], high))
