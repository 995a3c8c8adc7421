"""Text that is too small to read."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import ChangeObjects
from ritornel.core.layout.visibility import readable_px

TITLE = "Words too small to read"


def find(look: CheckedShow) -> Iterator[Finding]:
    """The drawn size of the letters counts: a text may shrink to fit its box."""
    least = readable_px(look.show.frame)
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        items = {item.id: item for item in slide.objects}
        for drawn in staged.drawing.objects:
            if not 0 < drawn.size_px < least or drawn.object_id not in items:
                continue
            item = items[drawn.object_id]
            shrunk = getattr(item, "size_px", 0) > drawn.size_px + 0.5
            fix = (
                None
                if shrunk
                else Fix(f"Make it {least:.0f} px", ChangeObjects(slide.id, (item.id,), {"size_px": least}))
            )
            why = "From the back of a room, or on a phone, it cannot be read."
            if shrunk:
                why = "It shrank to fit its box; fewer words or a larger box would help."
            title = f"“{item.name}” is {drawn.size_px:.0f} px high, wanted {least:.0f} px"
            yield shown.finding(
                "small",
                "small words",
                "hurts",
                about=item.id,
                title=title,
                why=why,
                fix=fix,
            )
