"""Objects that are on a slide but cannot be seen."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.checks.off_frame import is_off_frame
from ritornel.core.document.edits import ChangeObjects

TITLE = "Objects too faint to be seen"

LEAST = 0.02
"""Fainter than this nobody sees anything."""


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each object within the frame that is almost transparent."""
    for shown in look.slides:
        slide = shown.slide
        for item in slide.objects:
            if item.opacity > LEAST or is_off_frame(slide, item, look.show.frame):
                continue
            title = f"“{item.name}” is never seen: its opacity is {item.opacity * 100:.0f} %"
            fix = Fix("Make it opaque", ChangeObjects(slide.id, (item.id,), {"opacity": 1.0}))
            yield shown.finding(
                "invisible",
                "invisible",
                "hurts",
                about=item.id,
                title=title,
                why="Whatever it says, nobody gets it.",
                fix=fix,
            )
