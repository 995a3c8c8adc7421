"""What leaves the house: of a performance, only the fields that an audience's painter reads.

Everything for a stranger, a viewer or the audience's screen is made here. A field that is not listed below stays
inside, so a new field of a slide is private until somebody lists it. The presenter's notes, the names of slides, the
sources of holds, skipped slides, media that nothing shown uses, and captions outside the played part of a clip are left
out.
"""

from collections.abc import Mapping
from typing import Any

import msgspec

from ritornel.core.layout.marks import ClipMark, Mark, SlideDrawing
from ritornel.core.schedule.performance import Performance, StagedSlide, builtins_of

Allowed = dict[str, "Allowed | None"]
"""Fields by name; None keeps a field whole, a dict keeps the named fields of it (or of each entry, where it is a
list).
"""

_WAIT: Allowed = {"cue_id": None, "start_ms": None, "hold_ms": None}
_SCHEDULE: Allowed = {
    "slide_id": None,
    "transition_ms": None,
    "beats": {"start_ms": None, "end_ms": None, "wait": _WAIT},
    "last_wait": _WAIT,
    "done_ms": None,
    "length_ms": None,
    "voice": None,
    "goes_on_ms": None,
}
_SLIDE: Allowed = {
    "id": None,
    "advance": {"rule": None, "after_ms": None, "cut_short": None, "cue_id": None},
    "schedule": _SCHEDULE,
    "drawing": {"slide_id": None, "ground": None, "objects": None},
    "motions": None,
    "layers": None,
    "view": None,
    "beat_words": None,
    "clips": None,
    "presses": None,
    "spoken": None,
}
SHOW: Allowed = {
    "title": None,
    "language": None,
    "frame": None,
    "end": None,
    "starts_ms": None,
    "content_ms": None,
    "length_ms": None,
    "slides": _SLIDE,
    "music": None,
    "voices": None,
    "voices_live": None,
    "effects": None,
    "media": None,
}
"""All that an audience is given."""


def keep(value: Any, allowed: Allowed | None) -> Any:
    """The value with only its allowed fields."""
    if allowed is None or value is None:
        return value
    if isinstance(value, list | tuple):
        return [keep(entry, allowed) for entry in value]
    return {name: keep(value[name], inner) for name, inner in allowed.items() if name in value}


def _played_part(mark: Mark) -> Mark:
    """The mark with the captions of the played part."""
    if not isinstance(mark, ClipMark) or not mark.captions:
        return mark
    captions = tuple(
        caption for caption in mark.captions if caption.start_ms < mark.out_ms and caption.end_ms > mark.in_ms
    )
    return msgspec.structs.replace(mark, captions=captions)


def _drawing(drawing: SlideDrawing) -> SlideDrawing:
    replace = msgspec.structs.replace
    objects = tuple(
        replace(item, parts=tuple(replace(part, marks=tuple(map(_played_part, part.marks))) for part in item.parts))
        for item in drawing.objects
    )
    return replace(drawing, ground=tuple(map(_played_part, drawing.ground)), objects=objects)


def audience_show(performance: Performance, media: Mapping[str, str]) -> dict[str, Any]:
    """The performance for an audience's browser.

    `media` gives each medium's address by its name in the performance; only media that are shown or heard are included.
    """
    slides: tuple[StagedSlide, ...] = tuple(
        msgspec.structs.replace(staged, drawing=_drawing(staged.drawing)) for staged in performance.slides
    )
    used = performance.media(lambda asset, rate_pct: "")
    body = builtins_of(
        msgspec.structs.replace(performance, slides=slides), {name: media[name] for name in used if name in media}
    )
    found: dict[str, Any] = keep(body, SHOW)
    return found
