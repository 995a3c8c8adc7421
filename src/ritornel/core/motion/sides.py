"""The sides that things come from and go to."""

from typing import Literal

Side = Literal["left", "right", "above", "below"]
WAY: dict[str, tuple[float, float]] = {
    "left": (-1.0, 0.0),
    "right": (1.0, 0.0),
    "above": (0.0, -1.0),
    "below": (0.0, 1.0),
}
"""The unit way from the middle towards a side."""
AWAY_FROM_DEG: dict[str, float] = {"left": 0.0, "right": 180.0, "above": 90.0, "below": 270.0}
"""The direction in which something runs that begins at a side."""
