"""Merging two people's changes to one show: a merge of three values, the common base, theirs and mine (Diff3: Khanna,
Kunal, Pierce, “A Formal Investigation of Diff3”, 2007), by ids and not by lines.

A value that only one of them changed stays as changed. Where both changed the same field, one side is preferred and a
collision is reported. Things with ids are matched wherever they stand; their order is merged too.
"""

from collections.abc import Callable, Mapping, Sequence
from typing import Any, Literal

import msgspec

from ritornel.core.document.framings import WHOLE, moves_view
from ritornel.core.document.objects import (
    Box,
    Clip,
    Crop,
    GoToSlide,
    Gradient,
    Picture,
    PlayClip,
    PlaySound,
    Shadow,
    Stroke,
    TextHolder,
    Wings,
)
from ritornel.core.document.show import Frame, Show, Slide, Spare

Path = tuple[str, ...]
"""Where something stands: fields and ids, such as ("slides", "esc-s", "objects", "pallets", "box")."""
Side = Literal["mine", "theirs"]

WHOLE_VALUES = (Box, Crop, Frame, Gradient, Shadow, Stroke, Wings)
"""What is one thing to whoever changes it, though it has several fields: a place is not merged out of two places."""
GONE = msgspec.UNSET
"""Stands for what is not there on a side."""


class Collision(msgspec.Struct, frozen=True):
    """A place that both sides changed, with its value on each side; GONE where it was removed."""

    path: Path
    base: Any
    theirs: Any
    mine: Any


class Merged(msgspec.Struct, frozen=True):
    """The merged show, and all collisions."""

    show: Show
    collisions: tuple[Collision, ...]


class _Merge:
    """One merge: the preferred side, what is restored though a side removed it, and the collisions so far."""

    def __init__(self, prefer: Side, restored: frozenset[str]) -> None:
        self.prefer = prefer
        self.restored = restored
        self.collisions: list[Collision] = []

    def meet(self, path: Path, base: Any, theirs: Any, mine: Any) -> Any:
        self.collisions.append(Collision(path, base, theirs, mine))
        return mine if self.prefer == "mine" else theirs

    def value(self, path: Path, base: Any, theirs: Any, mine: Any) -> Any:
        """The merged value of one place. Where both sides agree, or only one changed it, there is no collision."""
        if self.restored and isinstance(base, tuple) and _have_ids(base, theirs, mine):
            # What one side alone removed may have to stay.
            return self.sequence(path, base, theirs, mine)
        if mine is base or mine == base or mine is theirs:
            return theirs
        if theirs is base or theirs == base:
            return mine
        if theirs == mine:
            return theirs
        if isinstance(base, msgspec.Struct) and type(base) is type(theirs) is type(mine):
            if not isinstance(base, WHOLE_VALUES):
                return self.struct(path, base, theirs, mine)
        elif isinstance(base, tuple) and _have_ids(base, theirs, mine):
            return self.sequence(path, base, theirs, mine)
        elif isinstance(base, Mapping) and isinstance(theirs, Mapping) and isinstance(mine, Mapping):
            return self.mapping(path, base, theirs, mine)
        return self.meet(path, base, theirs, mine)

    def struct(self, path: Path, base: Any, theirs: Any, mine: Any) -> Any:
        fields = {
            name: self.value((*path, name), getattr(base, name), getattr(theirs, name), getattr(mine, name))
            for name in base.__struct_fields__
        }
        return msgspec.structs.replace(theirs, **fields)

    def mapping(self, path: Path, base: Mapping[str, Any], theirs: Mapping[str, Any], mine: Mapping[str, Any]) -> Any:
        merged = {}
        for key in dict.fromkeys((*base, *theirs, *mine)):
            found = self.value((*path, str(key)), base.get(key, GONE), theirs.get(key, GONE), mine.get(key, GONE))
            if found is not GONE:
                merged[key] = found
        return merged

    def sequence(self, path: Path, base: Sequence[Any], theirs: Sequence[Any], mine: Sequence[Any]) -> tuple[Any, ...]:
        """A merge of things with ids: each by itself, then their order."""
        old, them, me = ({_id_of(item): item for item in items} for items in (base, theirs, mine))
        kept: dict[str, Any] = {}
        for key in dict.fromkeys((*them, *me, *old)):
            a, b, c = old.get(key, GONE), them.get(key, GONE), me.get(key, GONE)
            if a is not GONE and (b is GONE or c is GONE) and self.is_restored(key, a):
                found = b if c is GONE else c
                found = a if found is GONE else found
            else:
                found = self.value((*path, key), a, b, c)
            if found is not GONE:
                kept[key] = found
        return tuple(kept[key] for key in self.order(path, list(old), list(them), list(me), kept))

    def is_restored(self, key: str, item: Any) -> bool:
        return key in self.restored or getattr(item, "object_id", None) in self.restored

    def order(
        self, path: Path, base: list[str], theirs: list[str], mine: list[str], kept: Mapping[str, Any]
    ) -> list[str]:
        """The order of what is kept: that of the side which moved something; each addition of the other side stands
        behind the same neighbour as there. Additions at one place come in the order theirs, mine.
        """
        if base == theirs == mine and len(kept) == len(base):
            return base
        common = set(base).intersection(theirs, mine)
        stay, in_theirs, in_mine = ([key for key in side if key in common] for side in (base, theirs, mine))
        ours = in_mine != stay
        if (
            ours
            and in_theirs not in (stay, in_mine)
            and self.meet((*path, "#order"), stay, in_theirs, in_mine) is in_theirs
        ):
            ours = False
        first, second = (mine, theirs) if ours else (theirs, mine)
        result = [key for key in first if key in kept]
        for at, key in enumerate(second):
            if key in result or key not in kept:
                continue
            before = next((other for other in reversed(second[:at]) if other in result), None)
            to = result.index(before) + 1 if before is not None else 0
            # What the first side added just there is theirs if the second is mine, and then comes first.
            while not ours and to < len(result) and result[to] not in base and result[to] not in second:
                to += 1
            result.insert(to, key)
        # What was brought back stands where it stood, as far as that can be told.
        for key in kept:
            if key not in result:
                result.insert(min(base.index(key), len(result)), key)
        return result


