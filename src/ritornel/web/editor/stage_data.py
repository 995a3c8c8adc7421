"""What the stage and its panel need, besides the picture, to compose a slide. All of it comes from the core, in
advance.
"""

from typing import Any

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.edits.objects import same_on
from ritornel.core.document.framings import size_of, whole_view
from ritornel.core.document.layouts import box_of, differences, empty_places, ground_of
from ritornel.core.document.objects import Box, Object, TextHolder
from ritornel.core.document.show import Show, Slide
from ritornel.core.layout.drawing import assets_of, scenery_of
from ritornel.core.layout.guides import guides_of
from ritornel.core.layout.visibility import readable_px, seen_on
from ritornel.core.motion.carry import Pair
from ritornel.core.schedule.carries import Ended, Refusal, find_pairs
from ritornel.core.schedule.performance import StagedSlide, stage_slide
from ritornel.core.schedule.slide_schedule import compile_slide


def _beside(show: Show, slide: Slide) -> list[tuple[str, Object, Box]]:
    """The places of the slide's objects on the shown slides next to it."""
    before = show.shown_before(slide.id)
    after = show.shown_after(slide.id)
    found = []
    for words, other in (("on the slide before", before), ("on the slide after", after)):
        if other is None:
            continue
        for item in slide.objects:
            kin = same_on(other, item)
            if kin is not None:
                found.append((words, item, kin.box))
    return found


def _carry(show: Show, slide: Slide, staged: StagedSlide) -> dict[str, Any] | None:
    """The pairs of a carry into the slide, with their start and goal, and the refused pairs; None for another
    transition.
    """
    if not staged.tracks.layers.carries:
        return None
    before = show.shown_before(slide.id)
    if before is None:
        return {"pairs": [], "refusals": [], "before": []}
    schedule = compile_slide(before, show.default_hold_ms, show.holds_by_cue, show.frame)
    old = stage_slide(before, schedule, scenery_of(show))
    ended = [Ended(entry.slide, entry.drawing, entry.schedule, entry.tracks) for entry in (old, staged)]
    pairs, refusals = find_pairs(*ended)
    drawn = [{item.object_id: item for item in entry.drawing.objects} for entry in (old, staged)]
    names = {item.id: item.name for item in before.objects}

    def line(pair: Pair | Refusal) -> dict[str, Any]:
        a, b = drawn[0][pair.before], drawn[1][pair.after]
        ends = {"from": (a.x + a.width / 2, a.y + a.height / 2), "to": (b.x + b.width / 2, b.y + b.height / 2)}
        return {**to_builtins(pair), "name": names[pair.before], **ends}

    return {
        "pairs": [line(pair) for pair in pairs],
        "refusals": [line(refusal) for refusal in refusals],
        "before": [{"id": item.id, "name": item.name} for item in before.objects],
    }


def ties(show: Show, slide: Slide) -> list[dict[str, Any]]:
    """The objects that a carry brings into the slide, for the score; empty for another transition."""
    if slide.transition.name != "carry":
        return []
    staged = stage_slide(
        slide, compile_slide(slide, show.default_hold_ms, show.holds_by_cue, show.frame), scenery_of(show)
    )
    carry = _carry(show, slide, staged)
    return (
        [{"name": pair["name"], "after": pair["after"], "why": pair["why"]} for pair in carry["pairs"]] if carry else []
    )


def composing(show: Show, slide: Slide, staged: StagedSlide) -> dict[str, Any]:
    """Guides, invisible objects, empty places, and differences from the theme."""
    beside = _beside(show, slide)
    drawn = {drawing.object_id: drawing for drawing in staged.drawing.objects}
    away: dict[str, list[bool]] = {}
    for motion in staged.tracks.motions:
        away.setdefault(motion.object_id, []).append(motion.away_first)
    small = readable_px(show.frame)
    return {
        "carry": _carry(show, slide, staged),
        "guides": to_builtins(guides_of(slide, size_of(slide, show.frame), beside)),
        "before": sorted({item.id for words, item, _ in beside if words == "on the slide before"}),
        "seen": {
            key: to_builtins(value)
            for key, value in seen_on(slide, size_of(slide, show.frame), assets_of(show)).items()
        },
        "away": sorted(object_id for object_id, values in away.items() if all(values)),
        "small": sorted(
            item.id for item in slide.objects if isinstance(item, TextHolder) and 0 < drawn[item.id].size_px < small
        ),
        "readable_px": small,
        "whole": to_builtins(whole_view(slide, show.frame)),
        "places": [
            {**to_builtins(place), "box": to_builtins(box_of(place, show.frame))} for place in empty_places(slide)
        ],
        "differs": {
            item.id: sorted(found)
            for item in slide.objects
            if (found := differences(slide, item, show.theme, show.frame))
        },
        "ground": to_builtins(ground_of(slide, show.theme)),
    }
