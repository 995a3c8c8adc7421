"""The reverse of "settle"."""

from ritornel.core.motion.effects import enters_settle
from ritornel.core.motion.leaving import leaving

EFFECT = leaving(enters_settle.EFFECT, "leaves loosen", "Loosen")