def _id_of(item: Any) -> str:
    """The id by which both sides are matched."""
    return str(item.object.id if isinstance(item, Spare) else item.id)


def _have_ids(*sides: Any) -> bool:
    """Whether all sides are sequences of things with ids."""
    return all(
        isinstance(side, tuple) and all(hasattr(item, "id") or isinstance(item, Spare) for item in side)
        for side in sides
    )


def merge(
    base: Show, theirs: Show, mine: Show, prefer: Side = "mine", restored: frozenset[str] = frozenset()
) -> Merged:
    """The show with the changes of both sides to `base`.

    In a collision, `prefer` wins. `restored` are ids of things that stay, with their builds, though a side removed
    them. A removal by the preferred side also removes what the other added to it. A removal by the other side is
    reported as a collision, and what the preferred side added to it is left out.
    """
    work = _Merge(prefer, restored)
    slides = work.sequence(("slides",), base.slides, theirs.slides, mine.slides)
    fields = {
        name: work.value((name,), getattr(base, name), getattr(theirs, name), getattr(mine, name))
        for name in base.__struct_fields__
        if name not in ("slides", "id")
    }
    merged = msgspec.structs.replace(theirs, slides=slides, **fields)
    found = _without_dangling(merged, base, theirs, mine, work)
    # A medium that one side still uses stays on the shelf.
    wanted = {met.path[1] for met in found.collisions if met.path[0] == "assets" and len(met.path) == 2} - restored
    return merge(base, theirs, mine, prefer, restored | wanted) if wanted else found


