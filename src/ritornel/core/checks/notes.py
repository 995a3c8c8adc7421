"""Slides without notes, in a show where others have notes."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding

TITLE = "Slides without notes"

MOST = 0.5
"""Where more than half of the slides have notes, those without stand out."""


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each slide without notes."""
    without = [entry for entry in look.slides if not entry.slide.notes.strip()]
    with_notes = len(look.slides) - len(without)
    if with_notes <= MOST * len(look.slides):
        return
    for shown in without:
        title = f"No notes, while {with_notes} of {len(look.slides)} slides have them"
        yield shown.finding(
            "notes",
            "notes",
            "polish",
            title=title,
            why="Whoever speaks has nothing to hold on to here.",
        )
