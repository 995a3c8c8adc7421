"""The running order: taking entries out of it and moving them, so that beats and their cues stay whole."""

import msgspec

from ritornel.core.document.show import Build, OnCue, Slide, Together
from ritornel.core.errors import UnknownName


def entry(slide: Slide, build_id: str) -> Build:
    """The build with this id. Raises UnknownName."""
    for build in slide.order:
        if build.id == build_id:
            return build
    raise UnknownName(
        f"The build “{build_id}” is not on slide “{slide.name or slide.id}” any more. Nothing was changed."
    )


def without_builds(order: tuple[Build, ...], gone: set[str]) -> tuple[Build, ...]:
    """The order without some builds.

    Where an opener goes and its beat has others, the next one inherits the cue with its hold.
    """
    result: list[Build] = []
    orphan: OnCue | None = None
    for build in order:
        if isinstance(build.starts, OnCue):
            orphan = None
        if build.id in gone:
            if isinstance(build.starts, OnCue):
                orphan = build.starts
            continue
        if orphan is not None:
            build = msgspec.structs.replace(build, starts=orphan)
            orphan = None
        result.append(build)
    return tuple(result)


def without_objects(order: tuple[Build, ...], object_ids: set[str]) -> tuple[Build, ...]:
    """The order without the builds of some objects, beats kept whole."""
    return without_builds(order, {build.id for build in order if build.object_id in object_ids})


def moved(order: tuple[Build, ...], build_id: str, to: int, opens: bool) -> tuple[Build, ...]:
    """The order with one entry at index `to`, counted without that entry.

    A lone opener takes its cue along. An opener with others behind it leaves the cue to the next of its beat and
    becomes *together*. With `opens`, the entry takes over the cue of the opener it lands before, which becomes
    *together*.
    """
    at = next(index for index, build in enumerate(order) if build.id == build_id)
    taken = order[at]
    leads = isinstance(taken.starts, OnCue) and at + 1 < len(order) and not isinstance(order[at + 1].starts, OnCue)
    if leads:
        taken = msgspec.structs.replace(taken, starts=Together())
        rest = without_builds(order, {build_id})
    else:
        rest = (*order[:at], *order[at + 1 :])
    to = max(0, min(to, len(rest)))
    if opens and to < len(rest) and isinstance(rest[to].starts, OnCue):
        old = rest[to]
        taken = msgspec.structs.replace(taken, starts=old.starts)
        rest = (*rest[:to], msgspec.structs.replace(old, starts=Together()), *rest[to + 1 :])
    return (*rest[:to], taken, *rest[to:])
