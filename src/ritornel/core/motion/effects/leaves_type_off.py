"""The reverse of "type on"."""

from ritornel.core.motion.effects import enters_type_on
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_type_on.EFFECT, "leaves type off", "Type off")
