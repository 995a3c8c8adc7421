"""A slide that comes in another way than all the others."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.checks.inconsistencies import joins_of

TITLE = "A slide that comes in another way than the others"


def find(look: CheckedShow) -> Iterator[Finding]:
    """What the overview's margin says of it, with the same fix."""
    places = {slide.id: (number, start) for number, slide, _, start in look.slides}
    for note in joins_of(look.show):
        number, start = places[note.slide_id]
        fix = Fix(note.fix_words, note.fix) if note.fix else None
        yield Finding(
            id=f"differs:{note.slide_id}",
            check="differs",
            severity="polish",
            title=note.title,
            why=note.why,
            slide_id=note.slide_id,
            number=number,
            at_ms=start,
            fix=fix,
        )
