"""The running order: removing and moving builds so that beats and their cues stay whole."""

from collections.abc import Callable
from typing import Literal

import msgspec

from ritornel.core.document.show import Build, Follows, OnCue, Slide, Together
from ritornel.core.errors import BadValue, UnknownName


def build_named(slide: Slide, build_id: str) -> Build:
    """The build with this id. Raises UnknownName."""
    for build in slide.order:
        if build.id == build_id:
            return build
    raise UnknownName(
        f"The build “{build_id}” is not on slide “{slide.name or slide.id}” any more. Nothing was changed."
    )


def without_builds(order: tuple[Build, ...], gone: set[str]) -> tuple[Build, ...]:
    """The order without some builds.

    Where a beat loses its opener but not all its builds, the next build takes over the cue with its hold.
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
    """The order without the builds of some objects; beats stay whole."""
    return without_builds(order, {build.id for build in order if build.object_id in object_ids})


def builds_taken_along(order: tuple[Build, ...], left: tuple[Build, ...], object_id: str) -> tuple[Build, ...]:
    """The builds that leave with an object, where `left` is the order without them. A build whose cue another build has
    taken over becomes *follows*, so that no cue is there twice.
    """
    cues = {build.starts.cue_id for build in left if isinstance(build.starts, OnCue)}
    return tuple(
        msgspec.structs.replace(build, starts=Follows())
        if isinstance(build.starts, OnCue) and build.starts.cue_id in cues
        else build
        for build in order
        if build.object_id == object_id
    )


def move_entry(order: tuple[Build, ...], build_id: str, to: int, opens: bool) -> tuple[Build, ...]:
    """The order with one build at index `to`, counted without it.

    An opener that is alone in its beat takes its cue along. An opener with others behind it leaves the cue to the next
    build of its beat and becomes *together*. With `opens`, the build takes over the cue of the opener it lands before,
    which becomes *together*.
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


Starting = Literal["together", "one after another", "each on a cue"]
"""How several builds start, in one choice."""


def start_builds(order: tuple[Build, ...], ids: set[str], how: Starting, stem: str) -> tuple[Build, ...]:
    """The order with some of its builds behind the first of them, all started in the same way."""
    chosen = [build for build in order if build.id in ids]
    first, others = chosen[0], chosen[1:]
    rest = order
    for build in others:
        rest = take_out(rest, build.id)
    rules: dict[str, Callable[[int], OnCue | Together | Follows]] = {
        "together": lambda _: Together(),
        "one after another": lambda _: Follows(),
        "each on a cue": lambda number: OnCue(f"{stem}-{number}"),
    }
    fresh = [
        msgspec.structs.replace(build, starts=rules[how](number + 1), after_ms=0) for number, build in enumerate(others)
    ]
    at = next(index for index, build in enumerate(rest) if build.id == first.id)
    return (*rest[: at + 1], *fresh, *rest[at + 1 :])


def clusters(order: tuple[Build, ...]) -> tuple[tuple[int, int], ...]:
    """The beat and the cluster of each build, both from 0; clusters count within their beat.

    >>> from ritornel.core.document.show import Build, Follows, OnCue, Together
    >>> rules = Follows(), Together(), Follows(), OnCue("q"), Together()
    >>> clusters(tuple(Build(str(n), "o", "enters fade", rule) for n, rule in enumerate(rules)))
    ((0, 0), (0, 0), (0, 1), (1, 0), (1, 0))
    """
    found: list[tuple[int, int]] = []
    for build in order:
        beat, cluster = found[-1] if found else (0, 0)
        if isinstance(build.starts, OnCue):
            found.append((beat + 1, 0))
        elif found and isinstance(build.starts, Follows):
            found.append((beat, cluster + 1))
        else:
            found.append((beat, cluster))
    return tuple(found)


def take_out(order: tuple[Build, ...], build_id: str) -> tuple[Build, ...]:
    """The order without one build; its beat and its cluster stay whole.

    Where others started with it, the next of them leads.
    """
    at = next(index for index, build in enumerate(order) if build.id == build_id)
    rest = (*order[:at], *order[at + 1 :])
    if at < len(rest) and isinstance(rest[at].starts, Together) and not isinstance(order[at].starts, Together):
        return (*rest[:at], msgspec.structs.replace(rest[at], starts=order[at].starts), *rest[at + 1 :])
    if at < len(rest) and isinstance(rest[at].starts, Follows) and isinstance(order[at].starts, OnCue):
        return (*rest[:at], msgspec.structs.replace(rest[at], starts=order[at].starts), *rest[at + 1 :])
    return rest


