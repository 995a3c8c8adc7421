"""The reverse of "rise"."""

from ritornel.core.motion.effects import enters_rise
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_rise.EFFECT, "leaves sink", "Sink")
