"""Music that stops before the show ends, and music that is never heard."""

from collections.abc import Iterator

import msgspec

from ritornel.core.checks.finding import CheckedShow, Finding, Fix, about_s
from ritornel.core.document.edits import PutSpan, RemoveSpan
from ritornel.core.document.show import ShowEnd, SlideStart
from ritornel.core.time.milliseconds import clock_text

TITLE = "Music that ends too soon or never sounds"

NEAR_MS = 500
FADE_MS = 4000


def find(look: CheckedShow) -> Iterator[Finding]:
    """Only the last music is checked: other music follows what stops earlier, or a silence that is meant."""
    show, performance = look.show, look.performance
    spans = {span.id: span for span in show.music}
    for lost in performance.lost_spans:
        span = spans[lost.span_id]
        asset = show.asset(span.asset_id)
        name = asset.name if asset else "Music"
        if lost.late and isinstance(span.start, SlideStart):
            at_once = Fix(
                "Begin with its slide", PutSpan(msgspec.structs.replace(span, start=SlideStart(span.start.slide_id, 0)))
            )
            why = (
                f"It would begin {clock_text(span.start.offset_ms)} into its slide, after all that it could "
                "sound under."
            )
            yield Finding(
                id=f"music-late:{span.id}",
                check="music",
                severity="hurts",
                title=f"“{name}” is never heard",
                why=why,
                slide_id=span.start.slide_id,
                fix=at_once,
            )
            continue
        gone = Fix("Take the stretch away", RemoveSpan(span.id))
        yield Finding(
            id=f"music-lost:{span.id}",
            check="music",
            severity="hurts",
            title=f"“{name}” has no slide left",
            why="It is never heard.",
            fix=gone,
        )
    if not performance.music:
        return
    last = max(performance.music, key=lambda time: time.end_ms)
    silent = performance.schedule.content_ms - last.end_ms
    if silent <= NEAR_MS:
        return
    span = spans[last.span_id]
    longer = msgspec.structs.replace(span, end=ShowEnd(), loops=True, fade_out_ms=max(span.fade_out_ms, FADE_MS))
    slide = next((entry for entry in reversed(look.slides) if entry.start_ms <= last.end_ms), None)
    title = f"Music ends {about_s(silent)} s before the show"
    why = f"From {clock_text(last.end_ms)} on it is silent, as if something had broken."
    fix = Fix(f"Repeat it to the end, fading out over {FADE_MS // 1000} s", PutSpan(longer))
    yield Finding(
        id=f"music-end:{span.id}",
        check="music",
        severity="hurts",
        title=title,
        why=why,
        slide_id=slide.slide.id if slide else None,
        number=slide.number if slide else None,
        at_ms=last.end_ms,
        fix=fix,
    )
