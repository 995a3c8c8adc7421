"""Objects that stay outside the frame."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import RemoveObjects
from ritornel.core.document.framings import moves_view
from ritornel.core.document.objects import Object
from ritornel.core.document.show import Frame, Slide
from ritornel.core.layout.visibility import outside

TITLE = "Objects outside the frame"


def is_off_frame(slide: Slide, item: Object, frame: Frame) -> bool:
    """Whether an object lies wholly outside the frame, and no build, wings or move of the view brings it in."""
    if slide.size is not None or item.wings is not None or any(moves_view(build) for build in slide.order):
        return False
    travels = any(build.object_id == item.id and build.effect.startswith("travels") for build in slide.order)
    return not travels and outside(item, frame) == "wholly"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each object. An object that is also transparent is reported only here: to make it opaque would
    not help.
    """
    for shown in look.slides:
        slide = shown.slide
        for item in slide.objects:
            if not is_off_frame(slide, item, look.show.frame):
                continue
            fix = Fix(f"Remove “{item.name}”", RemoveObjects(slide.id, (item.id,)))
            title = f"“{item.name}” lies outside the frame"
            yield shown.finding(
                "unseen",
                "unseen",
                "polish",
                about=item.id,
                title=title,
                why="Nobody ever sees it.",
                fix=fix,
            )
