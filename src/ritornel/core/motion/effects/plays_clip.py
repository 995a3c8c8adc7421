"""Plays a clip from its in point to its out point. The clip decides how long that takes (domain rule 4)."""

from ritornel.core.document.objects import PLAYS
from ritornel.core.motion.channels import Ramp
from ritornel.core.motion.easing import EVEN, Curve
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import NoSettings


def _ramps(settings: NoSettings, curve: Curve) -> tuple[Ramp, ...]:
    # Time in a clip passes evenly, whatever the pace.
    return (Ramp("played", ((0.0, 0.0), (1.0, 1.0)), EVEN),)


EFFECT = Effect(name=PLAYS, title="Play", kind="plays", ramps=_ramps)
