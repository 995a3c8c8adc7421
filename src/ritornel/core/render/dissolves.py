"""Dissolves of two slides that stand still: their planes are made once, and only blended for every frame."""

from collections.abc import Callable, Hashable

import msgspec
import numpy as np
from numpy.typing import NDArray

from ritornel.core.motion.channels import STILL
from ritornel.core.schedule.performance import FrameState, Layer

Planes = NDArray[np.uint8]
"""A frame in YUV 4:2:0: the rows of Y, then those of U and V."""


def _key(layer: Layer) -> Hashable:
    return layer.index, layer.objects, layer.view, layer.ground_played


def two_still_layers(frame_state: FrameState) -> tuple[Layer, Layer] | None:
    """The lower layer and the one that is seen through over it, where that is all there is; None for any other frame
    state.
    """
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


class Dissolves:
    """Frames of dissolves.

    `make` paints a frame state as planes. What a frame shows never depends on the frame before; how long it takes does.
    """

    def __init__(self, make: Callable[[FrameState], Planes]) -> None:
        self._make = make
        self._before: tuple[Hashable, Hashable] | None = None
        self._planes: tuple[NDArray[np.uint16], NDArray[np.uint16]] | None = None
        self._room: tuple[NDArray[np.uint16], NDArray[np.uint16]]

    def planes(self, frame_state: FrameState) -> Planes | None:
        """The frame; None where it is no dissolve, or something in it moves.

        The conversion to YUV is linear, so blending after it is blending before it, up to rounding: both are within one
        step of 256 of each other.
        """
        layers = two_still_layers(frame_state)
        keys = (_key(layers[0]), _key(layers[1])) if layers else None
        if layers is None or keys != self._before:
            # Only from its second frame on is it known that nothing moves.
            self._before, self._planes = keys, None
            return None
        if self._planes is None:
            below, above = (self._make(FrameState((msgspec.structs.replace(layer, values=STILL),))) for layer in layers)
            self._planes = below.astype(np.uint16), above.astype(np.uint16)
            self._room = np.empty_like(self._planes[0]), np.empty_like(self._planes[0])
        share = round(layers[1].values.opacity * 256)
        mixed, more = self._room
        np.multiply(self._planes[0], np.uint16(256 - share), out=mixed)
        np.multiply(self._planes[1], np.uint16(share), out=more)
        mixed += more
        mixed += np.uint16(128)
        mixed >>= np.uint16(8)
        return mixed.astype(np.uint8)
