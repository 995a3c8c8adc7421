"""The reverse of "swell"."""

from ritornel.core.motion.effects import enters_swell
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_swell.EFFECT, "leaves shrink", "Shrink")
