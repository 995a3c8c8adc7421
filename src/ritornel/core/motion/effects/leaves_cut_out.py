"""The reverse of "cut in"."""

from ritornel.core.motion.effects import enters_cut_in
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_cut_in.EFFECT, "leaves cut out", "Cut out")
