"""The reverse of "draw on"."""

from ritornel.core.motion.effects import enters_draw_on
from ritornel.core.motion.leaving import leaving

EFFECT = leaving(enters_draw_on.EFFECT, "leaves draw off", "Draw off")
