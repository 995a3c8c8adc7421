"""What a fix would do, before it is made: the new lengths of slides and of the show."""

import msgspec

from ritornel.core.checks.finding import Finding, about_s
from ritornel.core.document.edits import apply_edit
from ritornel.core.document.show import Show
from ritornel.core.errors import BadValue
from ritornel.core.schedule.show_schedule import ShowSchedule, compile_show
from ritornel.core.time.milliseconds import clock_text


class Fixed(msgspec.Struct, frozen=True):
    """The show as the fix would leave it, and sentences about how its times change."""

    show: Show
    before_ms: int
    after_ms: int
    words: str


def preview_fix(show: Show, finding: Finding) -> Fixed:
    """The show with the finding's fix. Raises BadValue where the finding has none, and every error of the
    fix itself.
    """
    if finding.fix is None:
        raise BadValue(f"Nothing fixes “{finding.title}” by itself.", "finding")
    after = apply_edit(show, finding.fix.edit).show
    old, new = compile_show(show), compile_show(after)
    words = []
    was, becomes = (_slide_ms(schedule, finding.slide_id) for schedule in (old, new))
    if was is not None and becomes is not None and was != becomes:
        words.append(f"Slide {finding.number} lasts {about_s(becomes)} s instead of {about_s(was)} s.")
    if old.length_ms != new.length_ms:
        words.append(f"The show lasts {clock_text(new.length_ms)} instead of {clock_text(old.length_ms)}.")
    return Fixed(after, old.length_ms, new.length_ms, " ".join(words) or "Nothing becomes longer or shorter.")


def _slide_ms(schedule: ShowSchedule, slide_id: str | None) -> int | None:
    return next((slide.length_ms for slide in schedule.slides if slide.slide_id == slide_id), None)
