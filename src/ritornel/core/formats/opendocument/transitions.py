"""Transitions by the taxonomy of SMIL 2.0 (W3C 2005, “Transition Effects”): a type and a subtype, run forwards or in
reverse.
"""

from types import MappingProxyType
from typing import Any

import msgspec

from ritornel.core.document.show import Transition

Settings = tuple[tuple[str, Any], ...]


class SmilTransition(msgspec.Struct, frozen=True):
    """A transition of SMIL."""

    type: str
    subtype: str
    reverse: bool = False


_FROM = {"left": "fromLeft", "right": "fromRight", "above": "fromTop", "below": "fromBottom"}
_SIDES = {word: side for side, word in _FROM.items()}
_BARS = MappingProxyType(
    {
        0.0: SmilTransition("barWipe", "leftToRight"),
        90.0: SmilTransition("barWipe", "topToBottom"),
        180.0: SmilTransition("barWipe", "leftToRight", True),
        270.0: SmilTransition("barWipe", "topToBottom", True),
    }
)
_PLAIN: MappingProxyType[str, SmilTransition] = MappingProxyType(
    {
        "dissolve": SmilTransition("fade", "crossfade"),
        "through black": SmilTransition("fade", "fadeOverColor"),
        "iris": SmilTransition("ellipseWipe", "circle"),
        "cells": SmilTransition("checkerBoardWipe", "across"),
        "zoom through": SmilTransition("zoom", "rotateIn"),
        "turn": SmilTransition("fade", "crossfade"),
        "page turn": SmilTransition("slideWipe", "fromRight", True),
        "carry": SmilTransition("fade", "crossfade"),
    }
)
_NEAREST = frozenset({"turn", "page turn", "carry", "zoom through"})
"""What SMIL has no transition for: the nearest is written."""
_ALIKE = MappingProxyType(
    {
        "irisWipe": "iris",
        "ellipseWipe": "iris",
        "starWipe": "iris",
        "roundRectWipe": "iris",
        "eyeWipe": "iris",
        "triangleWipe": "iris",
        "checkerBoardWipe": "cells",
        "dissolve": "cells",
        "randomBarWipe": "blinds",
        "blindsWipe": "blinds",
        "zoom": "zoom through",
        "waterfallWipe": "cells",
    }
)
"""Types whose every subtype becomes the same; what is not the same is told."""


def wipe_of(transition: Transition) -> tuple[SmilTransition | None, bool]:
    """The SMIL transition for a transition (a cut has none), and whether it is the same."""
    name, settings = transition.name, transition.settings
    match name:
        case "cut":
            return None, True
        case "push":
            return SmilTransition("pushWipe", _FROM[settings.get("comes_from", "right")]), True
        case "cover":
            return SmilTransition("slideWipe", _FROM[settings.get("comes_from", "right")]), True
        case "reveal":
            return SmilTransition("slideWipe", _FROM[settings.get("goes_to", "left")], True), True
        case "wipe":
            angle = float(settings.get("angle_deg", 0.0)) % 360
            nearest = min(_BARS, key=lambda deg: min(abs(deg - angle), 360 - abs(deg - angle)))
            return _BARS[nearest], nearest == angle
        case "blinds":
            return SmilTransition(
                "blindsWipe", "vertical" if settings.get("strips", "lying") == "standing" else "horizontal"
            ), True
    return _PLAIN.get(name, SmilTransition("fade", "crossfade")), name in _PLAIN and name not in _NEAREST


def transition_of(wipe: SmilTransition) -> tuple[str, dict[str, Any], bool]:
    """Name and settings of the transition nearest to a SMIL transition, and whether it is the same."""
    side = _SIDES.get(wipe.subtype)
    match wipe.type:
        case "fade":
            return (
                ("dissolve", {}, True)
                if wipe.subtype == "crossfade"
                else ("through black", {}, wipe.subtype in ("fadeOverColor", "fadeFromColor"))
            )
        case "pushWipe":
            return "push", {"comes_from": side or "right"}, side is not None
        case "slideWipe" if wipe.reverse:
            return "reveal", {"goes_to": side or "left"}, side is not None
        case "slideWipe":
            return "cover", {"comes_from": side or "right"}, side is not None
        case "barWipe":
            for angle, bar in _BARS.items():
                if bar == wipe:
                    return "wipe", {"angle_deg": angle}, True
            return "wipe", {"angle_deg": 0.0}, False
        case "blindsWipe":
            return "blinds", {"strips": "standing" if wipe.subtype == "vertical" else "lying"}, True
    name = _ALIKE.get(wipe.type)
    same = name is not None and _PLAIN.get(name) == SmilTransition(wipe.type, wipe.subtype)
    return name or "dissolve", {}, same
