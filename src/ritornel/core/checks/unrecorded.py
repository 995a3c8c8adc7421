"""Sections without a recording, in a show with voices."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.document.sections import shown_sections

TITLE = "Sections that nobody has recorded"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each section without a voice, where another section has one."""
    spoken = {slide.id for slide in look.show.slides if slide.voice is not None}
    places = {shown.slide.id: shown for shown in look.slides}
    sections = shown_sections(look.show)
    silent = [section for section in sections if not spoken & set(section.slide_ids)]
    if len(silent) == len(sections):
        return
    for section in silent:
        title = f"Nobody has recorded “{section.name or 'the first section'}”"
        why = "The voice falls silent here, and nobody knows whether that is meant."
        yield places[section.slide_ids[0]].finding("unrecorded", "unrecorded", "hurts", title=title, why=why)