def _lead(order: tuple[Build, ...], at: int, build: Build, old_leader: Together | Follows) -> tuple[Build, ...]:
    """The build put before build `at`, whose rule it takes over; that one goes on with `old_leader`."""
    old = order[at]
    build = msgspec.structs.replace(build, starts=old.starts)
    return (*order[:at], build, msgspec.structs.replace(old, starts=old_leader), *order[at + 1 :])


def place_beside(
    order: tuple[Build, ...], build_id: str, beside: str, side: Literal["before", "after"], joins: bool
) -> tuple[Build, ...]:
    """The order with a build moved beside another one.

    With `joins` it starts together with the other, on that side of it in the same cluster. Else it becomes a cluster of
    its own in the same beat, before or after the other's whole cluster. The first build of a beat always has the beat's
    cue.
    """
    build = next(entry for entry in order if entry.id == build_id)
    rest = take_out(order, build_id)
    at = next(index for index, entry in enumerate(rest) if entry.id == beside)
    where = clusters(rest)
    first = next(index for index, place in enumerate(where) if place == where[at])
    last = max(index for index, place in enumerate(where) if place == where[at])
    if joins:
        to = at if side == "before" else at + 1
        if to == first:
            return _lead(rest, to, build, Together())
        return (*rest[:to], msgspec.structs.replace(build, starts=Together()), *rest[to:])
    if side == "before":
        return _lead(rest, first, build, Follows())
    return (*rest[: last + 1], msgspec.structs.replace(build, starts=Follows()), *rest[last + 1 :])


def place_on_arrival(order: tuple[Build, ...], build_id: str) -> tuple[Build, ...]:
    """The order with a build moved before all others, into beat 0."""
    build = next(entry for entry in order if entry.id == build_id)
    rest = take_out(order, build_id)
    if rest and not isinstance(rest[0].starts, OnCue):
        return _lead(rest, 0, msgspec.structs.replace(build, starts=Follows()), Follows())
    return (msgspec.structs.replace(build, starts=Follows()), *rest)


def _is_alone(order: tuple[Build, ...], at: int) -> bool:
    """Whether a build is the only one of its beat."""
    return isinstance(order[at].starts, OnCue) and (at + 1 == len(order) or isinstance(order[at + 1].starts, OnCue))


def place_on_cue(order: tuple[Build, ...], build_id: str, cue: OnCue, before: str | None = None) -> tuple[Build, ...]:
    """The order with a build on a cue of its own: after all others, or before the beat of the build `before`.

    A build that was alone on its cue takes the cue along, with its hold. Raises BadValue where `before` is in the beat
    of arrival.
    """
    at = next(index for index, entry in enumerate(order) if entry.id == build_id)
    placed = order[at] if _is_alone(order, at) else msgspec.structs.replace(order[at], starts=cue)
    rest = take_out(order, build_id)
    if before is None:
        return (*rest, placed)
    beats = [beat for beat, _ in clusters(rest)]
    beat = beats[next(index for index, entry in enumerate(rest) if entry.id == before)]
    if beat == 0:
        raise BadValue("No cue comes before what is there on arrival. Nothing was changed.", "beside")
    to = beats.index(beat)
    return (*rest[:to], placed, *rest[to:])


def move_beat(order: tuple[Build, ...], cue_id: str, before: str | None) -> tuple[Build, ...]:
    """The order with all builds of one cue moved before the beat of another cue, or to the end. Raises UnknownName."""
    beats: dict[str, list[Build]] = {"": []}
    for build in order:
        if isinstance(build.starts, OnCue):
            beats[build.starts.cue_id] = []
        beats[next(reversed(beats))].append(build)
    for wanted in (cue_id, before):
        if wanted is not None and (wanted == "" or wanted not in beats):
            raise UnknownName(f"The cue “{wanted}” is not on this slide any more. Nothing was changed.")
    if before == cue_id:
        return order
    names = [name for name in beats if name != cue_id]
    names.insert(len(names) if before is None else names.index(before), cue_id)
    return tuple(build for name in names for build in beats[name])
