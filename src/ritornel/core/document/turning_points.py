"""Large changes: before each of them the history names the state of the show."""

from ritornel.core.document.show import Show

MANY_SLIDES = 3
"""So many slides that come or go in one step are an import, or as much as one."""


def turning_point(before: Show, after: Show) -> str:
    """The name of the state before a large change; nothing for any other change.

    Large are another theme, timing from a take, and three or more slides added or removed at once.
    """
    if before.theme != after.theme:
        return "Before the theme was changed"
    if before.follows_take != after.follows_take or before.holds_by_cue != after.holds_by_cue:
        return "Before the timing was taken from a take"
    had, has = ({slide.id for slide in show.slides} for show in (before, after))
    if len(has - had) >= MANY_SLIDES:
        return f"Before {len(has - had)} slides came in"
    if len(had - has) >= MANY_SLIDES:
        return f"Before {len(had - has)} slides were removed"
    return ""
