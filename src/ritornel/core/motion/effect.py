"""What an effect is."""

from collections.abc import Callable
from typing import Any, Literal

import msgspec

from ritornel.core.layout.marks import Mark, ObjectDrawing
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.settings import NoSettings

EffectKind = Literal["enters", "accents", "travels", "leaves", "views", "plays"]
"""What a build does to its object; one that *views* moves the view over the slide instead, one that *plays* runs a
clip.
"""


Extra = Callable[[Any, ObjectDrawing, Callable[[str], str]], tuple[Mark, ...]]
"""From settings, the object's drawing and what looks a role's colour up: marks that the build adds to the object."""


class Effect(msgspec.Struct, frozen=True, kw_only=True):
    """An effect.

    `ramps` turns settings and the pace's curve into ramps over the build's progress. An effect that enters ends with
    every channel neutral (shares 1, the rest 0); an accent also begins so; one that leaves begins so. With `extra` the
    ramps move the marks it adds and not the object; those marks are hidden before, and after unless the setting `then`
    is *stays*. Never shorter than `least_ms`.
    """

    name: str
    title: str
    kind: EffectKind
    ramps: Callable[[Any, Curve], tuple[Ramp, ...]]
    settings: type[msgspec.Struct] = NoSettings
    lasts_ms: int = 600
    repeats: int = 1
    extra: Extra | None = None
    least_ms: int = 0
