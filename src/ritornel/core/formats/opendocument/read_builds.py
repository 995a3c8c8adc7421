"""The SMIL timing of a page as a running order: what a press starts, what goes together, what follows, and which effect
each is.
"""

import re
from collections.abc import Callable, Iterable, Iterator
from typing import Any, Literal
from xml.etree.ElementTree import Element

import msgspec

from ritornel.core.document.objects import PLAYS
from ritornel.core.document.show import Build, Follows, Frame, OnCue, Pace, SoundEffect, Together
from ritornel.core.errors import RitornelError
from ritornel.core.formats.opendocument.names import attribute_of, children_of, duration_ms, full, short
from ritornel.core.formats.opendocument.outlines import parse_outline
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.motion.effects.travels_along import points_on
from ritornel.core.motion.settings import read_settings
from ritornel.core.time.counts import UNTIL_SLIDE_ENDS

Targets = dict[str, tuple[str, str | None]]
"""Which object, and which of its parts, an id of the presentation names."""
Kind = Literal["enters", "leaves", "accents", "travels", "plays"]
_CLASSES: dict[str, Kind] = {"entrance": "enters", "exit": "leaves", "emphasis": "accents", "media-call": "plays"}
_HOLDERS = frozenset(map(full, ("anim:par", "anim:seq", "anim:iterate")))
_NUMBER = re.compile(r"-?\d*\.?\d+")
LONGEST_MS = 3_600_000


class Found(msgspec.Struct, frozen=True):
    """An effect that was read: its name and settings, and whether it is the same or only the nearest."""

    effect: str
    settings: dict[str, Any]
    same: bool


class TimedBuild(msgspec.Struct, frozen=True):
    """One animation of the main sequence: its beat and cluster, its delays, and its effect."""

    beat: int
    cluster: int
    cue: bool
    hold_ms: int | None
    element: Element


def _leaves(element: Element) -> Iterator[Element]:
    """The animations proper, in document order."""
    if element.tag in _HOLDERS:
        for child in element:
            yield from _leaves(child)
    elif short(element.tag).startswith("anim:") and short(element.tag) != "anim:param":
        yield element


class PageTiming(msgspec.Struct, frozen=True):
    """The timing of a page: the builds of its main sequence, the length of its transition, whether presses on objects
    start others, and the place and start of a sound that begins with the page.
    """

    entries: tuple[TimedBuild, ...] = ()
    transition_ms: int | None = None
    interactive: bool = False
    voice: tuple[str, int] | None = None


def main_sequence(page: Element) -> PageTiming:
    """The page's timing."""
    entries: list[TimedBuild] = []
    lasts_ms: int | None = None
    interactive = False
    voice: tuple[str, int] | None = None
    for root in children_of(page, "anim:par"):
        for part in root:
            if part.tag == full("anim:seq") and attribute_of(part, "presentation:node-type") != "interactive-sequence":
                entries += _beats(part, entries[-1].beat + 1 if entries else 0)
            elif part.tag == full("anim:seq"):
                interactive = True
            else:
                for leaf in _leaves(part):
                    if leaf.tag == full("anim:transitionFilter") and not attribute_of(leaf, "smil:targetElement"):
                        lasts_ms = duration_ms(attribute_of(leaf, "smil:dur"))
                    elif leaf.tag == full("anim:audio") and voice is None:
                        voice = (
                            attribute_of(leaf, "xlink:href"),
                            min(duration_ms(attribute_of(part, "smil:begin")) or 0, LONGEST_MS),
                        )
    return PageTiming(tuple(entries), lasts_ms, interactive, voice)


def _beats(sequence: Element, first: int) -> list[TimedBuild]:
    entries: list[TimedBuild] = []
    beat = first
    for child in sequence:
        if child.tag not in _HOLDERS and not short(child.tag).startswith("anim:"):
            continue
        begins = attribute_of(child, "smil:begin")
        cue = begins in ("next", "indefinite", "click") or begins.endswith(".click")
        held = duration_ms(begins)
        waits = cue or (bool(held) and bool(entries))
        before = len(entries)
        clusters = list(child) if child.tag == full("anim:par") else [child]
        for number, cluster in enumerate(clusters):
            grouped = cluster.tag == full("anim:par") and any(entry.tag in _HOLDERS for entry in cluster)
            for effect in list(cluster) if grouped else [cluster]:
                if next(_leaves(effect), None) is not None:
                    entries.append(TimedBuild(beat, number, waits, None if cue else held, effect))
        beat += len(entries) > before
    return entries


class PageContent(msgspec.Struct, frozen=True):
    """What builds refer to: objects and parts by the ids in the timing, which objects are clips, the frame, and a way
    to import a sound.
    """

    targets: Targets
    clips: frozenset[str]
    frame: Frame
    sound: Callable[[str], SoundEffect | None]


