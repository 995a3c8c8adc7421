"""The reverse of "unveil"."""

from ritornel.core.motion.effects import enters_unveil
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_unveil.EFFECT, "leaves veil", "Veil")
