"""How long a new build takes and at what pace: as its effect does by itself, unless the show has habits of its own."""

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
    """What a new build of an effect is like."""

    lasts_ms: int
    pace: Pace


def usual_build(effect: Effect, habits: Habits) -> Usual:
    """The habits go for what enters, and backwards for what leaves: who comes easing out goes easing in.

    What accents and travels takes its own time, and what is cut in or out takes none.
    """
    lasts, pace = effect.lasts_ms, PACES[effect.kind]
    if effect.kind not in ("enters", "leaves") or lasts == 0:
        return Usual(lasts, pace)
    wanted = habits.pace or PACES["enters"]
    pace = _BACKWARDS.get(wanted, wanted) if effect.kind == "leaves" else wanted
    return Usual(lasts if habits.lasts_ms is None else habits.lasts_ms, pace)
