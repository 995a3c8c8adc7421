"""What rendered frames show: text with too little contrast, and flashes."""

import math
from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import ChangeObjects
from ritornel.core.document.objects import FreeText

TITLE = "Words hard to read, or flashes"

FLASHES = 3
"""Three a second or more can bring on a seizure (WCAG 2.2, 2.3.1)."""


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each text, and one for each slide that flashes, among the slides that were analysed."""
    for shown in look.slides:
        slide = shown.slide
        seen = look.analyses.get(slide.id)
        if seen is None:
            continue
        for entry in seen.contrasts:
            item = slide.object(entry.object_id)
            if not isinstance(item, FreeText):
                continue
            title = (
                f"“{item.name}” has a contrast of {math.floor(entry.ratio * 10) / 10:.1f}:1 to what is behind "
                f"it; it needs {entry.needs:g}:1"
            )
            own = any(run.colour for paragraph in item.paragraphs for run in paragraph.runs)
            fix = None
            if entry.better is not None and not own:
                words = f"Set it in {'white' if entry.better == '#ffffff' else 'ink'}"
                fix = Fix(words, ChangeObjects(slide.id, (item.id,), {"colour": entry.better}))
            why = "From the back of a room, or on a poor screen, it cannot be read."
            yield shown.finding(
                "contrast",
                "contrast",
                "hurts",
                about=item.id,
                title=title,
                why=why,
                fix=fix,
            )
        if seen.flashes.most >= FLASHES:
            title = f"Flashes {seen.flashes.most} times within a second"
            why = "It can bring on a seizure. Make what flashes slower or smaller."
            yield shown.finding(
                "flashes",
                "flashes",
                "stops",
                title=title,
                why=why,
                after_ms=round(seen.flashes.at_ms),
            )
