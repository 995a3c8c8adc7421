"""The length and pace of a new build: the effect's own, unless the show has habits."""

import msgspec

from ritornel.core.document.show import Habits, Pace
from ritornel.core.motion.effect import Effect, EffectKind

PACES: dict[EffectKind, Pace] = {
    "enters": "ease out",
    "accents": "ease in and out",
    "travels": "ease in and out",
    "leaves": "ease in",
    "views": "ease in and out",
    "plays": "even",
}
_BACKWARDS: dict[Pace, Pace] = {"ease in": "ease out", "ease out": "ease in"}


class Usual(msgspec.Struct, frozen=True):
    """The defaults of a new build of an effect."""

    lasts_ms: int
    pace: Pace


def usual_build(effect: Effect, habits: Habits) -> Usual:
    """The defaults of an effect.

    The show's habits apply to entrances, and reversed to exits: where entrances ease out, exits ease in. Accents and
    travels keep their own lengths; cuts take no time.
    """
    lasts, pace = effect.lasts_ms, PACES[effect.kind]
    if effect.kind not in ("enters", "leaves") or lasts == 0:
        return Usual(lasts, pace)
    wanted = habits.pace or PACES["enters"]
    pace = _BACKWARDS.get(wanted, wanted) if effect.kind == "leaves" else wanted
    return Usual(lasts if habits.lasts_ms is None else habits.lasts_ms, pace)
