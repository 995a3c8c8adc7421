"""A slide that comes in another way than all the others."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Mend
from ritornel.core.checks.inconsistencies import joins_of


def find(look: CheckedShow) -> Iterator[Finding]:
    """What the overview's margin says of it, with the same mend."""
    places = {slide.id: (number, start) for number, slide, _, start in look.slides}
    for note in joins_of(look.show):
        number, start = places[note.slide_id]
        mend = Mend(note.mend_words, note.mend) if note.mend else None
        yield Finding(f"differs:{note.slide_id}", "differs", "polish", note.title, note.why, note.slide_id, number, start, mend)
