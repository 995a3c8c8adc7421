"""The level of somebody who speaks into a microphone, in words. static/ritornel/record/level.js has the
same function.
"""

import math
from typing import Literal

SOFT_DB = -30.0
LOUD_DB = -12.0
PEAK_DB = -3.0
"""Good is a mean level from -30 to -12 dB of full scale whose peaks keep 3 dB below its top: then a voice can be
brought to the others' loudness without bringing up the room, and nothing is clipped.
"""
FLOOR_DB = -60.0
Words = Literal["Too soft", "Good level", "Too loud"]


def level_db(magnitude: float) -> float:
    """A magnitude 0..1 in dB of full scale, not below -60. 1 is 0 dB, a half -6.02 dB."""
    return max(20 * math.log10(magnitude), FLOOR_DB) if magnitude > 0 else FLOOR_DB


def level_words(mean_db: float, peak_db: float) -> Words:
    """The words for somebody who spoke for about a second with this mean (RMS) and peak level.

    >>> level_words(-17.0, -6.0), level_words(-34.0, -20.0), level_words(-15.0, -1.0)
    ('Good level', 'Too soft', 'Too loud')
    """
    if mean_db > LOUD_DB or peak_db > PEAK_DB:
        return "Too loud"
    return "Too soft" if mean_db < SOFT_DB else "Good level"
