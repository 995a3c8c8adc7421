"""Objects that nobody ever sees."""

from collections.abc import Iterator

from ritornel.core.checks.finding import Finding, Look, Mend
from ritornel.core.document.edits import RemoveObjects
from ritornel.core.document.framings import moves_view


def find(look: Look) -> Iterator[Finding]:
    """Objects wholly outside the frame that no build moves, and those that stand away from first to last. Slides the view moves over are left alone."""
    for number, slide, _, start in look.slides:
        if slide.size is not None or any(moves_view(build) for build in slide.order):
            continue
        frame = look.show.frame
        moved = {build.object_id for build in slide.order if build.effect.startswith("travels")}
        for item in slide.objects:
            box = item.box
            outside = box.x >= frame.width_px or box.y >= frame.height_px or box.x + box.width <= 0 or box.y + box.height <= 0
            if item.id in moved or item.wings is not None or box.turn_deg or not (outside or item.opacity == 0):
                continue
            what = "lies outside the frame" if outside else "is wholly transparent"
            mend = Mend(f"Remove “{item.name}”", RemoveObjects(slide.id, (item.id,)))
            yield Finding(f"unseen:{slide.id}:{item.id}", "unseen", "polish", f"“{item.name}” {what}", "Nobody ever sees it.", slide.id, number, start, mend)
