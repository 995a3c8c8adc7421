"""The reverse of "swell"."""

from ritornel.core.motion.effects import enters_swell
from ritornel.core.motion.leaving import leaving

EFFECT = leaving(enters_swell.EFFECT, "leaves shrink", "Shrink")
