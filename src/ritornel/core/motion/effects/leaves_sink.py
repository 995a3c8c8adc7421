"""The reverse of "rise"."""

from ritornel.core.motion.effects import enters_rise
from ritornel.core.motion.leaving import leaving

EFFECT = leaving(enters_rise.EFFECT, "leaves sink", "Sink")
