"""Named values for the numbers that say when, and how often, something runs."""

ON_SLIDE = -1
"""The `beat` of what runs on the slide's own clock, whatever its beats do."""
NO_BUILD = -1
"""The `build` of what moves without any, as a picture that drifts."""
UNTIL_SLIDE_ENDS = 0
"""The `repeats` of what begins again and again until its slide ends."""
ONCE_BENEATH = -1
"""The `repeats` of what runs once, and goes on beneath later beats."""
