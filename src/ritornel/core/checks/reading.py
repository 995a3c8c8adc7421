"""Slides that are gone before their words are read."""

from collections.abc import Iterator

import msgspec

from ritornel.core.checks.finding import Finding, Look, Mend, about_s
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeSlides
from ritornel.core.document.show import AdvanceAfter
from ritornel.core.schedule.lengths import reading_ms


def find(look: Look) -> Iterator[Finding]:
    """Reading begins when the slide is there; what it takes is an estimate, and said to be one."""
    for number, slide, staged, start in look.slides:
        needs, times = reading_ms(slide), staged.schedule
        shown = times.length_ms - times.transition_ms
        if needs <= shown:
            continue
        mend = None
        if isinstance(slide.advance, AdvanceAfter):
            after = times.transition_ms + needs
            longer = about_s(after - times.length_ms)
            mend = Mend(
                f"Lengthen slide {number} by {longer} s, to {about_s(after)} s",
                ChangeSlides((slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, after_ms=after))}),
            )
        title = f"Shown {about_s(shown)} s, reading takes about {about_s(needs)} s (estimate)"
        yield Finding(f"reading:{slide.id}", "reading", "hurts", title, "Few will finish reading it in time.", slide.id, number, start, mend)
