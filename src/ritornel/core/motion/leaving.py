"""Exits as reversed entrances."""

from typing import Any

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


def reverse_curve(curve: Curve) -> Curve:
    """The curve run backwards: a gentle start becomes a gentle end."""
    x1, y1, x2, y2 = curve
    return 1 - x2, 1 - y2, 1 - x1, 1 - y1


def reverse_effect(entering: Effect, name: str, title: str) -> Effect:
    """The exit that reverses an entrance. Its pace is that of the exit, not the reversed pace of the entrance."""

    def ramps(settings: Any, curve: Curve) -> tuple[Ramp, ...]:
        return tuple(
            msgspec.structs.replace(
                ramp,
                keys=tuple((1.0 - at, value) for at, value in reversed(ramp.keys)),
                curve=reverse_curve(ramp.curve),
            )
            for ramp in entering.ramps(settings, reverse_curve(curve))
        )

    return Effect(
        name=name, title=title, kind="leaves", ramps=ramps, settings=entering.settings, lasts_ms=entering.lasts_ms
    )
