"""The holds of a slide's cues."""

from collections.abc import Mapping

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits.builds import ChangeBuild
from ritornel.core.document.edits.slides import ChangeSlides
from ritornel.core.document.show import AdvanceOnCue, OnCue, Slide


def hold_edits(slide: Slide, hold_ms: Mapping[str, int]) -> tuple[ChangeBuild | ChangeSlides, ...]:
    """The edits that give the slide's cues these holds, by cue id. Unknown ids and unchanged holds give no edit."""
    edits: list[ChangeBuild | ChangeSlides] = []
    for build in slide.order:
        starts = build.starts
        if isinstance(starts, OnCue) and hold_ms.get(starts.cue_id, starts.hold_ms) != starts.hold_ms:
            held = msgspec.structs.replace(starts, hold_ms=hold_ms[starts.cue_id])
            edits.append(ChangeBuild(slide.id, build.id, {"starts": to_builtins(held)}))
    leaves = slide.advance
    if isinstance(leaves, AdvanceOnCue) and hold_ms.get(leaves.cue_id, leaves.hold_ms) != leaves.hold_ms:
        held_out = msgspec.structs.replace(leaves, hold_ms=hold_ms[leaves.cue_id])
        edits.append(ChangeSlides((slide.id,), {"advance": to_builtins(held_out)}))
    return tuple(edits)
