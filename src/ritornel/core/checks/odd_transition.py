"""A slide whose transition differs from all others."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.checks.inconsistencies import joins_of

TITLE = "A slide that comes in another way than the others"


def find(look: CheckedShow) -> Iterator[Finding]:
    """The same as the overview's note about it, with the same fix."""
    places = {shown.slide.id: shown for shown in look.slides}
    for note in joins_of(look.show):
        fix = Fix(note.fix_words, note.fix) if note.fix else None
        yield places[note.slide_id].finding("differs", "differs", "polish", title=note.title, why=note.why, fix=fix)
