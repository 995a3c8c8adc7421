"""The reverse of "unveil"."""

from ritornel.core.motion.effects import enters_unveil
from ritornel.core.motion.leaving import leaving

EFFECT = leaving(enters_unveil.EFFECT, "leaves veil", "Veil")
