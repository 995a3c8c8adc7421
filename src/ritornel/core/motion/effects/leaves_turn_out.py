"""The reverse of "turn in"."""

from ritornel.core.motion.effects import enters_turn_in
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_turn_in.EFFECT, "leaves turn out", "Turn out")
