"""Carries, prepared: the pairs of objects, and the ramps that take each from where the slide before leaves it to its
place.
"""

import math
from typing import Any

import msgspec

from ritornel.core.document.objects import Object, Picture, TextHolder
from ritornel.core.document.show import Frame, Slide
from ritornel.core.layout.marks import ObjectDrawing, SlideDrawing
from ritornel.core.motion.carry import CarryCandidate, Pair, pairs_of
from ritornel.core.motion.channels import STILL, Channel, Ramp, Values
from ritornel.core.motion.easing import EVEN, Curve, curve_of
from ritornel.core.motion.sampling import values_at
from ritornel.core.motion.transition import Layers, Moved
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.schedule.tracks import SlideTracks, instant_at, object_values

OUT_BY, IN_FROM = 0.4, 0.6
"""The unpaired are gone after the first 40 % and come in the last 40 %."""


class Ended(msgspec.Struct, frozen=True):
    """A slide with its drawing, schedule and tracks, as far as a carry needs them."""

    slide: Slide
    drawing: SlideDrawing
    schedule: SlideSchedule
    tracks: SlideTracks
    frame: Frame = Frame()


class Refusal(msgspec.Struct, frozen=True):
    """A pair that was not made, and why."""

    before: str
    after: str
    why: str


def _final(ended: Ended) -> dict[tuple[str, str | None], Values]:
    """The values at the slide's last instant."""
    length = ended.schedule.length_ms
    beat = len(ended.schedule.beats) - 1
    return object_values(
        ended.tracks, instant_at(ended.schedule, length, beat, length - ended.schedule.beats[beat].start_ms)
    )


def _enters(staged: Ended, item: Object) -> bool:
    """Whether a build of its own brings the object on; for a text, only if one brings on each of its parts."""
    firsts = {
        motion.part: motion.away_first
        for motion in staged.tracks.motions
        if motion.object_id == item.id and not (motion.part or "").startswith("+")
    }
    if firsts.get(None):
        return True
    parts = [paragraph.id for paragraph in item.paragraphs] if isinstance(item, TextHolder) else []
    return bool(parts) and all(firsts.get(part) for part in parts)


def _away(values: dict[tuple[str, str | None], Values], item: Object) -> bool:
    if not values.get((item.id, None), STILL).shown:
        return True
    parts = [paragraph.id for paragraph in item.paragraphs] if isinstance(item, TextHolder) else []
    return bool(parts) and all(not values.get((item.id, part), STILL).shown for part in parts)


def _middle(drawing: ObjectDrawing, values: Values) -> tuple[float, float]:
    return drawing.x + drawing.width / 2 + values.x, drawing.y + drawing.height / 2 + values.y


def find_pairs(old: Ended, new: Ended) -> tuple[tuple[Pair, ...], tuple[Refusal, ...]]:
    """The pairs of a carry, and the pairs that a build or a hidden object prevents."""
    final = _final(old)
    old_drawn = {item.object_id: item for item in old.drawing.objects}
    new_drawn = {item.object_id: item for item in new.drawing.objects}
    befores = [
        CarryCandidate(item, at, *_middle(old_drawn[item.id], final.get((item.id, None), STILL)))
        for at, item in enumerate(old.slide.objects)
    ]
    afters = [
        CarryCandidate(item, at, *_middle(new_drawn[item.id], STILL)) for at, item in enumerate(new.slide.objects)
    ]
    there = [standing for standing in befores if not _away(final, standing.item)]
    coming = [standing for standing in afters if not _enters(new, standing.item)]
    links, unlinks = new.slide.links, new.slide.unlinks
    pairs = pairs_of(there, coming, links, unlinks)
    made = {(pair.before, pair.after) for pair in pairs}
    taken = {pair.before for pair in pairs} | {pair.after for pair in pairs}
    refusals = []
    by_hand = {(link.before, link.after) for link in links}
    present, entering = {s.item.id for s in there}, {s.item.id for s in afters} - {s.item.id for s in coming}
    for pair in pairs_of(befores, afters, links, unlinks):
        both = (pair.before, pair.after)
        # What was linked by hand is told also where each has found another.
        if both in made or (both not in by_hand and (pair.before in taken or pair.after in taken)):
            continue
        name = next(s.item.name for s in afters if s.item.id == pair.after)
        why = (
            (f"{name} enters by a build of its own, so it would vanish first.")
            if pair.after in entering
            else f"{name} is away when the slide before ends."
        )
        if pair.after in entering or pair.before not in present:
            refusals.append(Refusal(pair.before, pair.after, why))
    return pairs, tuple(refusals)


