"""The reverse of "slide in"."""

from ritornel.core.motion.effects import enters_slide_in
from ritornel.core.motion.leaving import reverse_effect

EFFECT = reverse_effect(enters_slide_in.EFFECT, "leaves slide out", "Slide out")
