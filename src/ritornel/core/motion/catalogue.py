"""The tables of all effects and transitions, found in the modules that ship."""

import importlib
import pkgutil
from collections.abc import Mapping
from types import MappingProxyType, ModuleType
from typing import Any

from ritornel.core.errors import UnknownName
from ritornel.core.motion import effects, transitions
from ritornel.core.motion.effect import Effect
from ritornel.core.motion.settings import controls_of
from ritornel.core.motion.transition import TransitionKind


def _collect_modules(package: ModuleType, constant: str) -> Mapping[str, Any]:
    names = sorted(module.name for module in pkgutil.iter_modules(package.__path__))
    found = [getattr(importlib.import_module(f"{package.__name__}.{name}"), constant) for name in names]
    return MappingProxyType({entry.name: entry for entry in found})


EFFECTS: Mapping[str, Effect] = _collect_modules(effects, "EFFECT")
TRANSITIONS: Mapping[str, TransitionKind] = _collect_modules(transitions, "TRANSITION")


def effect_named(name: str) -> Effect:
    """The effect with this name, such as `enters rise`. Raises UnknownName."""
    if name not in EFFECTS:
        raise UnknownName(f"There is no effect “{name}”; there are {', '.join(EFFECTS)}.")
    return EFFECTS[name]


def transition_named(name: str) -> TransitionKind:
    """The transition with this name. Raises UnknownName."""
    if name not in TRANSITIONS:
        raise UnknownName(f"There is no transition “{name}”; there are {', '.join(TRANSITIONS)}.")
    return TRANSITIONS[name]


def effect_forms() -> list[dict[str, Any]]:
    """What the panel makes its controls from: every effect with its kind, title, default length and settings."""
    return [
        {
            "name": e.name,
            "title": e.title,
            "kind": e.kind,
            "lasts_ms": e.lasts_ms,
            "repeats": e.repeats,
            "controls": controls_of(e.settings),
        }
        for e in EFFECTS.values()
    ]


def transition_forms() -> list[dict[str, Any]]:
    """The same for transitions."""
    return [
        {"name": t.name, "title": t.title, "lasts_ms": t.lasts_ms, "controls": controls_of(t.settings)}
        for t in TRANSITIONS.values()
    ]
