"""Leaving as the reverse of entering."""

from typing import Any

import msgspec

from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import Curve
from ritornel.core.motion.effect import Effect


def reversed_curve(curve: Curve) -> Curve:
    """The curve run backwards: what began gently ends gently."""
    x1, y1, x2, y2 = curve
    return 1 - x2, 1 - y2, 1 - x1, 1 - y1


def leaving(entering: Effect, name: str, title: str) -> Effect:
    """The effect by which something goes as it came. Its pace is that of the leaving, not of the coming run
    backwards.
    """

    def ramps(settings: Any, curve: Curve) -> tuple[Ramp, ...]:
        return tuple(
            msgspec.structs.replace(
                ramp,
                keys=tuple((1.0 - at, value) for at, value in reversed(ramp.keys)),
                curve=reversed_curve(ramp.curve),
            )
            for ramp in entering.ramps(settings, reversed_curve(curve))
        )

    return Effect(
        name=name, title=title, kind="leaves", ramps=ramps, settings=entering.settings, lasts_ms=entering.lasts_ms
    )
