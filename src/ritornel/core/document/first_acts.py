"""The five first acts of learning to make a show, and which of them a show has done.

Only the present state of the show counts: an act that was undone is open again.
"""

from collections.abc import Callable
from types import MappingProxyType

import msgspec

from ritornel.core.document.show import OnCue, Show


class FirstAct(msgspec.Struct, frozen=True):
    """What to do, in a few words, and how."""

    name: str
    title: str
    how: str


def _has_build(show: Show) -> bool:
    return any(slide.order for slide in show.slides)


def _cues(show: Show) -> tuple[OnCue, ...]:
    """The waits for a cue within slides."""
    return tuple(build.starts for slide in show.slides for build in slide.order if isinstance(build.starts, OnCue))


_DONE: MappingProxyType[str, Callable[[Show], bool]] = MappingProxyType(
    {
        "build": _has_build,
        "wait": lambda show: len(_cues(show)) > 1,
        "hold": lambda show: any(cue.hold_ms is not None for cue in _cues(show)),
        "music": lambda show: bool(show.music),
    }
)

FIRST_ACTS = (
    FirstAct(
        "build",
        "Give a build",
        "Press the wheel on the stage. Then press an effect on the left, such as Settle: so the wheel enters.",
    ),
    FirstAct(
        "wait",
        "Set a wait",
        "Give the words beside it a build too. Each now waits for a cue of its own: until somebody presses, or until "
        "its hold is over. Slide, below the stage, plays it.",
    ),
    FirstAct(
        "hold",
        "Pull the hold",
        "In the score below, each pale stretch is a wait. Pull its right end: so long it waits when nobody presses.",
    ),
    FirstAct(
        "music",
        "Put music under it",
        "Press Music above the stage, choose a piece, and where it plays. It stands at the bottom of the score.",
    ),
    FirstAct(
        "release",
        "Release it",
        "Press Release at the top, then Make edition 1. The show gets an address that you can give to anybody.",
    ),
)


def done_acts(show: Show, released: bool) -> tuple[str, ...]:
    """The names of the acts that are done. `released`: whether the show has an edition."""
    return tuple(act.name for act in FIRST_ACTS if (released if act.name == "release" else _DONE[act.name](show)))
