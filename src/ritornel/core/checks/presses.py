"""Presses that lead nowhere, and clips that wait for a press that never comes."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding, Fix
from ritornel.core.document.edits import AddBuild, ChangeSlides
from ritornel.core.document.objects import PLAYS, GoToSlide, PlayClip
from ritornel.core.document.show import Build, Together

TITLE = "Presses that lead nowhere"


def find(look: CheckedShow) -> Iterator[Finding]:
    """A press that leads to a skipped slide; and, in a self-running show, a clip that only a press plays (rule 4)."""
    skipped = {slide.id: slide.name for slide in look.show.slides if slide.skipped}
    for shown in look.slides:
        slide = shown.slide
        played = {build.object_id for build in slide.order if build.effect == PLAYS}
        for item in slide.objects:
            if isinstance(item.press, GoToSlide) and item.press.slide_id in skipped:
                title = f"“{item.name}” leads to “{skipped[item.press.slide_id]}”, which is skipped"
                fix = Fix("Show that slide again", ChangeSlides((item.press.slide_id,), {"skipped": False}))
                yield shown.finding(
                    "press",
                    "presses",
                    "stops",
                    about=item.id,
                    title=title,
                    why="Who presses it stays where they are.",
                    fix=fix,
                )
            if look.show.runs != "on cue" and isinstance(item.press, PlayClip) and item.press.object_id not in played:
                title = f"The clip behind “{item.name}” plays only on a press"
                play = Build(
                    id=f"{item.press.object_id[:30]}-plays",
                    object_id=item.press.object_id,
                    effect=PLAYS,
                    starts=Together(),
                )
                fix = Fix("Let it play on arrival too", AddBuild(slide.id, play))
                why = "The show runs by itself and nobody presses: its poster is all that is seen."
                yield shown.finding(
                    "press-clip",
                    "presses",
                    "hurts",
                    about=item.id,
                    title=title,
                    why=why,
                    fix=fix,
                )
