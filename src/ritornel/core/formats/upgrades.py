"""Archives of earlier versions, brought to the present one step by step: a function for each version whose shows would
mean something else now.

Each takes the show as JSON holds it and gives another; what it is given stays as it is. A version without a function
lacks only fields whose default means what that version meant: 1 those of themes, layouts and richer objects, 2 of
framings, drifts, marks, habits, voices and sounds, 3 of clips, 4 of their speed, captions and lighter copies, 5 of
sections, 7 of spares, 8 of who a slide is given to, 9 of the language and of captions from the notes, 10 of tables.
"""

from collections.abc import Callable
from types import MappingProxyType
from typing import Any

VERSION = 11
Step = Callable[[dict[str, Any]], dict[str, Any]]


def let_cued_slides_go_on(show: dict[str, Any]) -> dict[str, Any]:
    """Version 6: in a show on cue, slides with a time or a voice went on by themselves. Now they say so with
    `also_live`.
    """
    if show.get("runs") != "on cue":
        return show
    return {**show, "slides": [_also_live(slide) for slide in show.get("slides", ())]}


def _also_live(slide: Any) -> Any:
    if not isinstance(slide, dict):
        return slide
    leaving = slide.get("advance", {"rule": "after"})
    by_itself = isinstance(leaving, dict) and leaving.get("rule") in ("after", "voice")
    return {**slide, "also_live": True} if by_itself else slide


STEPS: MappingProxyType[int, Step] = MappingProxyType({6: let_cued_slides_go_on})
"""From a version to the next one."""


def upgrade(show: dict[str, Any], version: int) -> dict[str, Any]:
    """The show of an archive of that version, as the present version writes it."""
    for step in range(version, VERSION):
        show = STEPS[step](show) if step in STEPS else show
    return show