def order_of(entries: Iterable[TimedBuild], scene: PageContent, stem: str, lost: set[str]) -> tuple[Build, ...]:
    """The running order of the builds.

    A build of something that was not imported is left out; its cue goes to the next build of its beat.
    """
    builds: list[Build] = []
    beat = cluster = -1
    for entry in entries:
        made = _build(entry, scene, f"{stem}-b{len(builds) + 1}", lost)
        if made is None:
            continue
        starts: OnCue | Together | Follows
        if entry.beat != beat:
            starts = OnCue(f"{stem}-c{len(builds) + 1}", entry.hold_ms) if entry.cue else Follows()
        else:
            starts = Follows() if entry.cluster != cluster else Together()
        beat, cluster = entry.beat, entry.cluster
        builds.append(msgspec.structs.replace(made, starts=starts))
    return tuple(builds)


def _build(entry: TimedBuild, scene: PageContent, build_id: str, lost: set[str]) -> Build | None:
    element = entry.element
    leaves = list(_leaves(element))
    named = next((name for part in (element, *leaves) if (name := attribute_of(part, "smil:targetElement"))), "")
    if named not in scene.targets:
        lost.add("a build of something that was not brought in")
        return None
    object_id, part = scene.targets[named]
    found = _effect(element, leaves, scene.frame)
    if found.effect == PLAYS and object_id not in scene.clips:
        lost.add("a build that plays what is no clip")
        return None
    if not found.same:
        lost.add(f"a build that becomes “{EFFECTS[found.effect].title}”")
    if element.tag == full("anim:iterate") and found.effect != "enters type on":
        lost.add("builds letter by letter or word by word")
    lasts = _lasts(element, leaves)
    if found.effect == PLAYS:
        part, lasts = None, 0
    repeats = attribute_of(element, "smil:repeatCount") or next(
        (count for leaf in leaves if (count := attribute_of(leaf, "smil:repeatCount"))), "1"
    )
    times = max(1, min(round(float(repeats)), 1000)) if _NUMBER.fullmatch(repeats) else 1
    if repeats == "indefinite":
        times = UNTIL_SLIDE_ENDS
    if EFFECTS[found.effect].kind != "accents":
        times = 1
    after = min(duration_ms(attribute_of(element, "smil:begin")) or 0, LONGEST_MS) if element.tag in _HOLDERS else 0
    heard = next(
        (
            address
            for leaf in leaves
            if leaf.tag == full("anim:audio") and (address := attribute_of(leaf, "xlink:href"))
        ),
        "",
    )
    sound = scene.sound(heard) if heard else None
    return Build(
        id=build_id,
        object_id=object_id,
        effect=found.effect,
        starts=Together(),
        after_ms=after,
        lasts_ms=lasts,
        part=part,
        pace=_pace([element, *leaves]),
        repeats=times,
        settings=found.settings,
        sound=sound,
    )


def _lasts(element: Element, leaves: list[Element]) -> int:
    whole = duration_ms(attribute_of(element, "smil:dur")) if element.tag in _HOLDERS else None
    if whole is not None and whole > 1:
        return min(whole, LONGEST_MS)
    # Setting something takes no time, though it is written as lasting a thousandth of a second.
    ends = [
        (duration_ms(attribute_of(leaf, "smil:begin")) or 0) + (duration_ms(attribute_of(leaf, "smil:dur")) or 0)
        for leaf in leaves
        if leaf.tag != full("anim:set")
    ]
    return min(max(ends, default=0), LONGEST_MS)


def _pace(elements: list[Element]) -> Pace:
    faster, slower = (
        any(attribute_of(element, f"smil:{key}").strip("0.") for element in elements)
        for key in ("accelerate", "decelerate")
    )
    return "ease in and out" if faster and slower else "ease in" if faster else "ease out" if slower else "even"


def _effect(element: Element, leaves: list[Element], frame: Frame) -> Found:
    kind = _CLASSES.get(attribute_of(element, "presentation:preset-class")) or _kind(leaves)
    own = attribute_of(element, "presentation:preset-id")
    if own in EFFECTS and EFFECTS[own].kind == kind and kind != "travels":
        return Found(own, _own_settings(own, attribute_of(element, "presentation:preset-sub-type")), True)
    match kind:
        case "plays":
            return Found(PLAYS, {}, True)
        case "travels":
            return _travel(leaves, frame, attribute_of(element, "presentation:preset-sub-type"))
        case "accents":
            return _accent(leaves)
    return _entrance(leaves) if kind == "enters" else _exit(_entrance(leaves, -1))


def _own_settings(name: str, words: str) -> dict[str, Any]:
    """Settings as this program writes them, `comes_from:left;distance_px:120`. Other words are left out."""
    settings: dict[str, Any] = {}
    for pair in filter(None, words.split(";")):
        key, _, value = pair.partition(":")
        tried = {**settings, key: float(value) if _NUMBER.fullmatch(value) else value}
        try:
            read_settings(tried, EFFECTS[name].settings, name)
        except RitornelError:
            continue
        settings = tried
    return settings


