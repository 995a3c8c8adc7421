"""The reverse of "settle"."""

from ritornel.core.motion.effects import enters_settle
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_settle.EFFECT, "leaves loosen", "Loosen")
