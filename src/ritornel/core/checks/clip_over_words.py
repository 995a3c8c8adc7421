"""Clips that cover text, such as the picture of a speaker."""

from collections.abc import Iterator

import msgspec

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import ChangeObjects
from ritornel.core.document.objects import Clip
from ritornel.core.layout.clear_place import clear_place, covers, has_words, words_area
from ritornel.core.layout.drawing import scenery_of

TITLE = "A clip covers words"


def find(look: CheckedShow) -> Iterator[Finding]:
    """One finding for each clip, about the first text that it covers. Text that leaves the slide by a build is not
    counted.
    """
    for shown in look.slides:
        slide, staged = shown.slide, shown.staged
        leaving = {build.object_id for build in slide.order if build.effect.startswith("leaves")}
        drawings = {drawing.object_id: drawing for drawing in staged.drawing.objects}
        for at, clip in enumerate(slide.objects):
            if not isinstance(clip, Clip) or clip.aside:
                continue
            for text in slide.objects[:at]:
                if not has_words(text) or text.id in leaving or text.id not in drawings:
                    continue
                if not covers(clip.box, words_area(drawings[text.id])):
                    continue
                others = tuple(item for item in slide.objects if item.id != clip.id)
                box = clear_place(
                    msgspec.structs.replace(slide, objects=others),
                    look.show.frame,
                    scenery_of(look.show),
                    clip.box.height / clip.box.width,
                )
                yield shown.finding(
                    "clip-over-words",
                    "clip over words",
                    "hurts",
                    about=clip.id,
                    title=f"“{clip.name}” covers words of “{text.name}”",
                    why="What is covered cannot be read while the clip is there.",
                    fix=Fix("Move the clip to where no words are", ChangeObjects(slide.id, (clip.id,), {"box": box})),
                )
                break
