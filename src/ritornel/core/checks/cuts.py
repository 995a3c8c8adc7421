"""Voices, clips and builds that a slide cuts off."""

from collections.abc import Iterator

import msgspec

from ritornel.core.checks.finding import CheckedShow, Finding, Fix, about_s
from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits import ChangeSlides
from ritornel.core.document.show import AdvanceAfter

TITLE = "Something is cut off at the end of a slide"


def find(look: CheckedShow) -> Iterator[Finding]:
    """For slides that are cut short: how much time is lost. The loss of a voice comes first."""
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        times = staged.schedule
        if (
            not isinstance(slide.advance, AdvanceAfter)
            or not slide.advance.cut_short
            or times.done_ms <= times.length_ms
        ):
            continue
        lost = times.done_ms - times.length_ms
        spoken = times.voice is not None and times.voice.end_ms > times.length_ms
        what = "its voice" if spoken else "what it shows"
        why = (
            ("Somebody is cut off in the middle of a sentence.")
            if spoken
            else "A clip or a build is gone before it has ended."
        )
        fix = Fix(
            f"Let it end: slide {shown.number} lasts {about_s(times.done_ms)} s then",
            ChangeSlides(
                (slide.id,), {"advance": to_builtins(msgspec.structs.replace(slide.advance, cut_short=False))}
            ),
        )
        title = f"{about_s(lost)} s of {what} are cut off"
        yield shown.finding(
            "cuts",
            "cuts",
            "stops" if spoken else "hurts",
            title=title,
            why=why,
            after_ms=times.length_ms,
            fix=fix,
        )
