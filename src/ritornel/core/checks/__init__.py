"""The readiness check: what in a show would make its audience stumble, each with a fix where one exists.

A new check is a file here, listed below.
"""

from collections.abc import Callable, Iterator, Mapping

from ritornel.core.checks import (
    alternatives,
    camera,
    credit,
    cuts,
    frame_findings,
    glyphs,
    holds,
    invisible,
    links,
    loudness,
    missing,
    music_end,
    notes,
    odd_transition,
    off_frame,
    presses,
    reading,
    small_text,
    unfilled,
    unrecorded,
    upscaled,
)
from ritornel.core.checks.finding import SEVERITIES, CheckedShow, FileFault, Finding, Fix, FrameAnalysis, ShowLoudness
from ritornel.core.document.show import Show
from ritornel.core.schedule.performance import perform

CHECKS: tuple[Callable[[CheckedShow], Iterator[Finding]], ...] = (
    missing.find,
    frame_findings.find,
    holds.find,
    reading.find,
    cuts.find,
    camera.find,
    music_end.find,
    off_frame.find,
    invisible.find,
    upscaled.find,
    presses.find,
    links.find,
    unrecorded.find,
    loudness.find,
    small_text.find,
    glyphs.find,
    alternatives.find,
    credit.find,
    unfilled.find,
    notes.find,
    odd_transition.find,
)


def find_problems(
    show: Show,
    faults: Mapping[str, FileFault] | None = None,
    heard: ShowLoudness | None = None,
    looked: Mapping[str, FrameAnalysis] | None = None,
) -> tuple[Finding, ...]:
    """All findings: those the audience suffers from most come first, then in the order of the show.

    `faults` are what is wrong with the files of assets, `heard` is how loud it was measured to be, `looked` what
    rendered frames showed of each slide. Raises RitornelError where it cannot be performed.
    """
    look = CheckedShow.of(show, perform(show), faults, heard, looked)
    found = [finding for check in CHECKS for finding in check(look)]
    return tuple(sorted(found, key=lambda finding: (SEVERITIES.index(finding.severity), finding.at_ms)))


__all__ = [
    "CHECKS",
    "SEVERITIES",
    "CheckedShow",
    "FileFault",
    "Finding",
    "Fix",
    "FrameAnalysis",
    "ShowLoudness",
    "find_problems",
]
