"""How loud the whole show is, where that was measured."""

import math
from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.sound.mastering import TARGET_LUFS

TITLE = "Louder or quieter than it should be"

WITHIN_LU = 0.5
QUIET_LUFS = -40.0
"""Below this nobody meant it to be heard: levels were pulled down, or a microphone was off."""


def _minus(value: float) -> str:
    return f"{value:.1f}".replace("-", "−")


def find(look: CheckedShow) -> Iterator[Finding]:
    """A film that cannot reach its loudness (BS.1770, −16 LUFS ± 0.5), and a show that is hard to hear."""
    heard = look.loudness
    if heard is None or heard.lufs is None:
        return
    if heard.lufs < QUIET_LUFS:
        title = f"The whole is as quiet as {_minus(heard.lufs)} LUFS"
        yield Finding(
            id="loudness:quiet",
            check="loudness",
            severity="hurts",
            title=title,
            why="In a browser it can hardly be heard, and in a film its hiss is raised along with it.",
        )
    if (
        heard.lands_at_lufs is not None
        and math.isfinite(heard.lands_at_lufs)
        and abs(heard.lands_at_lufs - TARGET_LUFS) > WITHIN_LU
    ):
        title = f"A film lands at {_minus(heard.lands_at_lufs)} LUFS instead of {_minus(TARGET_LUFS)} ± {WITHIN_LU}"
        why = (
            "It is louder or softer than what is played before and after it: its loudest peaks leave no "
            "room. Lower the loudest sounds."
        )
        yield Finding(id="loudness:lands", check="loudness", severity="polish", title=title, why=why)