def _without_dangling(merged: Show, base: Show, theirs: Show, mine: Show, work: _Merge) -> Merged:
    """The show without builds, presses, marks and the like whose object, slide or sound is gone; each is a collision
    with the removal.
    """
    slide_ids = {slide.id for slide in merged.slides}
    asset_ids = {asset.id for asset in merged.assets}
    told: dict[Path, Collision] = {}

    def lost(path: Path) -> None:
        told.setdefault(path, Collision(path, *(value_at(show, path) for show in (base, theirs, mine))))

    # A slide that is as it was in a show of which nothing is gone leans on nothing that is gone.
    sound = {
        id(slide)
        for side in (theirs, mine)
        if slide_ids.issuperset(slide.id for slide in side.slides)
        and asset_ids.issuperset(asset.id for asset in side.assets)
        for slide in side.slides
    }
    slides = [
        slide if id(slide) in sound else without_dangling(slide, slide_ids, asset_ids, lost) for slide in merged.slides
    ]
    marks = tuple(mark for mark in merged.marks if mark.slide_id in slide_ids)
    for mark in merged.marks:
        if mark.slide_id not in slide_ids:
            lost(("slides", mark.slide_id))
    music = tuple(span for span in merged.music if span.asset_id in asset_ids)
    for span in merged.music:
        if span.asset_id not in asset_ids:
            lost(("assets", span.asset_id))
    fresh = tuple(new if new is not old and new != old else old for new, old in zip(slides, merged.slides, strict=True))
    show = msgspec.structs.replace(merged, slides=fresh, marks=marks, music=music)
    return Merged(show, (*work.collisions, *told.values()))


def without_dangling(
    slide: Slide, slide_ids: set[str], asset_ids: set[str], lost: Callable[[Path], None] = lambda _: None
) -> Slide:
    """The slide without references to things that are not there; `lost` gets the place of each."""
    here: Path = ("slides", slide.id)
    replace = msgspec.structs.replace
    objects = []
    for item in slide.objects:
        if isinstance(item, Picture) and item.asset_id not in asset_ids:
            lost(("assets", item.asset_id))
            continue
        objects.append(item)
    by_id = {item.id: item for item in objects}
    for at, item in enumerate(objects):
        press = item.press
        gone = (
            ("slides", press.slide_id)
            if isinstance(press, GoToSlide) and press.slide_id not in slide_ids
            else (*here, "objects", press.object_id)
            if isinstance(press, PlayClip) and not isinstance(by_id.get(press.object_id), Clip)
            else ("assets", press.asset_id)
            if isinstance(press, PlaySound) and press.asset_id not in asset_ids
            else None
        )
        if gone is not None:
            lost(gone)
            objects[at] = replace(item, press=None)
    framings = {framing.id for framing in slide.framings}
    order = []
    for build in slide.order:
        if moves_view(build):
            if build.object_id != WHOLE and build.object_id not in framings:
                lost((*here, "framings", build.object_id))
                continue
        elif (target := by_id.get(build.object_id)) is None:
            lost((*here, "objects", build.object_id))
            continue
        elif build.part is not None and not (
            isinstance(target, TextHolder) and any(line.id == build.part for line in target.paragraphs)
        ):
            lost((*here, "objects", target.id, "paragraphs", build.part))
            continue
        if build.sound is not None and build.sound.asset_id not in asset_ids:
            lost(("assets", build.sound.asset_id))
            build = replace(build, sound=None)
        order.append(build)
    fields: dict[str, Any] = {"objects": tuple(objects), "order": tuple(order)}
    if slide.opens_on is not None and slide.opens_on not in framings:
        lost((*here, "framings", slide.opens_on))
        fields["opens_on"] = None
    if slide.voice is not None and slide.voice.asset_id not in asset_ids:
        lost(("assets", slide.voice.asset_id))
        fields["voice"] = None
    if slide.transition.sound is not None and slide.transition.sound.asset_id not in asset_ids:
        lost(("assets", slide.transition.sound.asset_id))
        fields["transition"] = replace(slide.transition, sound=None)
    return replace(slide, **fields)


def value_at(show: Show, path: Path) -> Any:
    """The value at a place of the show; GONE where there is no such place."""
    found: Any = show
    for name in path:
        if name == "#order":
            return tuple(_id_of(item) for item in found)
        if isinstance(found, msgspec.Struct):
            found = getattr(found, name, GONE)
        elif isinstance(found, Mapping):
            found = found.get(name, GONE)
        elif isinstance(found, tuple):
            found = next((item for item in found if _id_of(item) == name), GONE)
        else:
            return GONE
        if found is GONE:
            return GONE
    return found
