"""Slides that end before their text can be read."""

from collections.abc import Iterator

import msgspec

from ritornel.core.checks.finding import CheckedShow, Finding, Fix, about_s
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeSlides
from ritornel.core.document.show import AdvanceAfter
from ritornel.core.schedule.reading import reading_time

TITLE = "Too short to be read"


def find(look: CheckedShow) -> Iterator[Finding]:
    """Reading begins when the slide is complete. Its length is an estimate, and the finding says so."""
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        reading, times = reading_time(slide, staged.schedule), staged.schedule
        if not reading.is_short:
            continue
        fix = None
        if isinstance(slide.advance, AdvanceAfter):
            longer = about_s(reading.length_ms - times.length_ms)
            fix = Fix(
                f"Lengthen slide {shown.number} by {longer} s, to {about_s(reading.length_ms)} s",
                ChangeSlides(
                    (slide.id,),
                    {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=reading.length_ms))},
                ),
            )
        title = f"Shown {about_s(reading.there_ms)} s, reading takes about {about_s(reading.needs_ms)} s (estimate)"
        yield shown.finding(
            "reading",
            "reading",
            "hurts",
            title=title,
            why="Few will finish reading it in time.",
            fix=fix,
        )
