"""Slides without notes in a show that has them."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding

TITLE = "Slides without notes"

MOST = 0.5
"""Where more than half of the slides have notes, those without stand out."""


def find(look: CheckedShow) -> Iterator[Finding]:
    """One for each slide without."""
    without = [entry for entry in look.slides if not entry[1].notes.strip()]
    with_notes = len(look.slides) - len(without)
    if with_notes <= MOST * len(look.slides):
        return
    for number, slide, _, start in without:
        title = f"No notes, while {with_notes} of {len(look.slides)} slides have them"
        yield Finding(
            id=f"notes:{slide.id}",
            check="notes",
            severity="polish",
            title=title,
            why="Whoever speaks has nothing to hold on to here.",
            slide_id=slide.id,
            number=number,
            at_ms=start,
        )
