"""Titles and headings that another object covers."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import StackObjects
from ritornel.core.document.objects import Clip, Gradient, Object, Picture, Plain, Shape
from ritornel.core.layout.clear_place import area_of, has_words, words_area

TITLE = "A heading is covered"

HEADINGS = ("title", "heading")
LEAST = 0.3
"""More than this share of a heading's words has to be covered before it is told."""


def _hides(item: Object) -> bool:
    """Whether an object hides most of what lies behind its box. Clips have a check of their own."""
    if item.aside or item.opacity < 0.9 or isinstance(item, Clip):
        return False
    return isinstance(item, Picture) or (isinstance(item, Shape) and isinstance(item.fill, Plain | Gradient))


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each heading. Objects with builds are left out: they may cover a heading only for a while."""
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        built = {build.object_id for build in slide.order}
        drawings = {drawing.object_id: drawing for drawing in staged.drawing.objects}
        for at, heading in enumerate(slide.objects):
            if heading.place not in HEADINGS or not has_words(heading) or heading.id not in drawings:
                continue
            words = words_area(drawings[heading.id])
            cover = next(
                (
                    item
                    for item in slide.objects[at + 1 :]
                    if item.id not in built
                    and _hides(item)
                    and words.shared(area_of(item.box)).size_px2 > LEAST * words.size_px2
                ),
                None,
            )
            if cover is None:
                continue
            yield shown.finding(
                "covered-title",
                "covered title",
                "hurts",
                about=heading.id,
                title=f"“{cover.name}” covers the heading “{heading.name}”",
                why="A heading is the first thing that is read; here it cannot be.",
                fix=Fix("Bring the heading to the front", StackObjects(slide.id, (heading.id,), len(slide.objects))),
            )
