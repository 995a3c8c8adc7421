"""The reverse of "type on"."""

from ritornel.core.motion.effects import enters_type_on
from ritornel.core.motion.leaving import leaving

EFFECT = leaving(enters_type_on.EFFECT, "leaves type off", "Type off")
