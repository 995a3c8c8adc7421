"""Music that stops before the show does, and music with no slide left."""

from collections.abc import Iterator

import msgspec

from ritornel.core.checks.finding import Finding, Look, Mend, about_s
from ritornel.core.document.edits import PutSpan, RemoveSpan
from ritornel.core.document.show import ShowEnd
from ritornel.core.time.milliseconds import clock_text

NEAR_MS = 500
FADE_MS = 4000


def find(look: Look) -> Iterator[Finding]:
    """The last music is looked at: whatever stops earlier is followed by other music, or by a silence that was meant."""
    show, performance = look.show, look.performance
    spans = {span.id: span for span in show.music}
    for lost in performance.lost_spans:
        asset = show.asset(spans[lost.span_id].asset_id)
        mend = Mend("Take the stretch away", RemoveSpan(lost.span_id))
        title = f"“{asset.name if asset else 'Music'}” has no slide left"
        yield Finding(f"music-lost:{lost.span_id}", "music", "hurts", title, "It is never heard.", mend=mend)
    if not performance.music:
        return
    last = max(performance.music, key=lambda time: time.end_ms)
    silent = performance.schedule.content_ms - last.end_ms
    if silent <= NEAR_MS:
        return
    span = spans[last.span_id]
    longer = msgspec.structs.replace(span, end=ShowEnd(), loops=True, fade_out_ms=max(span.fade_out_ms, FADE_MS))
    slide = next((entry for entry in reversed(look.slides) if entry[3] <= last.end_ms), None)
    title = f"Music ends {about_s(silent)} s before the show"
    why = f"From {clock_text(last.end_ms)} on it is silent, as if something had broken."
    mend = Mend(f"Repeat it to the end, fading out over {FADE_MS // 1000} s", PutSpan(longer))
    yield Finding(f"music-end:{span.id}", "music", "hurts", title, why, slide[1].id if slide else None, slide[0] if slide else None, last.end_ms, mend)
