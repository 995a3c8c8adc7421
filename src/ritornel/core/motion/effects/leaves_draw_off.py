"""The reverse of "draw on"."""

from ritornel.core.motion.effects import enters_draw_on
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_draw_on.EFFECT, "leaves draw off", "Draw off")
