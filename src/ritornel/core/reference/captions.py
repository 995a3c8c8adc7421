"""Captions at an instant of a show (static/ritornel/player/captions.js)."""

from ritornel.core.layout.marks import ClipMark
from ritornel.core.schedule.performance import FrameState, Performance


def spoken_at(performance: Performance, index: int, slide_ms: float) -> str:
    """The caption of a slide's voice at an instant of the slide's clock; none between captions."""
    spoken = performance.spoken[index] if performance.spoken else ()
    return next((entry.text for entry in spoken if entry.start_ms <= slide_ms < entry.end_ms), "")


def caption_in(performance: Performance, frame_state: FrameState) -> str:
    """The caption of all that is visible at an instant: that of the foremost clip which has one; none where no clip
    has.
    """
    for layer in reversed(frame_state.layers):
        values = dict(layer.objects)
        for item in reversed(performance.slides[layer.index].drawing.objects):
            own = values.get((item.object_id, None))
            if own is None or not own.shown:
                continue
            for mark in (mark for part in item.parts for mark in part.marks if isinstance(mark, ClipMark)):
                if text := mark.caption_at(own.played):
                    return text
    return ""
