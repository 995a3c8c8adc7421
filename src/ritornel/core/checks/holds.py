"""Waits without a hold of their own, in a self-running show."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import Several
from ritornel.core.document.edits.holds import hold_edits
from ritornel.core.time.milliseconds import seconds_text

TITLE = "Waits that nobody has timed"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding a slide. Its fix writes the default hold into each wait, so that a later default does not
    change it.
    """
    if look.show.runs == "on cue":
        return
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        untimed = staged.schedule.untimed_waits
        if not untimed:
            continue
        edits = hold_edits(slide, {wait.cue_id: wait.hold_ms for wait in untimed})
        count, length = len(untimed), seconds_text(untimed[0].hold_ms)
        what = "1 wait is" if count == 1 else f"{count} waits are"
        words = f"Keep {length} s for {'it' if count == 1 else 'each'}"
        why = "Nobody chose that time: it may be too short to take in what is there, or too long."
        fix = Fix(words, Several(f"Keep the holds of {slide.name or 'a slide'}", edits))
        title = f"{what} only as long as the default, {length} s"
        yield shown.finding(
            "holds",
            "holds",
            "hurts",
            title=title,
            why=why,
            after_ms=untimed[0].start_ms,
            fix=fix,
        )
