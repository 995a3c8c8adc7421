"""What each effect and each transition does, as vectors."""

from collections.abc import Iterator
from typing import Any

import msgspec
from msgspec import inspect

from ritornel.core.document import Show, Slide
from ritornel.core.motion.catalogue import EFFECTS, TRANSITIONS, effect_forms, transition_forms
from ritornel.core.motion.easing import EVEN
from ritornel.core.schedule.performance import perform
from tests.examples import shape, text


def variants(kind: type[msgspec.Struct]) -> Iterator[Any]:
    """The usual settings, and each choice of words in turn."""
    yield kind()
    for field in inspect.type_info(kind).fields:  # type: ignore[union-attr, attr-defined]
        if isinstance(field.type, inspect.LiteralType):
            for value in field.type.values:
                if value != field.default:
                    yield kind(**{field.name: value})


def effect_vectors() -> dict[str, Any]:
    """What each effect and each transition does, at its usual settings and at each choice of words, and the bounds of
    its settings.
    """
    words = text("t", "One tooth", "for every swing")
    slide = Slide("s", objects=(words, shape("x")))
    drawn = perform(Show("show", "Show", slides=(slide,))).slides[0].drawing.objects
    effects = {
        name: [
            {
                "settings": msgspec.to_builtins(settings),
                "ramps": msgspec.to_builtins(effect.ramps(settings, EVEN)),
                "marks": msgspec.to_builtins(
                    [effect.extra(settings, drawing, lambda role: role) for drawing in drawn] if effect.extra else []
                ),
                "lasts_ms": [effect.lasts_ms, effect.repeats, effect.least_ms],
            }
            for settings in variants(effect.settings)
        ]
        for name, effect in sorted(EFFECTS.items())
    }
    transitions = {
        name: [
            {
                "settings": msgspec.to_builtins(settings),
                "layers": msgspec.to_builtins(kind.layers(settings, EVEN, 1280, 720)),
                "lasts_ms": kind.lasts_ms,
            }
            for settings in variants(kind.settings)
        ]
        for name, kind in sorted(TRANSITIONS.items())
    }
    forms = {"effects": effect_forms(), "transitions": transition_forms()}
    return {"effects": effects, "transitions": transitions, "forms": msgspec.to_builtins(forms)}