def _kind(leaves: list[Element]) -> Kind:
    for leaf in leaves:
        if leaf.tag == full("anim:animateMotion"):
            return "travels"
        if leaf.tag == full("anim:command"):
            return "plays"
        if leaf.tag == full("anim:set") and attribute_of(leaf, "smil:attributeName") == "visibility":
            return "enters" if attribute_of(leaf, "smil:to") == "visible" else "leaves"
    return "accents"


def _values(leaf: Element) -> list[str]:
    values = [value.strip() for value in attribute_of(leaf, "smil:values").split(";") if value.strip()]
    return values or [value for key in ("smil:from", "smil:to") if (value := attribute_of(leaf, key))]


_BAR_SIDES = {
    ("leftToRight", False): "left",
    ("leftToRight", True): "right",
    ("topToBottom", False): "above",
    ("topToBottom", True): "below",
}


def _entrance(leaves: list[Element], away: int = 0) -> Found:
    """The entrance that these animations are; `away` says at which end of a list of values the object is away from its
    place.
    """
    faded = False
    for leaf in leaves:
        name, attribute, values = short(leaf.tag), attribute_of(leaf, "smil:attributeName"), _values(leaf)
        if name == "anim:animate" and attribute in ("x", "y") and values:
            far = values[away].replace(" ", "")
            if re.match(r"^[xy][+-]\.?0*\.?[01]?\d?\d*$", far) or (far[:1] in "xy" and _shift(far) < 0.25):
                return Found("enters rise", {}, attribute == "y" and "+" in far)
            negative = far.startswith(("-", "0-")) or re.match(r"^[xy]-", far) is not None
            side = ("left" if negative else "right") if attribute == "x" else ("above" if negative else "below")
            return Found("enters slide in", {"comes_from": side}, True)
        if name == "anim:animateTransform" and attribute_of(leaf, "svg:type") == "scale" and values:
            size = _NUMBER.findall(values[away])
            return Found("enters settle", {}, True) if size and float(size[0]) > 1 else Found("enters swell", {}, True)
        if name == "anim:animate" and attribute in ("width", "height"):
            return Found("enters swell", {}, True)
        if name == "anim:transitionFilter":
            side = _BAR_SIDES.get(
                (attribute_of(leaf, "smil:subtype"), attribute_of(leaf, "smil:direction") == "reverse"), ""
            )
            if attribute_of(leaf, "smil:type") == "barWipe" and side:
                return Found("enters unveil", {"begins_at": side}, True)
            faded = True
            if attribute_of(leaf, "smil:type") != "fade":
                return Found("enters fade", {}, False)
        if name == "anim:animate" and attribute == "opacity":
            faded = True
        if name == "anim:animateTransform" or (name == "anim:animate" and attribute not in ("opacity", "x", "y")):
            return Found("enters fade", {}, False)
    return (
        Found("enters fade", {}, True)
        if faded
        else Found("enters cut in", {}, all(leaf.tag == full("anim:set") for leaf in leaves))
    )


def _shift(far: str) -> float:
    numbers = _NUMBER.findall(far[1:])
    return abs(float(numbers[0])) if len(numbers) == 1 else 1.0


_EXITS = {
    "enters fade": "leaves fade",
    "enters cut in": "leaves cut out",
    "enters slide in": "leaves slide out",
    "enters unveil": "leaves veil",
    "enters swell": "leaves shrink",
    "enters settle": "leaves loosen",
    "enters rise": "leaves sink",
}


def _exit(entrance: Found) -> Found:
    return Found(_EXITS[entrance.effect], entrance.settings, entrance.same)


def _accent(leaves: list[Element]) -> Found:
    for leaf in leaves:
        name, attribute = short(leaf.tag), attribute_of(leaf, "smil:attributeName")
        if name == "anim:animateColor":
            return Found("accents tint", {}, True)
        if (name == "anim:animateTransform" and attribute_of(leaf, "svg:type") == "scale") or attribute in (
            "width",
            "height",
        ):
            return Found("accents pulse", {}, True)
        if attribute in ("opacity", "visibility"):
            return Found("accents blink", {}, True)
        if attribute in ("x", "y"):
            return Found("accents shake", {}, True)
    return Found("accents pulse", {}, False)


def _travel(leaves: list[Element], frame: Frame, sub_type: str) -> Found:
    """A path in shares of the page as one in px."""
    turns = {"turns": "along the path"} if "along" in sub_type else {}
    for leaf in leaves:
        path = attribute_of(leaf, "svg:path")
        if not path:
            continue
        try:
            words: list[str] = []
            start = None
            for name, given in parse_outline(path):
                pairs = tuple((x * frame.width_px, y * frame.height_px) for x, y in given)
                start = pairs[0] if start is None else start
                name, pairs = ("L", (start,)) if name == "Z" else ("L" if name == "M" and words else name, pairs)
                words.append(" ".join([name, *(f"{round(value, 2):g}" for pair in pairs for value in pair)]))
            settings = {"path": " ".join(words), **turns}
            read_settings(settings, EFFECTS["travels along"].settings, "travels along")
            points_on(settings["path"])
        except RitornelError:
            break
        return Found("travels along", settings, True)
    return Found("accents pulse", {}, False)
