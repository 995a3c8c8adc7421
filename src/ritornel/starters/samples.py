"""Small shows that show what each effect and each transition does, for the panel: painted by the painter itself, so
they cannot lie.
"""

from functools import cache
from typing import Any

import msgspec

from ritornel.core.document.objects import Box, Paragraph, Plain, Shape, Stroke, Text, TextRun
from ritornel.core.document.show import AdvanceAfter, Build, Follows, Frame, Show, Slide, Together, Transition
from ritornel.core.motion.catalogue import EFFECTS, TRANSITIONS
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import controls_of

FRAME = Frame(128, 68)
SHARE = 0.16
"""How much smaller lengths in px are on a sample than on a slide."""
LASTS_MS = 1000


def _settings(effect: Effect) -> dict[str, Any]:
    """The effect's usual settings with lengths as small as the sample."""
    result: dict[str, Any] = {}
    for control in controls_of(effect.settings):
        if control["unit"] == "px":
            result[control["name"]] = max(float(control["default"]) * SHARE, float(control["least"]))
        elif control.get("path"):
            result[control["name"]] = "M 0 0 C 1 -12 7 -12 9 0"
    return result


def _effect_slide(number: int, effect: Effect) -> Slide:
    word = Text(
        "word",
        "Word",
        Box(8, 14, 64, 40),
        paragraphs=(Paragraph("p", (TextRun("Tick"),)),),
        size_px=27,
        weight=600,
        stand="middle",
        colour="#16262e",
    )
    wheel = Shape(
        "wheel", "Wheel", Box(80, 14, 40, 40), "wheel", fill=Plain("#1f6f6b"), stroke=Stroke("#16262e", 1.5), points=10
    )
    settings = _settings(effect)
    order = tuple(
        Build(
            id=f"{name}{number}",
            object_id=name,
            effect=effect.name,
            starts=Together() if name == "wheel" else Follows(),
            after_ms=0,
            lasts_ms=LASTS_MS,
            settings=settings,
            repeats=max(effect.repeats, 1),
        )
        for name in ("word", "wheel")
    )
    # A slide ends when its builds have; half a second more lets the end be seen.
    return Slide(
        f"effect-{number}",
        effect.name,
        background=Plain("#fffdf6"),
        objects=(word, wheel),
        order=order,
        advance=AdvanceAfter(LASTS_MS + 500),
    )


def _page(number: int, colour: str, ink: str, transition: Transition) -> Slide:
    form: Any = "ellipse" if number % 2 else "rectangle"
    item = Shape("form", "Form", Box(40, 12, 48, 44), form, fill=Plain(ink), corner_px=6)
    return Slide(
        f"page-{number}",
        transition.name,
        background=Plain(colour),
        objects=(item,),
        transition=transition,
        advance=AdvanceAfter(LASTS_MS + 500),
    )


@cache
def sample_show() -> Show:
    """A slide an effect, then two slides a transition; a slide is named by what it shows.

    Moves of the view are not among them: they have nothing to move.
    """
    slides = [
        _effect_slide(number, effect)
        for number, effect in enumerate(EFFECTS.values())
        if effect.kind not in ("views", "plays")
    ]
    for number, kind in enumerate(TRANSITIONS.values()):
        slides.append(_page(number * 2, "#efe5cd", "#8a2456", Transition()))
        slides.append(
            _page(number * 2 + 1, "#1d3c46", "#e6b65c", Transition(kind.name, LASTS_MS if kind.lasts_ms else 0))
        )
    return msgspec.structs.replace(Show("samples", "Samples", FRAME), slides=tuple(slides))
