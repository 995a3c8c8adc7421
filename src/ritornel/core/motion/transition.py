"""What a transition is."""

from collections.abc import Callable
from typing import Any

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings


class Moved(msgspec.Struct, frozen=True):
    """An object that a carry moves during the transition."""

    object_id: str
    ramps: tuple[Ramp, ...]


class Layers(msgspec.Struct, frozen=True):
    """Ramps of the old slide and of the new slide, which lies above it unless the old one stays on top. A transition
    that `carries` also moves objects, and fades the new slide's ground by itself: keys of its opacity.
    """

    old: tuple[Ramp, ...] = ()
    new: tuple[Ramp, ...] = ()
    old_on_top: bool = False
    carries: bool = False
    old_objects: tuple[Moved, ...] = ()
    new_objects: tuple[Moved, ...] = ()
    new_ground: tuple[tuple[float, float], ...] = ()


class TransitionKind(msgspec.Struct, frozen=True):
    """`layers` turns settings, the pace's curve and the frame's width and height in px into ramps over its progress."""

    name: str
    title: str
    layers: Callable[[Any, Curve, int, int], Layers]
    settings: type[msgspec.Struct] = NoSettings
    lasts_ms: int = 800
