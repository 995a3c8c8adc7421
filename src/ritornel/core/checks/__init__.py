"""The readiness check: what in a show would make its audience stumble, each with a mend where one exists. A new check is a file here, listed below."""

from collections.abc import Callable, Iterator

from ritornel.core.checks import alternatives, credit, cuts, holds, music_end, off_frame, presses, reading, small_words, upscaled
from ritornel.core.checks.finding import SEVERITIES, Finding, Look, Mend
from ritornel.core.document.show import Show
from ritornel.core.schedule.performance import perform

CHECKS: tuple[Callable[[Look], Iterator[Finding]], ...] = (
    holds.find,
    reading.find,
    cuts.find,
    music_end.find,
    off_frame.find,
    upscaled.find,
    presses.find,
    small_words.find,
    alternatives.find,
    credit.find,
)


def check_show(show: Show) -> tuple[Finding, ...]:
    """All findings: those the audience suffers from most come first, then in the order of the show. Raises RitornelError where it cannot be performed."""
    look = Look.of(show, perform(show))
    found = [finding for check in CHECKS for finding in check(look)]
    return tuple(sorted(found, key=lambda finding: (SEVERITIES.index(finding.severity), finding.at_ms)))


__all__ = ["CHECKS", "SEVERITIES", "Finding", "Look", "Mend", "check_show"]