def _ramp(channel: Channel, first: float, last: float, curve: Curve) -> Ramp:
    return Ramp(channel, ((0.0, first), (1.0, last)), curve)


class _Views(msgspec.Struct, frozen=True):
    """The views of two slides during a carry: they translate points of the first slide to the second."""

    first: Values
    second: Values
    middle: tuple[float, float]

    def across(self, x: float, y: float) -> tuple[float, float]:
        """The point of the second slide at the place where the first slide shows (x, y)."""
        a, b, (mx, my) = self.first, self.second, self.middle
        sx, sy = _turn((x - mx) * a.scale, (y - my) * a.scale, a.turn)
        px, py = _turn((sx + a.x - b.x) / b.scale, (sy + a.y - b.y) / b.scale, -b.turn)
        return px + mx, py + my

    def back(self) -> "_Views":
        return _Views(self.second, self.first, self.middle)


def _turn(x: float, y: float, degrees: float) -> tuple[float, float]:
    angle = math.radians(degrees)
    return x * math.cos(angle) - y * math.sin(angle), x * math.sin(angle) + y * math.cos(angle)


def _views(old: Ended, new: Ended) -> _Views:
    values = [STILL, STILL]
    if old.tracks.view is not None:
        length, beat = old.schedule.length_ms, len(old.schedule.beats) - 1
        values[0] = values_at(
            old.tracks.view, instant_at(old.schedule, length, beat, length - old.schedule.beats[beat].start_ms)
        )
    if new.tracks.view is not None:
        values[1] = values_at(new.tracks.view, instant_at(new.schedule, 0, 0, -1.0))
    return _Views(values[0], values[1], (new.frame.width_px / 2, new.frame.height_px / 2))


def _way(start: ObjectDrawing, values: Values, goal: ObjectDrawing, size: float, views: _Views) -> dict[str, float]:
    """The change that puts the goal where the start is: an offset, a turn (the shortest way), a scale, a width."""
    sx, sy = views.across(*_middle(start, values))
    gx, gy = _middle(goal, STILL)
    turn = (start.turn_deg + values.turn + views.first.turn - views.second.turn - goal.turn_deg + 180) % 360 - 180
    scale = size * values.scale * views.first.scale / views.second.scale
    wide = (start.width / goal.width if goal.width else 1.0) / (start.height / goal.height if goal.height else 1.0)
    return {"x": sx - gx, "y": sy - gy, "turn": turn, "scale": scale, "wide": values.wide * wide}


def _sizes(start: ObjectDrawing, goal: ObjectDrawing) -> tuple[float, bool]:
    """The scale of the start against the goal, and whether width and height may differ: text scales by the size of its
    letters and is never squeezed.
    """
    if start.size_px and goal.size_px:
        return start.size_px / goal.size_px, False
    return (start.height / goal.height if goal.height else 1.0), True


def _same_look(a: ObjectDrawing, b: ObjectDrawing, one: Object, other: Object) -> bool:
    """Whether moving is enough: both drawings differ at most by place, size, turn and opacity."""
    if isinstance(one, Picture) and isinstance(other, Picture):
        ends = one.drift.ends if one.drift else one.crop
        return (one.asset_id, ends, one.flip_x, one.flip_y, one.stroke, one.corner_px) == (
            other.asset_id,
            other.crop,
            other.flip_x,
            other.flip_y,
            other.stroke,
            other.corner_px,
        )
    skip = {
        "id",
        "name",
        "box",
        "lineage",
        "opacity",
        "place",
        "group",
        "locked",
        "aside",
        "press",
        "wings",
        "size_px",
        "shadow",
        "credits",
    }
    if type(one) is not type(other):
        return False
    fields = [name for name in one.__struct_fields__ if name not in skip and name != "paragraphs"]
    text = (
        [[(run.text, run.colour, run.weight) for run in p.runs] for p in one.paragraphs]
        if isinstance(one, TextHolder)
        else []
    )
    same = (
        [[(run.text, run.colour, run.weight) for run in p.runs] for p in other.paragraphs]
        if isinstance(other, TextHolder)
        else []
    )
    return text == same and all(getattr(one, name) == getattr(other, name) for name in fields)


