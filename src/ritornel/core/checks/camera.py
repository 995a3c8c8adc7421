"""The picture of a speaker that stops before the voice ends."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.document.camera import uncovered_ms
from ritornel.core.document.objects import Clip
from ritornel.core.time.milliseconds import time_text

TITLE = "The camera's picture ends before the voice"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each clip that runs with its slide and ends before the slide's voice does."""
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        voice = staged.schedule.voice
        for item in slide.objects:
            if not isinstance(item, Clip) or not item.with_slide or voice is None:
                continue
            still_ms = uncovered_ms(voice.end_ms, item.pass_ms)
            if still_ms:
                title = f"The picture of “{item.name}” ends {time_text(still_ms)} before the voice"
                why = (
                    "The speaker is seen to freeze and heard to go on. Record the slide again, or use a shorter voice."
                )
                yield shown.finding(
                    "camera",
                    "camera",
                    "hurts",
                    about=item.id,
                    title=title,
                    why=why,
                    after_ms=item.pass_ms,
                )
