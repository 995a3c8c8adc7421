"""Frames that show only a clip: they need no painting."""

import msgspec

from ritornel.core.layout.marks import ClipMark
from ritornel.core.layout.outlines import rectangle
from ritornel.core.motion.channels import STILL
from ritornel.core.schedule.performance import FrameState, Performance

NEAR_PX = 0.01


def bare_clip(performance: Performance, frame_state: FrameState) -> tuple[ClipMark, float | None] | None:
    """The clip that covers the whole frame with nothing over it, and how much of it is played; None where more is
    visible.
    """
    if frame_state.blackness or len(frame_state.layers) != 1:
        return None
    layer = frame_state.layers[0]
    if layer.values != STILL or layer.view != STILL or layer.ground < 1:
        return None
    values = dict(layer.objects)
    shown = [
        item
        for item in performance.slides[layer.index].drawing.objects
        if values.get((item.object_id, None), STILL).shown
    ]
    if not shown:
        return None
    top = shown[-1]
    own = values.get((top.object_id, None), STILL)
    if (
        msgspec.structs.replace(own, played=None) != STILL
        or top.opacity < 1
        or top.shadow
        or top.turn_deg
        or len(top.parts) != 1
    ):
        return None
    marks = top.parts[0].marks
    if len(marks) != 1 or not isinstance(marks[0], ClipMark):
        return None
    mark = marks[0]
    if mark.flip_x or mark.flip_y or mark.drift_to or mark.clip not in ("", rectangle(0, 0, top.width, top.height)):
        return None
    place, frame = (top.x + mark.x, top.y + mark.y, mark.width, mark.height), performance.frame
    covers = all(
        abs(one - other) < NEAR_PX for one, other in zip(place, (0, 0, frame.width_px, frame.height_px), strict=True)
    )
    return (mark, own.played) if covers else None