def compile_carry(old: Ended, new: Ended) -> Layers:
    """The layers of a carry from `old` to `new`."""
    curve = curve_of(new.slide.transition.pace)
    pairs, _ = find_pairs(old, new)
    final = _final(old)
    olds, news = (
        {item.object_id: item for item in old.drawing.objects},
        {item.object_id: item for item in new.drawing.objects},
    )
    old_items, new_items = {item.id: item for item in old.slide.objects}, {item.id: item for item in new.slide.objects}
    views = _views(old, new)
    old_moved: list[Moved] = []
    new_moved: list[Moved] = []
    for pair in pairs:
        start, goal, values = olds[pair.before], news[pair.after], final.get((pair.before, None), STILL)
        size, free = _sizes(start, goal)
        way = _way(start, values, goal, size, views)
        if not free:
            way["wide"] = 1.0
        ramps = [_ramp(name, value, 1.0 if name in ("scale", "wide") else 0.0, curve) for name, value in way.items()]  # type: ignore[arg-type]
        faint = values.opacity * start.opacity / goal.opacity if goal.opacity else 1.0
        if _same_look(start, goal, old_items[pair.before], new_items[pair.after]):
            new_moved.append(Moved(pair.after, (*ramps, _ramp("opacity", faint, 1.0, EVEN))))
            old_moved.append(Moved(pair.before, (_ramp("opacity", 0.0, 0.0, EVEN),)))
            continue
        new_moved.append(Moved(pair.after, (*ramps, Ramp("opacity", ((0.0, 0.0), (0.8, 1.0), (1.0, 1.0)), EVEN))))
        back = _way(goal, STILL, start, 1 / size if size else 1.0, views.back())
        if not free:
            back["wide"] = 1.0
        # The slide's own final values stay on the old object; what is added takes it to the goal.
        follow = [
            _ramp(name, 1.0 if name in ("scale", "wide") else 0.0, value, curve)  # type: ignore[arg-type]
            for name, value in _undo_final(back, values).items()
        ]
        old_moved.append(Moved(pair.before, (*follow, Ramp("opacity", ((0.0, 1.0), (0.6, 1.0), (1.0, 0.0)), EVEN))))
    for item in old.slide.objects:
        if item.id not in {pair.before for pair in pairs}:
            old_moved.append(Moved(item.id, (Ramp("opacity", ((0.0, 1.0), (OUT_BY, 0.0), (1.0, 0.0)), EVEN),)))
    for item in new.slide.objects:
        if item.id not in {pair.after for pair in pairs}:
            new_moved.append(Moved(item.id, _from_wings(item, curve)))
    same_ground = old.drawing.ground == new.drawing.ground
    ground = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0)) if same_ground else ((0.0, 0.0), (OUT_BY, 0.0), (1.0, 1.0))
    return Layers(carries=True, old_objects=tuple(old_moved), new_objects=tuple(new_moved), new_ground=ground)


def _undo_final(way: dict[str, float], values: Values) -> dict[str, float]:
    """The change, without what the object's own final values already do."""
    return {
        "x": way["x"] - values.x,
        "y": way["y"] - values.y,
        "turn": way["turn"] - values.turn,
        "scale": way["scale"] / values.scale if values.scale else 1.0,
        "wide": way["wide"] / values.wide if values.wide else 1.0,
    }


def _from_wings(item: Object, curve: Curve) -> tuple[Ramp, ...]:
    if item.wings is None:
        return (Ramp("opacity", ((0.0, 0.0), (IN_FROM, 0.0), (1.0, 1.0)), EVEN),)
    wings = item.wings
    fields: dict[Any, tuple[float, float]] = {
        "x": (wings.dx, 0.0),
        "y": (wings.dy, 0.0),
        "scale": (wings.scale, 1.0),
        "opacity": (wings.opacity, 1.0),
    }
    return tuple(_ramp(channel, first, last, curve) for channel, (first, last) in fields.items())
